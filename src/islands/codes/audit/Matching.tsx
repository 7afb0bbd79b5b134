/** The columns of a file, each with the variable it is matched to; what is said here is kept for the next file. */
import { useMemo } from 'react';
import { useStore } from 'zustand';
import type { FileColumn, SaidMatches } from '../../../core/audit/matching';
import { columnsOf } from '../../../core/coding/columns';
import type { OpenedFile } from '../../../worker/data/audit-task';
import { useStudy } from '../../state/store';
import { useData } from '../../state/data';
import { TableHead } from '../../ui/TableHead';
import classes from './audit.module.css';

interface Props {
  readonly opened: OpenedFile;
  readonly matching: readonly FileColumn[];
  readonly said: SaidMatches;
}

const BY_WORDS = { name: 'by name', label: 'by label', hand: 'by hand' } as const;
/** Not a name that a column can have. */
const CARRIED = ' carried';
const OPEN = ' open';

export function Matching({ opened, matching, said }: Props) {
  const { audit } = useData();
  const say = useStore(audit, (state) => state.say);
  const document = useStudy((state) => state.document);
  const plan = useStudy((state) => state.plan);
  const api = useStudy((state) => state.api);
  const columns = useMemo(() => columnsOf(plan).map(({ name }) => name), [plan]);
  const taken = new Set(matching.flatMap(({ column }) => (column === null ? [] : [columns[column]])));
  const lacking = columns.filter((name) => !taken.has(name));
  // What nobody has matched comes first.
  const order = matching
    .map((column, at) => ({ ...column, at }))
    .sort((a, b) => rank(a) - rank(b) || a.at - b.at);
  return (
    <div className={classes.matches}>
      <table>
        <TableHead of={['Column in the file', 'First cells', 'Variable', 'Matched']} />
        <tbody>
          {order.map(({ name, column, by, at }) => (
            <tr key={at} data-open={(column === null && by === null) || undefined}>
              <th scope="row">{name}</th>
              <td className={classes.samples}>
                {opened.samples[at]?.map((cell) => (cell === '' ? '·' : cell)).join('  ')}
              </td>
              <td>
                <select
                  aria-label={`Variable for the column ${name}`}
                  value={column === null ? (by === 'hand' ? CARRIED : OPEN) : (columns[column] ?? OPEN)}
                  onChange={({ target: { value } }) =>
                    void say(
                      document,
                      api,
                      name.trim(),
                      value === CARRIED ? null : value === OPEN ? undefined : value,
                    )
                  }
                >
                  <option value={OPEN}>none</option>
                  <option value={CARRIED}>none: carry it along</option>
                  {column !== null && <option>{columns[column]}</option>}
                  {lacking.map((each) => (
                    <option key={each}>{each}</option>
                  ))}
                </select>
                {Object.hasOwn(said, name.trim()) && (
                  <button type="button" onClick={() => void say(document, api, name.trim(), undefined)}>
                    forget
                  </button>
                )}
              </td>
              <td>{by === null ? '' : BY_WORDS[by]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {lacking.length > 0 && (
        <p>
          The file lacks {lacking.length === 1 ? 'the column' : `${lacking.length} columns`}{' '}
          <code>{lacking.slice(0, 12).join(', ')}</code>
          {lacking.length > 12 && ` and ${lacking.length - 12} more`}.
        </p>
      )}
    </div>
  );
}

function rank({ column, by }: FileColumn): number {
  if (column === null) return by === null ? 0 : 2;
  return by === 'name' ? 3 : 1;
}
