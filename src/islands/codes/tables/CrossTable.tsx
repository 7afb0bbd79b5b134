/** Two variables against each other: counts, or percent along rows or down columns. */
import { useState } from 'react';
import type { Cross } from '../../../core/tables/cross';
import type { TableVariable } from '../../../core/tables/variables';
import { percentWords } from '../../../core/tables/shares';
import { crossFigures, crossMargins, crossSheet, type CrossFigures } from '../../../core/views/table-sheets';
import { grouped, plural } from '../../ui/format';
import { CrossBars } from './CrossBars';
import { TableTitle } from './TableTitle';
import { TableHead } from '../../ui/TableHead';
import classes from './tables.module.css';

interface Props {
  readonly row: TableVariable;
  readonly column: TableVariable;
  readonly cross: Cross;
  readonly about: string;
  readonly madeUp: boolean;
}

const FIGURES: readonly (readonly [CrossFigures, string])[] = [
  ['counts', 'Counts'],
  ['row', '% of rows'],
  ['column', '% of columns'],
];

export function CrossTable({ row, column, cross, about, madeUp }: Props) {
  const [figures, setFigures] = useState<CrossFigures>('row');
  const body = crossFigures(cross, figures);
  const { below, beside } = crossMargins(cross, figures);
  const counted = (cell: number | null | undefined) => grouped(cell ?? 0);
  const shown = (cell: number | null) => (figures === 'counts' ? counted(cell) : percentWords(cell));
  const { without } = cross;
  const title = `${row.id} against ${column.id}`;
  return (
    <div className={classes.sheet}>
      <TableTitle
        variable={row}
        against={column}
        about={about}
        madeUp={madeUp}
        sheet={() => crossSheet(title, about, cross, figures)}
      />
      <div className={classes.figures} role="group" aria-label="Figures">
        {FIGURES.map(([id, name]) => (
          <button key={id} type="button" aria-pressed={figures === id} onClick={() => setFigures(id)}>
            {name}
          </button>
        ))}
      </div>
      {cross.cases === 0 ? (
        <p className={classes.summary}>Nobody answered both.</p>
      ) : (
        <>
          <div className={classes.wide}>
            <table className={classes.table}>
              <TableHead of={[null, ...cross.columns, figures === 'row' ? 'n' : 'All']} />
              <tbody>
                {cross.rows.map((label, n) => (
                  <tr key={n}>
                    <th scope="row">{label}</th>
                    {body[n]?.map((cell, m) => (
                      <td key={m}>{shown(cell)}</td>
                    ))}
                    <td>{figures === 'column' ? shown(beside[n] ?? null) : counted(beside[n])}</td>
                  </tr>
                ))}
              </tbody>
              <tfoot>
                <tr className={classes.sum}>
                  <th scope="row">{figures === 'column' ? 'n' : 'All'}</th>
                  {below.map((cell, m) => (
                    <td key={m}>{figures === 'row' ? shown(cell) : counted(cell)}</td>
                  ))}
                  <td>{grouped(cross.cases)}</td>
                </tr>
              </tfoot>
            </table>
          </div>
          <CrossBars cross={cross} madeUp={madeUp} />
        </>
      )}
      <div className={classes.finding}>
        <p>
          Of {plural(cross.cases, madeUp ? 'made-up case' : 'case')} with an answer to both. Left out:{' '}
          {grouped(without.row)} without an answer to <code>{row.id}</code>, and {grouped(without.column)}{' '}
          more without one to <code>{column.id}</code>.
        </p>
      </div>
    </div>
  );
}
