/** The coded row as it stands: what the data would hold if the respondent stopped here. */
import { useMemo } from 'react';
import { columnsOf } from '../../core/coding/columns';
import { codedCells } from '../../core/coding/row';
import type { Plan } from '../../core/routing/plan';
import { walk } from '../../core/routing/walk';
import { cellReason } from '../../core/wording/cell-reasons';
import { VariableName } from '../ui/VariableName';
import type { Session } from '../../core/responding/session';
import classes from './cards.module.css';

interface Props {
  readonly plan: Plan;
  readonly session: Session;
}

export function RowCard({ plan, session }: Props) {
  const { answers, inputs, page } = session;
  const last = page?.steps.at(-1)?.planItem.item.name;
  const cells = useMemo(() => {
    const result = walk(plan, {
      answers,
      ...inputs,
      lenient: true,
      ...(last === undefined ? {} : { stoppedAt: last }),
    });
    if (!result.ok) return [];
    const columns = columnsOf(plan);
    return codedCells(plan, result.walk, answers, columns).map((cell, n) => {
      const column = columns[n];
      return { ...cell, why: column === undefined ? '' : cellReason(result.walk, column, cell) };
    });
  }, [plan, answers, inputs, last]);
  return (
    <details className={classes.row}>
      <summary>The coded row as it stands</summary>
      <table>
        <tbody>
          {cells.map(({ column, value, reason, why }) => (
            <tr key={column} data-missing={reason === 'not_applicable' || undefined}>
              <th scope="row">
                <VariableName name={column} />
              </th>
              <td>
                {value}
                {why !== '' && <small>{why}</small>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
