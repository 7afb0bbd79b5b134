/** Problems of a kind or of a variable, some at a time; each row can be walked. */
import { useState } from 'react';
import type { ProblemKind } from '../../../core/audit/problems';
import { problemAt } from '../../../core/wording/audit';
import { endingLabel } from '../../../core/wording/targets';
import type { FoundProblem } from '../../../worker/data/audit-task';
import { useAsked } from '../../ui/use-asked';
import { useStudy } from '../../state/store';
import { grouped } from '../../ui/format';
import { useData } from '../../state/data';
import { useRowWalk } from './use-row-walk';
import { Problem } from '../../ui/Problem';
import { TableHead } from '../../ui/TableHead';
import classes from './audit.module.css';

export interface ProblemWhere {
  readonly problem?: ProblemKind;
  readonly column?: string;
}

const PAGE = 100;

export function ProblemList({ where }: { readonly where: ProblemWhere }) {
  const { client } = useData();
  const document = useStudy((state) => state.document);
  const { walkRow, told } = useRowWalk();
  const [from, setFrom] = useState(0);
  const [page, setPage] = useState<{ problems: readonly FoundProblem[]; total: number } | null>(null);
  useAsked(
    () => client.about(document).then((worker) => worker.problems(where, from, PAGE)),
    [client, document, where, from],
    setPage,
  );

  if (page === null) return <div className={classes.list} />;
  return (
    <div className={classes.list}>
      <table>
        <TableHead of={['Row', 'Column', 'Holds', 'Problem', <span className={classes.hidden}>Walk</span>]} />
        <tbody>
          {page.problems.map(({ row, column, problem, value, instead }, at) => (
            <tr key={at}>
              <td>{row === 0 ? '' : grouped(row)}</td>
              <th scope="row">{column}</th>
              <td className={classes.value}>{value === '' && row > 0 ? <i>blank</i> : value}</td>
              <td>
                {problemAt({ problem, column, value, ...(instead === undefined ? {} : { instead }) }, (id) =>
                  endingLabel(document, id),
                )}
              </td>
              <td>
                {row > 0 && (
                  <button type="button" onClick={() => void walkRow(row)}>
                    Walk row {grouped(row)}
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Problem of={told} className={classes.problem} />
      {page.total > PAGE && (
        <div className={classes.pager}>
          <button type="button" disabled={from === 0} onClick={() => setFrom(Math.max(0, from - PAGE))}>
            Before
          </button>
          {grouped(from + 1)} to {grouped(Math.min(from + PAGE, page.total))} of {grouped(page.total)}
          <button type="button" disabled={from + PAGE >= page.total} onClick={() => setFrom(from + PAGE)}>
            After
          </button>
        </div>
      )}
    </div>
  );
}
