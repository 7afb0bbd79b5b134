/** The clock of a made-up panel: its days as a ruled sheet, seven in a row, with a marker at the moment it has come to. */
import { LETTER_WORDS, type LetterKind } from '../../../core/panel/letters';
import { DAY, lettersDue, postTimes, type PanelSettings } from '../../../core/panel/panel-settings';
import type { Panel } from '../../../wire/panels';
import { grouped } from '../../ui/format';
import { dayWords, momentWords } from './moments';
import classes from './panel.module.css';

interface Props {
  readonly panel: Panel;
  /** Runs it to a moment. */
  readonly runTo: (until: number) => void;
}

const WEEK = 7;

export function PanelClock({ panel, runTo }: Props) {
  const { settings, clock, piles, isRunning } = panel;
  const { startsAt, days } = settings;
  const posts = postTimes(settings);
  return (
    <ol className={classes.clock} aria-label="Days of the panel">
      {Array.from({ length: days }, (_, day) => {
        const from = startsAt + day * DAY;
        const share = (clock - from) / DAY;
        const sent = piles.filter(({ at }) => at >= from && at < from + DAY);
        const due = dueOn(settings, posts[day] ?? Infinity, clock);
        const words = [
          ...sent.map(({ kind, count }) => `${LETTER_WORDS[kind].one} ${grouped(count)}`),
          ...due.map((kind) => LETTER_WORDS[kind].one),
        ];
        const isHere = share >= 0 && share < 1;
        return (
          <li
            key={from}
            data-is={share >= 1 ? 'past' : isHere ? 'now' : 'to-come'}
            style={{ gridColumn: (day % WEEK) + 1 }}
          >
            <button
              type="button"
              disabled={isRunning || share >= 1}
              title={share >= 1 ? undefined : 'Run to the end of this day'}
              aria-label={`${dayWords(from)}${words.length > 0 ? `: ${words.join(', ')}` : ''}${share >= 1 ? ', over' : '. Run to the end of this day'}`}
              onClick={() => runTo(from + DAY)}
            >
              <b>{dayWords(from)}</b>
              {sent.map(({ kind, count }) => (
                <small key={kind}>
                  {LETTER_WORDS[kind].one} {grouped(count)}
                </small>
              ))}
              {due.map((kind) => (
                <small key={kind} className={classes.due}>
                  {LETTER_WORDS[kind].one}
                </small>
              ))}
            </button>
            {isHere && (
              <i
                className={classes.marker}
                style={{ left: `${share * 100}%` }}
                title={momentWords(clock)}
                aria-hidden="true"
              />
            )}
          </li>
        );
      })}
    </ol>
  );
}

/** What is still to go out on a day; thanks go out every day, and are not worth a word. */
function dueOn(settings: PanelSettings, at: number, clock: number): LetterKind[] {
  return at < clock ? [] : lettersDue(settings, at).filter((kind) => kind !== 'thanks');
}
