/** Forecast: what is assumed at the left, every base in the middle, what one of them hangs on at the right. */
import { useRef, useState } from 'react';
import type { Group } from '../../core/analysis';
import { groupKey } from '../../core/forecast/groups';
import type { Hanging } from '../../core/forecast/forecast';
import { useStudy } from '../state/store';
import { Assumptions } from './Assumptions';
import { BasesSheet } from './BasesSheet';
import { CameSheet } from './CameSheet';
import { ForecastFiles } from './ForecastFiles';
import { ForecastHead } from './ForecastHead';
import { Leaves } from '../ui/Leaves';
import { Problem } from '../ui/Problem';
import classes from './forecast.module.css';
import { LostSheet } from './LostSheet';
import { MinutesSheet } from './MinutesSheet';
import { SampleSheet } from './SampleSheet';
import { SelectedSlip } from './SelectedSlip';
import { SetsSheet } from './SetsSheet';
import type { Came } from './use-came';
import { useForecast } from './use-forecast';
import { useSets } from './use-sets';

const LEAVES = {
  bases: 'Bases',
  sample: 'How many',
  minutes: 'Minutes',
  lost: 'Who is lost',
  sets: 'Sets',
  came: 'What came',
} as const;
type Leaf = keyof typeof LEAVES;

export function ForecastView() {
  const forecasting = useForecast();
  const plan = useStudy((state) => state.plan);
  const readOnly = useStudy((state) => state.readOnly !== null);
  const sets = useSets(forecasting);
  const [came, setCame] = useState<Came | null>(null);
  const [leaf, setLeaf] = useState<Leaf>('bases');
  const [selected, select] = useState<Hanging>('minutes');
  const slip = useRef<HTMLElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const leave = () => {
    // On another leaf than Bases there is no row to go back to.
    const row = sheet.current?.querySelector<HTMLElement>('[data-group][aria-pressed="true"]');
    (row ?? sheet.current?.querySelector<HTMLElement>('nav [aria-current="page"]'))?.focus();
    select('minutes');
  };
  const { figures, problem } = forecasting;
  const isThere = (group: Group) =>
    figures === null ||
    [...figures.items, ...figures.endings].some((of) => groupKey(of.group) === groupKey(group));
  // What was selected may have been deleted meanwhile.
  const shown = selected !== 'minutes' && !isThere(selected.group) ? 'minutes' : selected;
  return (
    <div className={classes.columns}>
      <Assumptions forecasting={forecasting} />
      <div ref={sheet} className={classes.sheet} aria-busy={forecasting.isBehind}>
        <ForecastHead forecasting={forecasting} />
        <Leaves label="Leaves of the forecast" words={LEAVES} leaf={leaf} turnTo={setLeaf}>
          <ForecastFiles />
        </Leaves>
        <Problem of={problem} className={classes.problem} />
        {figures !== null && leaf === 'bases' && (
          <BasesSheet
            figures={figures}
            held={forecasting.held}
            plan={plan}
            sets={sets}
            selected={shown}
            select={select}
            enter={() => slip.current?.focus()}
          />
        )}
        {figures !== null && leaf === 'minutes' && (
          <MinutesSheet figures={figures} forecasting={forecasting} readOnly={readOnly} />
        )}
        {figures !== null && leaf === 'lost' && (
          <LostSheet figures={figures} held={forecasting.held} plan={plan} select={select} />
        )}
        {figures !== null && leaf === 'sample' && (
          <SampleSheet figures={figures} forecasting={forecasting} readOnly={readOnly} />
        )}
        {leaf === 'sets' && <SetsSheet sets={sets} forecasting={forecasting} select={select} />}
        {leaf === 'came' && (
          <CameSheet forecasting={forecasting} came={came} setCame={setCame} readOnly={readOnly} />
        )}
      </div>
      <SelectedSlip
        selected={shown}
        forecasting={forecasting}
        plan={plan}
        sets={sets}
        readOnly={readOnly}
        select={select}
        aside={slip}
        leave={leave}
      />
    </div>
  );
}
