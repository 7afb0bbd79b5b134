/** The coded row as it stands: what the data would hold if the respondent stopped here. */
import { useMemo } from 'react';
import { codedCells } from '../../core/coding/row';
import type { Plan } from '../../core/routing/plan';
import { walk } from '../../core/routing/walk';
import type { Session } from './session';
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
    return result.ok ? codedCells(plan, result.walk, answers) : [];
  }, [plan, answers, inputs, last]);
  const missing = new Set(plan.document.missing.map(({ code }) => code));
  return (
    <details className={classes.row}>
      <summary>The coded row as it stands</summary>
      <table>
        <tbody>
          {cells.map(({ column, value }) => (
            <tr key={column} data-missing={(typeof value === 'number' && missing.has(value)) || undefined}>
              <th scope="row">{column}</th>
              <td>{value}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
