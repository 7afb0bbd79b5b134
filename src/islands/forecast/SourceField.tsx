/** Where the shares of a question are known from, in the author's words, and how many people that is. */
import { plural } from '../ui/format';
import classes from './assumptions.module.css';
import { WordField } from './WordField';

interface Props {
  readonly name: string;
  readonly source: string;
  /** How many people they were seen among; null where that is not known. */
  readonly base: number | null;
  readonly readOnly: boolean;
  readonly keep: (source: string) => string | null;
}

export function SourceField({ name, source, base, readOnly, keep }: Props) {
  return (
    <span className={classes.known}>
      <WordField
        className={classes.source}
        label={`Source of the shares of ${name}`}
        placeholder="source: a pilot, a table, a guess …"
        value={source}
        readOnly={readOnly}
        keep={keep}
      />
      {base !== null && <small>{plural(base, 'answer')}</small>}
    </span>
  );
}
