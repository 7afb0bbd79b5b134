/** Where the shares of a question are known from, in the author's words. */
import { useState } from 'react';
import classes from './assumptions.module.css';

interface Props {
  readonly name: string;
  readonly source: string;
  readonly readOnly: boolean;
  readonly keep: (source: string) => string | null;
}

export function SourceField({ name, source, readOnly, keep }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const take = () => {
    if (typed !== null && typed.trim() !== source) keep(typed.trim());
    setTyped(null);
  };
  return (
    <input
      className={classes.source}
      aria-label={`Source of the shares of ${name}`}
      placeholder="source: a pilot, a table, a guess …"
      value={typed ?? source}
      readOnly={readOnly}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
        if (event.key === 'Escape') setTyped(null);
      }}
    />
  );
}
