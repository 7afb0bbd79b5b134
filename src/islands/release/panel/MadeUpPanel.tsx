/** A made-up panel on the slip of its link: its clock, letting it run and rest, its outbox, and what is assumed of its members. */
import { useState } from 'react';
import { DAY, HOUR, lettersDue, panelEnds, postTimes } from '../../../core/panel/panel-settings';
import type { Panel } from '../../../wire/panels';
import type { PanelInHand } from '../../state/panels';
import { useStudy } from '../../state/store';
import { plural } from '../../ui/format';
import { Problem } from '../../ui/Problem';
import { SettleForm } from '../trial/SettleForm';
import { momentWords } from './moments';
import { Outbox } from './Outbox';
import { PanelClock } from './PanelClock';
import { PanelFields } from './PanelFields';
import { panelText, readPanel } from './panel-text';
import classes from './panel.module.css';

const SPEEDS = {
  day: { words: 'a day in a minute', speed: DAY / 60_000 },
  week: { words: 'a week in a minute', speed: (7 * DAY) / 60_000 },
  fast: { words: 'as fast as it goes', speed: null },
} as const;
type Speed = keyof typeof SPEEDS;

export function MadeUpPanel({ inHand }: { readonly inHand: PanelInHand }) {
  const { panel, isLost } = inHand;
  const [speed, setSpeed] = useState<Speed>('week');
  const [problem, setProblem] = useState<string | null>(null);
  const [changing, setChanging] = useState(false);
  if (panel === null) return isLost ? <p role="alert">The server does not answer: reload the page.</p> : null;
  const { settings, clock, isRunning } = panel;
  const end = panelEnds(settings);
  const run = (until: number, at: number | null) => void inHand.run(until, at).then(setProblem);
  const isOver = clock >= end;
  return (
    <div className={classes.panel}>
      <p>
        <b role="status">
          {momentWords(clock)}
          {isOver ? ': the field is closed' : isRunning ? '' : ', resting'}
        </b>
        {` · day ${Math.min(settings.days, Math.floor((clock - settings.startsAt) / DAY) + 1)} of ${settings.days} · ${plural(panel.members, 'made-up member')}`}
        {isLost && ' · the server does not answer; this is what it said last'}
      </p>
      <PanelClock panel={panel} runTo={(until) => run(until, SPEEDS[speed].speed)} />
      {!isOver && (
        <div className={classes.acts}>
          {isRunning ? (
            <button
              type="button"
              className={classes.make}
              onClick={() => void inHand.rest().then(setProblem)}
            >
              Let it rest
            </button>
          ) : (
            <button type="button" className={classes.make} onClick={() => run(end, SPEEDS[speed].speed)}>
              Let it run
            </button>
          )}
          <label>
            <span className={classes.unseen}>Speed</span>
            <select
              value={speed}
              disabled={isRunning}
              onChange={(event) => setSpeed(event.target.value as Speed)}
            >
              {Object.entries(SPEEDS).map(([name, { words }]) => (
                <option key={name} value={name}>
                  {words}
                </option>
              ))}
            </select>
          </label>
          <span className={classes.steps} role="group" aria-label="Step on by">
            Step on by
            <button type="button" disabled={isRunning} onClick={() => run(clock + HOUR, null)}>
              an hour
            </button>
            <button type="button" disabled={isRunning} onClick={() => run(clock + DAY, null)}>
              a day
            </button>
            <button type="button" disabled={isRunning} onClick={() => run(nextPost(panel), null)}>
              to the next letters
            </button>
          </span>
          <button type="button" disabled={isRunning} onClick={() => setChanging(!changing)}>
            Change what is assumed …
          </button>
        </div>
      )}
      <Problem of={problem ?? panel.problem} className={classes.problem} />
      {changing && <ChangeForm panel={panel} inHand={inHand} close={() => setChanging(false)} />}
      <Outbox piles={panel.piles} letterOf={inHand.letter} />
    </div>
  );
}

/** A second after the next invitation or reminder is out; else the end. */
function nextPost({ settings, clock }: Panel): number {
  const next = postTimes(settings).find(
    (at) => at >= clock && lettersDue(settings, at).some((kind) => kind !== 'thanks'),
  );
  return next === undefined ? panelEnds(settings) : next + 1000;
}

interface ChangeProps {
  readonly panel: Panel;
  readonly inHand: PanelInHand;
  readonly close: () => void;
}

function ChangeForm({ panel: { settings, clock }, inHand, close }: ChangeProps) {
  const given = useStudy((state) => state.document.given);
  return (
    <SettleForm
      given={panelText(settings)}
      read={readPanel}
      settle={inHand.settle}
      close={close}
      words="Save what is assumed"
    >
      {(text, set) => (
        <>
          <PanelFields
            {...{ text, set, hasBegun: clock > settings.startsAt }}
            known={(given ?? []).flatMap((entry) => (entry.random ? [] : [entry.name]))}
          />
          <p className={classes.note}>It holds for what is still to come.</p>
        </>
      )}
    </SettleForm>
  );
}
