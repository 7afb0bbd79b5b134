/** The slip of what is selected: who is in it, what it hangs on, how many have to start for enough of them; and the minutes. */
import { useState } from 'react';
import type { Effect } from '../../core/forecast/steering';
import type { Expected, Hanging } from '../../core/forecast/forecast';
import { peopleFor } from '../../core/forecast/binomial';
import { groupKey } from '../../core/forecast/groups';
import type { Plan } from '../../core/routing/plan';
import { baseOf } from '../../core/wording/base';
import { askedOf } from '../state/asked';
import { shownSearch } from '../state/routes-shown';
import { useStudy } from '../state/store';
import { RoutesDoor } from '../slips/RoutesDoor';
import { grouped } from '../ui/format';
import primitives from '../ui/primitives.module.css';
import { useAsked } from '../ui/use-asked';
import { countOf, marginOf, minutesText, percentOf } from './figures';
import { HangsOn } from './HangsOn';
import { MinutesChart } from './MinutesSheet';
import { NumberField } from './NumberField';
import classes from './selected.module.css';
import type { Forecasting } from './use-forecast';

interface Props {
  readonly selected: Hanging;
  readonly forecasting: Forecasting;
  readonly plan: Plan;
  readonly select: (of: Hanging) => void;
}

export function SelectedSlip({ selected, forecasting, plan, select }: Props) {
  const { figures, client, held } = forecasting;
  const [effects, setEffects] = useState<{
    readonly of: Hanging;
    readonly is: readonly Effect[] | null;
  } | null>(null);
  useAsked(
    () => (figures === null ? null : client.effects(selected).catch(() => null)),
    [client, figures, selected],
    (is) => setEffects({ of: selected, is }),
  );
  const limit = useStudy((state) => state.document.settings?.maxMinutes) ?? null;
  if (figures === null) return <aside className={classes.side} aria-label="Selected" aria-busy="true" />;
  const row =
    selected === 'minutes'
      ? null
      : ([...figures.items, ...figures.endings].find(
          ({ group }) => groupKey(group) === groupKey(selected.group),
        ) ?? null);
  const known = effects !== null && same(effects.of, selected) ? effects.is : undefined;
  return (
    <aside className={classes.side} aria-label="Selected">
      {row !== null && (
        <>
          <h2>
            <code>{nameOf(row)}</code> {'ending' in row.group ? '' : 'base'}
            <button type="button" className={primitives.link} onClick={() => select('minutes')}>
              close
            </button>
          </h2>
          <BaseCard row={row} starts={held.starts} least={held.least} />
        </>
      )}
      <h2>
        {row === null
          ? 'What the minutes hang on: one point more gives'
          : 'What it hangs on: one point more gives'}
      </h2>
      <div className={primitives.card}>
        {known === undefined ? (
          <p className={classes.note}>Working it out …</p>
        ) : known === null ? (
          <p className={classes.note}>It cannot be told exactly here.</p>
        ) : (
          <HangsOn
            effects={known}
            scale={row === null ? { by: 60, unit: 's' } : { by: held.starts, unit: '' }}
            plan={plan}
          />
        )}
        {held.breakOff > 0 && known && known.length > 0 && (
          <p className={classes.note}>Before anybody breaks off.</p>
        )}
      </div>
      {row !== null && <Needed key={groupKey(row.group)} row={row} forecasting={forecasting} />}
      <h2>Minutes, of all who finish</h2>
      <div className={primitives.card}>
        {figures.minutes === null ? (
          <p className={classes.note}>Nobody finishes.</p>
        ) : (
          <>
            <MinutesChart figures={figures} limit={limit} height={110} />
            <p className={classes.note}>
              {minutesText(figures.minutes.mean)} on average, the longest{' '}
              {minutesText(figures.minutes.longest)}.
            </p>
          </>
        )}
      </div>
    </aside>
  );
}

function BaseCard({
  row: { group, expected, low, high, share, error },
  starts,
  least,
}: {
  readonly row: Expected;
  readonly starts: number;
  readonly least: number;
}) {
  const analysis = useStudy((state) => state.analysis);
  const plan = useStudy((state) => state.plan);
  const margin = marginOf(expected);
  const name = 'item' in group ? group.item : null;
  return (
    <div className={primitives.card}>
      <p className={classes.count}>
        {countOf(expected)} of {grouped(starts)} started
      </p>
      <p>
        {grouped(low)} to {grouped(high)}, 95 times in 100; {percentOf(share)}% of all
        {error !== null && `, simulated within ${percentOf(error)} points`}.
        {margin !== null &&
          name !== null &&
          ` A share of them is known to ± ${margin.toFixed(1)} points at worst.`}
      </p>
      {name !== null && <p>{baseOf(plan.variables, askedOf(analysis, name)).sentence}.</p>}
      {name !== null && analysis?.items[name] !== undefined && (
        <p>
          <RoutesDoor search={shownSearch({ through: [name] })} title={`Routes through ${name}`}>
            {`its ${grouped(analysis.items[name] ?? '0')} routes`}
          </RoutesDoor>
        </p>
      )}
      {name !== null && expected < least && (
        <p className={classes.low}>
          Too few to report: {grouped(least)} wanted.
          {share === 0 && ' Nobody is asked it under these assumptions.'}
        </p>
      )}
    </div>
  );
}

const CERTAINTIES = [
  [0.5, '50%'],
  [0.9, '90%'],
  [0.95, '95%'],
] as const;

/** How many have to start, and to be invited, for so many in a group. */
function Needed({ row, forecasting }: { readonly row: Expected; readonly forecasting: Forecasting }) {
  const { held } = forecasting;
  const [wanted, setWanted] = useState(Math.max(1, held.least));
  const { share } = row;
  return (
    <>
      <h2>
        To have{' '}
        <NumberField
          label={`Wanted of ${nameOf(row)}`}
          value={wanted}
          least={1}
          most={10_000_000}
          keep={(n) => {
            setWanted(n);
            return null;
          }}
        />{' '}
        of them
      </h2>
      <div className={primitives.card}>
        {share === 0 ? (
          <p className={classes.low}>
            No number of starts is enough: under these assumptions nobody gets there. Look at its base, or at
            the shares at the left.
          </p>
        ) : (
          <table className={classes.needed}>
            <thead>
              <tr>
                <th scope="col">certain</th>
                <th scope="col">start</th>
                {held.response !== null && <th scope="col">invite</th>}
              </tr>
            </thead>
            <tbody>
              {CERTAINTIES.map(([certainty, words]) => (
                <tr key={certainty}>
                  <th scope="row">{words}</th>
                  <td>{needed(peopleFor(wanted, share, certainty))}</td>
                  {/* Each invitation leads somebody there with the chances of both: one binomial as well. */}
                  {held.response !== null && (
                    <td>{needed(peopleFor(wanted, share * held.response, certainty))}</td>
                  )}
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {share > 0 && held.response === null && (
          <p className={classes.note}>With a response rate, how many to invite is told too.</p>
        )}
      </div>
    </>
  );
}

function needed(people: number | null): string {
  return people === null ? 'no number' : grouped(people);
}

function nameOf({ group }: Expected): string {
  if ('ending' in group) return group.ending;
  if ('section' in group) return group.section;
  return group.pass === null ? group.item : `${group.item}, pass ${group.pass}`;
}

function same(a: Hanging, b: Hanging): boolean {
  return a === 'minutes' || b === 'minutes' ? a === b : groupKey(a.group) === groupKey(b.group);
}
