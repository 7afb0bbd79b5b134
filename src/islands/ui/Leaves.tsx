/** Which leaf of a view lies on top: their names in a row, and what belongs to the view as a whole at the end of it. */
import type { ReactNode } from 'react';
import classes from './leaves.module.css';

interface Props<Leaf extends string> {
  readonly label: string;
  readonly words: Readonly<Record<Leaf, string>>;
  readonly leaf: Leaf;
  readonly turnTo: (leaf: Leaf) => void;
  readonly children?: ReactNode;
}

export function Leaves<Leaf extends string>({ label, words, leaf, turnTo, children }: Props<Leaf>) {
  return (
    <nav className={classes.leaves} aria-label={label}>
      {(Object.keys(words) as Leaf[]).map((each) => (
        <button
          key={each}
          type="button"
          className={classes.leaf}
          aria-current={each === leaf ? 'page' : undefined}
          onClick={() => turnTo(each)}
        >
          {words[each]}
        </button>
      ))}
      {children}
    </nav>
  );
}
