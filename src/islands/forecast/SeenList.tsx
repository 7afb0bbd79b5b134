/** Shares that were seen beside what is assumed, with the base they rest on; those that are ticked are taken over. */
import { useState } from 'react';
import { assumedWords } from '../../core/forecast/answer-words';
import { assumedShares, type LineRange } from '../../core/forecast/one-more-point';
import { shareTakers, takeShares } from '../../core/forecast/seen/seen-shares';
import { assumedAtQuestions, assumedOf, EXPECTED } from '../../core/forecast/sets';
import { useStudy } from '../state/store';
import { grouped, plural } from '../ui/format';
import { TableHead } from '../ui/TableHead';
import primitives from '../ui/primitives.module.css';
import classes from './came.module.css';
import { percentOf } from './figures';
import { NumberField } from './NumberField';
import type { Came } from './use-came';
import type { Forecasting } from './use-forecast';

interface Props {
  readonly came: Came;
  readonly forecasting: Forecasting;
  readonly readOnly: boolean;
}

/** Under so many askings a share says little. */
const FEW = 30;

export function SeenList({ came: { name: of, sample }, forecasting, readOnly }: Props) {
  const { set, order } = forecasting;
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const [least, setLeast] = useState(FEW);
  const [all, setAll] = useState(false);
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const [told, setTold] = useState<string | null>(null);
  // A table in per cent need not say of how many.
  const counted = [...sample.shares].filter(([, { base }]) => base > 0).length > 0;
  const takers = shareTakers(document, sample.shares, counted ? least : 0);
  const shown = all ? takers : takers.filter((name) => order.includes(name));
  const taken = shown.filter((name) => !without.has(name));
  const few = [...sample.shares].filter(([, { base }]) => counted && base < least).length;
  const take = () => {
    const refused = commit(takeShares(sample.shares, taken, of, set));
    // A table of all says nothing of those who were told apart.
    const together = taken.filter(
      (name) =>
        set === null &&
        assumedAtQuestions(document).get(name)?.assume?.where !== undefined &&
        sample.shares.get(name)?.assume.where === undefined,
    );
    const lost = together.length === 0 ? '' : ` Nobody is told apart any more at ${together.join(', ')}.`;
    setTold(refused ?? `Taken for ${plural(taken.length, 'question')}; undo takes it back.${lost}`);
  };
  return (
    <section className={classes.part} aria-label="Shares that were seen">
      <h3>Shares that were seen</h3>
      <p className={classes.tools}>
        {counted && (
          <label>
            asked at least{' '}
            <NumberField
              label="Asked at least, for a share to be taken"
              value={least}
              least={1}
              keep={(n) => {
                setLeast(n);
                return null;
              }}
            />{' '}
            times
          </label>
        )}
        <label>
          <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} /> with
          those that decide nothing
        </label>
        {few > 0 && <span>{plural(few, 'question')} asked less often</span>}
      </p>
      {shown.length === 0 ? (
        <p className={classes.none}>
          {takers.length === 0
            ? 'No question was asked so often, and is still answered in the same way.'
            : 'None of them decides who is asked what: tick “with those that decide nothing” to take them all the same.'}
        </p>
      ) : (
        <table className={classes.table}>
          <TableHead of={['question', 'asked', 'seen, and assumed so far']} />
          <tbody>
            {shown.map((name) => (
              <tr key={name}>
                <th scope="row">
                  <label>
                    <input
                      type="checkbox"
                      disabled={readOnly}
                      checked={!without.has(name)}
                      onChange={(event) => {
                        const next = new Set(without);
                        if (event.target.checked) next.delete(name);
                        else next.add(name);
                        setWithout(next);
                      }}
                    />{' '}
                    <code>{name}</code>
                  </label>
                </th>
                <td>{counted ? grouped(sample.shares.get(name)?.base ?? 0) : ''}</td>
                <td className={classes.words}>
                  <SeenWords name={name} came={sample.shares} set={set} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {!readOnly && shown.length > 0 && (
        <p className={primitives.smallButtons}>
          <button type="button" disabled={taken.length === 0} onClick={take}>
            Assume the shares of {plural(taken.length, 'question')} in “{set ?? EXPECTED}”
          </button>{' '}
          {told !== null && <span role="status">{told}</span>}
        </p>
      )}
    </section>
  );
}

interface WordsProps {
  readonly name: string;
  readonly came: Came['sample']['shares'];
  readonly set: string | null;
}

function SeenWords({ name, came, set }: WordsProps) {
  const document = useStudy((state) => state.document);
  const entry = assumedAtQuestions(document).get(name);
  const seen = came.get(name)?.assume;
  if (entry === undefined || seen === undefined) return null;
  const { answer, required } = entry;
  // By the stretches that were seen: what is assumed is told of the same.
  const ranges: readonly LineRange[] =
    seen.ranges ??
    Object.keys(seen.shares ?? {}).flatMap((value) => ('min' in answer ? [{ from: value, to: value }] : []));
  const now = assumedShares({ answer, required, assume: assumedOf(document, set, name) }, ranges);
  return assumedShares({ answer, required, assume: seen }, ranges)
    .filter(({ where, share }, n) => where === null && (share > 0 || (now[n]?.share ?? 0) > 0))
    .map((of) => {
      const before = now.find(
        ({ where, answer: other }) => where === null && JSON.stringify(other) === JSON.stringify(of.answer),
      );
      return (
        <span key={JSON.stringify(of.answer)}>
          {assumedWords(answer, of.answer)} <b>{percentOf(of.share).toFixed(0)}</b>
          {before !== undefined && <small> ({percentOf(before.share).toFixed(0)})</small>}
        </span>
      );
    });
}
