/** Tables: one variable, or two against each other, on a source of rows and the part of it that a condition leaves. */
import { useMemo, useState } from 'react';
import { tableVariables, type TableVariable } from '../../../core/tables/variables';
import { exampleAt } from '../../../core/views/completions';
import { useStudy } from '../../state/store';
import { grouped } from '../../ui/format';
import { CrossTable } from './CrossTable';
import { FrequencyTable } from './FrequencyTable';
import { SourcePicker } from './SourcePicker';
import { FindField } from '../../ui/FindField';
import { submitting } from '../../ui/submitting';
import classes from './tables.module.css';
import { useTable, type TableState } from './use-table';
import { MADE_UP, type NamedSource } from './sources';

export function TablesView() {
  const plan = useStudy((state) => state.plan);
  const variables = useMemo(() => tableVariables(plan), [plan]);
  const example = useMemo(() => exampleAt(plan, { section: plan.sections.length, item: 0 }), [plan]);
  const [source, setSource] = useState<NamedSource>(MADE_UP);
  const [chosen, setChosen] = useState<string | null>(() =>
    new URLSearchParams(location.search).get('variable'),
  );
  const [across, setAcross] = useState('');
  const [filter, setFilter] = useState('');
  const [wanted, setWanted] = useState('');
  const first = variables.find(({ kind, item }) => kind === 'codes' && item !== null) ?? variables[0];
  const row = variables.find(({ id }) => id === chosen) ?? first;
  const column = variables.find(({ id }) => id === across) ?? null;
  const shown = useTable(source.source, row?.id ?? null, column?.id ?? null, filter);
  if (row === undefined)
    return (
      <p className={classes.nothing}>
        There is nothing to tabulate yet: write questions in the Script, and their variables stand here.
      </p>
    );
  return (
    <div className={classes.columns}>
      <VariableList
        variables={variables}
        chosen={row.id}
        choose={setChosen}
        wanted={wanted}
        setWanted={setWanted}
      />
      <div className={classes.main}>
        <div className={classes.tools}>
          <SourcePicker source={source} choose={setSource} />
          <form
            className={classes.filter}
            onSubmit={submitting((form) => setFilter(String(new FormData(form).get('filter') ?? '')))}
          >
            <label>
              Only where{' '}
              <input
                name="filter"
                defaultValue={filter}
                placeholder={`all rows, or a condition: ${example ?? 'q1 = 1'}`}
                spellCheck={false}
                autoComplete="off"
                onBlur={(event) => setFilter(event.target.value)}
              />
            </label>
          </form>
          <label>
            Against{' '}
            <select value={across} onChange={(event) => setAcross(event.target.value)}>
              <option value="">nothing: frequencies</option>
              {variables
                .filter(
                  ({ id, kind, over, passes }) =>
                    id !== row.id &&
                    kind !== 'texts' &&
                    over === row.over &&
                    passes.length === row.passes.length,
                )
                .map(({ id, label }) => (
                  <option key={id} value={id}>
                    {`${id}: ${label.length > 60 ? `${label.slice(0, 59)}…` : label}`}
                  </option>
                ))}
            </select>
          </label>
        </div>
        <Result shown={shown} row={row} column={column} source={source} filter={filter} />
      </div>
    </div>
  );
}

interface ResultProps {
  readonly shown: TableState;
  readonly row: TableVariable;
  readonly column: TableVariable | null;
  readonly source: NamedSource;
  readonly filter: string;
}

function Result({ shown, row, column, source, filter }: ResultProps) {
  const left =
    shown.state === 'frequency' || shown.state === 'cross'
      ? `${grouped(shown.counted.kept)} of ${grouped(shown.counted.rows)} rows`
      : '';
  const about = `${source.name}${source.madeUp ? ', not collected' : ''}${filter.trim() === '' ? '' : `, only where ${filter.trim()}: ${left}`}`;
  switch (shown.state) {
    case 'waiting':
      return <div className={classes.sheet} aria-busy="true" />;
    case 'problem':
      return (
        <p role="alert" className={classes.problem}>
          {shown.problem}
        </p>
      );
    case 'frequency':
      return (
        <FrequencyTable variable={row} frequency={shown.counted.table} about={about} madeUp={source.madeUp} />
      );
    case 'cross':
      return column === null ? null : (
        <CrossTable
          row={row}
          column={column}
          cross={shown.counted.table}
          about={about}
          madeUp={source.madeUp}
        />
      );
    default:
      return shown satisfies never;
  }
}

interface ListProps {
  readonly variables: readonly TableVariable[];
  readonly chosen: string;
  readonly choose: (id: string) => void;
  readonly wanted: string;
  readonly setWanted: (text: string) => void;
}

function VariableList({ variables, chosen, choose, wanted, setWanted }: ListProps) {
  const words = wanted.trim().toLowerCase();
  const found = variables.filter(
    ({ id, label }) => id.toLowerCase().includes(words) || label.toLowerCase().includes(words),
  );
  const groups = [...new Set(found.map(({ group }) => group))];
  return (
    <nav className={classes.variables} aria-label="Variables">
      <FindField label="Find a variable" value={wanted} set={setWanted} />
      <div>
        {groups.map((group) => (
          <section key={group}>
            <h2>{group}</h2>
            {found
              .filter((each) => each.group === group)
              .map(({ id, label }) => (
                <button
                  key={id}
                  type="button"
                  aria-current={id === chosen || undefined}
                  title={label}
                  onClick={() => choose(id)}
                >
                  <code>{id}</code> {label}
                </button>
              ))}
          </section>
        ))}
        {found.length === 0 && <p>No variable is called like that.</p>}
      </div>
    </nav>
  );
}
