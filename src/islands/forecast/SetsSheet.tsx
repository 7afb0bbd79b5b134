/** The sets of assumptions side by side: what they assume otherwise, and what comes of it. */
import { ENDINGS } from '../../core/document/vocabularies';
import type { Questionnaire } from '../../core/document/types';
import { assumedWords } from '../../core/forecast/answer-words';
import { assumedShares, type AssumedShare } from '../../core/forecast/one-more-point';
import { groupKey } from '../../core/forecast/groups';
import type { Hanging } from '../../core/forecast/forecast';
import { assumedAtQuestions, assumedOf, EXPECTED, setsOf } from '../../core/forecast/sets';
import type { SetFigures, SteeringShown } from '../../worker/forecast/types';
import { useStudy } from '../state/store';
import { grouped } from '../ui/format';
import { TableHead } from '../ui/TableHead';
import classes from './came.module.css';
import { countOf, minutesText, nameOf, percentOf } from './figures';
import type { Forecasting } from './use-forecast';
import type { Sets } from './use-sets';

interface Props {
  readonly sets: Sets | null;
  readonly forecasting: Forecasting;
  readonly select: (of: Hanging) => void;
}

export function SetsSheet({ sets, forecasting: { figures, held }, select }: Props) {
  const document = useStudy((state) => state.document);
  if (setsOf(document).length === 0)
    return (
      <p className={classes.none}>
        There is one set of assumptions: what stands at the questions. With “+” at the left another is begun,
        low or high, which assumes otherwise what it says and the same in the rest.
      </p>
    );
  if (sets === null || figures === null) return <p className={classes.none}>Working out each set …</p>;
  const { all } = sets;
  const finishing = new Set(document.endings.filter(({ kind }) => !ENDINGS[kind].early).map(({ id }) => id));
  const finish = ({ endings }: SetFigures) =>
    endings.reduce(
      (sum, { group, expected }) => ('ending' in group && finishing.has(group.ending) ? sum + expected : sum),
      0,
    );
  const head = (first: string) => <TableHead of={[first, ...all.map(({ set }) => set ?? EXPECTED)]} />;
  const differing = otherwise(document, figures.steering, all);
  const [first] = all;
  const rows = [...(first?.endings ?? []), ...(first?.items ?? [])];
  return (
    <>
      <section className={classes.part} aria-label="What the sets assume otherwise">
        <h3>Assumed otherwise</h3>
        {differing.length === 0 ? (
          <p className={classes.none}>Nothing yet: choose a set at the left, and move its shares.</p>
        ) : (
          <table className={classes.table}>
            {head('question and answer')}
            <tbody>
              {differing.map(({ key, name, words, shares }) => (
                <tr key={key}>
                  <th scope="row">
                    <code>{name}</code> {words}
                  </th>
                  {shares.map((share, n) => (
                    <td key={all[n]?.set ?? ''}>{share === null ? '' : `${percentOf(share)}%`}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
      <section className={classes.part} aria-label="What comes of the sets">
        <h3>What comes of it</h3>
        <table className={classes.table}>
          {head(`of ${grouped(held.starts)} who start`)}
          <tbody>
            <tr>
              <th scope="row">finish</th>
              {all.map((of) => (
                <td key={of.set ?? ''}>{countOf(finish(of))}</td>
              ))}
            </tr>
            <tr>
              <th scope="row">half take at most</th>
              {all.map(({ set, minutes }) => (
                <td key={set ?? ''}>{minutes === null ? 'nobody' : minutesText(minutes.median)}</td>
              ))}
            </tr>
            {rows.map((row, n) => (
              <tr key={groupKey(row.group)}>
                <th scope="row">
                  <button type="button" onClick={() => select({ group: row.group })}>
                    {nameOf(row)}
                  </button>
                </th>
                {all.map(({ set, items, endings }) => {
                  // Every set has the same groups, in the same order.
                  const own = n < endings.length ? endings[n] : items[n - endings.length];
                  const isLow = 'item' in row.group && (own?.expected ?? 0) < held.least;
                  return (
                    <td key={set ?? ''} data-low={isLow || undefined}>
                      {countOf(own?.expected ?? 0)}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </>
  );
}

interface Otherwise {
  readonly key: string;
  readonly name: string;
  readonly words: string;
  /** Parallel to the sets. */
  readonly shares: readonly (number | null)[];
}

/** Of questions that decide, every share that is not the same in all sets. */
function otherwise(
  document: Questionnaire,
  steering: readonly SteeringShown[],
  all: readonly SetFigures[],
): Otherwise[] {
  const entries = assumedAtQuestions(document);
  return steering.flatMap(({ name, shares: told }) => {
    const entry = entries.get(name);
    if (entry === undefined) return [];
    const ranges = told.flatMap(({ where, answer }) =>
      where === null && typeof answer === 'object' && 'from' in answer ? [answer] : [],
    );
    const bySet = all.map(({ set }) =>
      assumedShares({ ...entry, assume: assumedOf(document, set, name) }, ranges),
    );
    const [first = []] = bySet;
    return first.flatMap(({ where, answer }, n): Otherwise[] => {
      const shares = bySet.map((of: readonly AssumedShare[]) => of[n]?.share ?? null);
      if (shares.every((share) => Math.abs((share ?? 0) - (shares[0] ?? 0)) < 1e-9)) return [];
      const among = where === null ? '' : ` where ${entry.assume?.where?.[where]?.if ?? ''}`;
      return [{ key: `${name} ${n}`, name, words: `${assumedWords(entry.answer, answer)}${among}`, shares }];
    });
  });
}
