/** What an audit found: by problem, by variable and by row; the files that come of it. */
import { useState } from 'react';
import { problemWord, type ProblemKind } from '../../../core/audit/problems';
import { problemWords } from '../../../core/wording/audit';
import { endingLabel } from '../../../core/wording/targets';
import type { AuditFile, AuditSummary } from '../../../worker/data/audit-task';
import { useStudy } from '../../state/store';
import { saveBlob } from '../../ui/save-blob';
import { EndingMark } from '../../ui/EndingMark';
import { grouped, plural } from '../../ui/format';
import { useData } from '../../state/data';
import { KeepRows } from './KeepRows';
import { ProblemList, type ProblemWhere } from './ProblemList';
import { useRowWalk } from './use-row-walk';
import { Problem } from '../../ui/Problem';
import { submitting } from '../../ui/submitting';
import classes from './audit.module.css';
import { why } from '../../ui/why';

interface Props {
  readonly summary: AuditSummary;
  readonly openTables: (rows: string) => void;
}

const FILES: readonly (readonly [AuditFile, string, string])[] = [
  ['coded-csv', 'Coded rows, CSV', '-coded.csv'],
  ['coded-xlsx', 'Coded rows, XLSX', '-coded.xlsx'],
  ['problems', 'Report', '-problems.csv'],
  ['changes', 'List of changes', '-changes.csv'],
];

export function AuditReport({ summary, openTables }: Props) {
  const isReadOnly = useStudy((state) => state.readOnly !== null);
  const { client, audit } = useData();
  const document = useStudy((state) => state.document);
  const [where, setWhere] = useState<ProblemWhere>({});
  const [by, setBy] = useState<'problem' | 'variable'>('problem');
  const stem = (audit.getState().file?.name ?? 'rows').replace(/\.[^.]+$/, '');
  const [making, setMaking] = useState<AuditFile | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const save = async (which: AuditFile, ending: string) => {
    if (making !== null) return;
    setMaking(which);
    setProblem(null);
    try {
      const worker = await client.about(document);
      saveBlob(await worker.file(which), `${stem}${ending}`);
    } catch (error) {
      setProblem(`This file could not be made: ${why(error)}`);
    }
    setMaking(null);
  };
  const kinds: readonly (readonly [ProblemKind, number])[] = summary.byProblem;
  return (
    <section className={classes.report} aria-label="What was found">
      <dl className={classes.figures}>
        <Figure value={summary.rows} words={summary.rows === 1 ? 'row' : 'rows'} />
        <Figure value={summary.clean} words="without a problem" />
        <Figure
          value={summary.problems}
          words={summary.problems === 1 ? 'problem' : 'problems'}
          bad={summary.problems > 0}
        />
        <Figure value={summary.filled} words="blanks filled in, that follow from the routing" />
        <Figure value={summary.recoded} words="labels written as codes" />
      </dl>
      <div className={classes.ended}>
        {summary.byEnding.map(([id, count]) => {
          const ending = document.endings.find((each) => each.id === id);
          return (
            <span key={id}>
              {ending !== undefined && <EndingMark kind={ending.kind} />}{' '}
              {ending === undefined ? 'Stopped part-way' : endingLabel(document, id)} <b>{grouped(count)}</b>
            </span>
          );
        })}
      </div>
      <div className={classes.files}>
        {FILES.map(([which, words, ending]) => (
          <button
            key={which}
            type="button"
            // Not disabled: whoever pressed it by keyboard stays on it.
            aria-disabled={making !== null}
            onClick={() => void save(which, ending)}
          >
            {making === which ? `Making it: ${words} …` : words}
          </button>
        ))}
        <WalkAnyRow rows={summary.rows} />
        <Problem of={problem} as="span" />
        {/* What is kept is of the draft's columns. */}
        {!isReadOnly && <KeepRows stem={stem} rows={summary.rows} openTables={openTables} />}
      </div>
      {summary.problems === 0 ? (
        <p className={classes.clean}>Every cell is what the routing allows. Nothing is left to look at.</p>
      ) : (
        <div className={classes.split}>
          <div className={classes.side}>
            <div className={classes.by} role="group" aria-label="Problems by">
              <button type="button" aria-pressed={by === 'problem'} onClick={() => setBy('problem')}>
                By problem
              </button>
              <button type="button" aria-pressed={by === 'variable'} onClick={() => setBy('variable')}>
                By variable
              </button>
            </div>
            <ul>
              <li>
                <button
                  type="button"
                  aria-pressed={where.problem === undefined && where.column === undefined}
                  onClick={() => setWhere({})}
                >
                  All, row by row <b>{grouped(summary.problems)}</b>
                </button>
              </li>
              {by === 'problem'
                ? kinds.map(([kind, count]) => (
                    <li key={kind}>
                      <button
                        type="button"
                        aria-pressed={where.problem === kind}
                        onClick={() => setWhere({ problem: kind })}
                      >
                        {problemWord(kind)} <b>{grouped(count)}</b>
                        <small>{problemWords(kind)}</small>
                      </button>
                    </li>
                  ))
                : summary.byColumn.map(({ column, total, kinds: own }) => (
                    <li key={column}>
                      <button
                        type="button"
                        aria-pressed={where.column === column}
                        onClick={() => setWhere({ column })}
                      >
                        <code>{column}</code> <b>{grouped(total)}</b>
                        <small>
                          {own.map(([kind, count]) => `${problemWord(kind)} ${grouped(count)}`).join(', ')}
                        </small>
                      </button>
                    </li>
                  ))}
            </ul>
          </div>
          <ProblemList key={JSON.stringify(where)} where={where} />
        </div>
      )}
      {summary.listed < summary.problems && (
        <p className={classes.note}>
          {plural(summary.listed, 'problem')} listed here of {grouped(summary.problems)}; the shell lists them
          all: <code>npx jolly-fork audit --json</code>
        </p>
      )}
    </section>
  );
}

/** Rows without a problem as well. */
function WalkAnyRow({ rows }: { readonly rows: number }) {
  const { walkRow, told } = useRowWalk();
  return (
    <form
      className={classes.any}
      onSubmit={submitting((form) => {
        const wanted = Number(new FormData(form).get('row'));
        if (Number.isInteger(wanted) && wanted >= 1) void walkRow(wanted);
      })}
    >
      <label>
        Row <input name="row" type="number" min={1} max={rows} required />
      </label>
      <button type="submit">Walk it</button>
      <Problem of={told} as="span" />
    </form>
  );
}

function Figure({
  value,
  words,
  bad,
}: {
  readonly value: number;
  readonly words: string;
  readonly bad?: boolean;
}) {
  return (
    <div data-bad={bad || undefined}>
      <dt>{words}</dt>
      <dd>{grouped(value)}</dd>
    </div>
  );
}
