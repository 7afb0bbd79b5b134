/** Whose response is walked again, which of their pages is in hand and for how long it was, and what they changed on the way. */
import type { Plan } from '../../core/routing/plan';
import { sectionLabel } from '../../core/wording/targets';
import { OUTCOME_WORDS } from '../../core/monitor/outcomes';
import type { Session } from '../../core/responding/session';
import type { Value } from '../../core/document/types';
import { secondsText } from '../ui/format';
import type { Replay } from './use-replay';
import classes from './replay.module.css';

interface Props {
  readonly plan: Plan;
  readonly session: Session;
  readonly replay: Replay;
}

const written = (value: Value) => (typeof value === 'object' ? value.join(', ') : String(value));

export function ReplayBar({ plan, session, replay }: Props) {
  const { trail, at, stops, isGone, isPlaying, go, play } = replay;
  const { visits, inHand, changed, dropped, number, name, outcome } = trail;
  const visit = visits[at];
  const total = visits.reduce((sum, { seconds }) => sum + seconds, 0);
  const wasSeen = visits.slice(0, at).some(({ page }) => page === visit?.page);
  const section = session.page?.section ?? null;
  return (
    <section className={classes.replay} data-turns-pages aria-label="Response walked again">
      <p>
        <b>
          Response {number}
          {name !== null && `, ${name}`}
        </b>{' '}
        · {OUTCOME_WORDS[outcome].word} after {secondsText(total)}
      </p>
      <div className={classes.acts}>
        <button type="button" disabled={at === 0} onClick={() => go(at - 1)}>
          ‹ Page before
        </button>
        <button type="button" disabled={at >= stops - 1} onClick={() => go(at + 1)}>
          Page after ›
        </button>
        <button type="button" aria-pressed={isPlaying} onClick={() => play(!isPlaying)}>
          {isPlaying ? 'Stop' : 'Play, ten times as fast'}
        </button>
        <span role="status">
          {visit === undefined
            ? inHand === null
              ? 'at the ending'
              : 'here they are, or left'
            : `page ${at + 1} of ${visits.length}${section === null || isGone ? '' : `, ${sectionLabel(plan.document, section)}`}: ${secondsText(visit.seconds)}${wasSeen ? ', for another time' : ''}`}
        </span>
      </div>
      {isGone && <p>This page is not on their route any more: they changed an answer before it later.</p>}
      {changed.length + dropped.length > 0 && (
        <p>
          {[
            ...changed.map(({ key, from }) => `${key} was ${written(from)} before`),
            ...dropped.map(({ key, value }) => `${key}, ${written(value)}, was dropped by a change of mind`),
          ].join('; ')}
          .
        </p>
      )}
    </section>
  );
}
