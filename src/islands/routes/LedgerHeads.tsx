/** The headings of the ledger; those of sections stay in sight as long as anything of the section is. */
import type { Columns } from './columns';
import { LedgerColumnHeads } from './ledger-columns';
import classes from './ledger.module.css';

/** What stands beside the matrix, in pixels. */
export const SIDES = { left: 272, right: 184 };

interface Props {
  readonly columns: Columns;
  readonly column: number | null;
  /** Of the part of the matrix in sight, and how far it is scrolled. */
  readonly width: number;
  readonly offset: number;
}

export function LedgerHeads({ columns, column, width, offset }: Props) {
  const here = column === null ? undefined : columns.items[column];
  // Where sections are narrow, only some letters have room.
  const pitch = Math.min(...columns.sections.slice(1).map(({ x }, n) => x - (columns.sections[n]?.x ?? 0)));
  const longest = Math.max(...columns.sections.map(({ letter }) => letter.length));
  const every = Math.max(1, Math.ceil((longest * 9 + 4) / pitch));
  const right = (here?.x ?? 0) - offset > width / 2;
  return (
    <div className={classes.heads} aria-hidden="true">
      <LedgerColumnHeads />
      <div className={classes.across} style={{ left: SIDES.left, width }}>
        {columns.sections.map(({ letter, title, passes, x, width: wide }, index) => {
          const left = Math.max(0, x - offset);
          const until = x + wide - offset;
          if (until <= 0 || left >= width) return null;
          return (
            <b
              key={letter}
              style={{ left, width: until - left }}
              title={
                passes === null
                  ? title
                  : `${title}: a band for each of up to ${passes} passes, the first on top`
              }
            >
              {(index % every === 0 || wide > letter.length * 9 + 4) && letter}
            </b>
          );
        })}
        {here !== undefined && here.x >= offset && (
          <i
            style={
              right
                ? { right: width - (here.x - offset) - columns.cell - 4 }
                : { left: Math.max(0, here.x - offset - 4) }
            }
          >
            {here.name}
          </i>
        )}
      </div>
    </div>
  );
}
