/** A number with the range it can be in, on the common scale of all who start; the least that is wanted is a dotted line. */
import classes from './bases.module.css';

interface Props {
  readonly low: number;
  readonly high: number;
  readonly expected: number;
  readonly least: number;
  readonly of: number;
  /** Over all sets of assumptions. */
  readonly span: { readonly low: number; readonly high: number } | null;
}

export function Whisker({ low, high, expected, least, of, span }: Props) {
  const at = (people: number) => `${Math.min(100, (100 * people) / of)}%`;
  return (
    <span className={classes.whisker} aria-hidden="true">
      <i className={classes.least} style={{ left: at(least) }} />
      {span !== null && (
        <i
          className={classes.span}
          style={{ left: at(span.low), width: `calc(${at(span.high - span.low)} + 1px)` }}
        />
      )}
      <i className={classes.range} style={{ left: at(low), width: `calc(${at(high - low)} + 1px)` }} />
      <i className={classes.point} style={{ left: at(expected) }} />
    </span>
  );
}
