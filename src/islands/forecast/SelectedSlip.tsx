/** The slip of what is selected: who is in it, what it hangs on, how many have to start for enough of them; and the minutes. */
import { useState, type KeyboardEvent, type RefObject } from 'react';
import type { Hanging } from '../../core/forecast/forecast';
import { groupKey } from '../../core/forecast/groups';
import type { Effect } from '../../core/forecast/steering';
import type { Plan } from '../../core/routing/plan';
import { useStudy } from '../state/store';
import primitives from '../ui/primitives.module.css';
import { useAsked } from '../ui/use-asked';
import { BaseCard } from './BaseCard';
import { minutesText, nameOf } from './figures';
import { Doubles } from './Doubles';
import { Halves } from './Halves';
import { HangsOn } from './HangsOn';
import { MinutesChart } from './MinutesChart';
import { Needed } from './Needed';
import { QuotasCost } from './QuotasCost';
import classes from './selected.module.css';
import type { Forecasting } from './use-forecast';
import type { Sets } from './use-sets';

interface Props {
  readonly selected: Hanging;
  readonly forecasting: Forecasting;
  readonly plan: Plan;
  readonly sets: Sets | null;
  readonly readOnly: boolean;
  readonly select: (of: Hanging) => void;
  readonly aside: RefObject<HTMLElement | null>;
  /** Back to the row that it is of, out of the slip. */
  readonly leave: () => void;
}

export function SelectedSlip({ selected, forecasting, plan, sets, readOnly, select, aside, leave }: Props) {
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
  const back = (event: KeyboardEvent) => {
    if (event.key !== 'Escape' || event.isDefaultPrevented()) return;
    leave();
  };
  const known = effects !== null && same(effects.of, selected) ? effects.is : undefined;
  return (
    <aside ref={aside} className={classes.side} aria-label="Selected" tabIndex={-1} onKeyDown={back}>
      {row !== null && (
        <>
          <h2>
            <code>{nameOf(row)}</code> {'ending' in row.group ? '' : 'base'}
            <button type="button" className={primitives.link} onClick={() => select('minutes')}>
              close
            </button>
          </h2>
          <BaseCard row={row} held={held} span={sets?.spans.get(groupKey(row.group)) ?? null} />
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
      {row !== null && (
        <Needed key={groupKey(row.group)} row={row} forecasting={forecasting} readOnly={readOnly} />
      )}
      {row !== null && <Doubles group={row.group} forecasting={forecasting} />}
      {row !== null && <QuotasCost group={row.group} forecasting={forecasting} />}
      {row !== null && 'item' in row.group && !readOnly && (
        <Halves key={`halve ${row.group.item}`} name={row.group.item} row={row} />
      )}
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

function same(a: Hanging, b: Hanging): boolean {
  return a === 'minutes' || b === 'minutes' ? a === b : groupKey(a.group) === groupKey(b.group);
}
