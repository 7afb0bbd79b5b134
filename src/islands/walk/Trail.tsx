/** The trail: what was shown and answered, in order; what was passed over; on a followed route also what is ahead. */
import { useEffect, useRef } from 'react';
import type { Plan } from '../../core/routing/plan';
import { answeredWords } from '../../core/wording/values';
import { whyLines } from '../../core/wording/why';
import { countText } from '../ui/format';
import type { Session } from '../../core/responding/session';
import classes from './trail.module.css';

interface Props {
  readonly plan: Plan;
  readonly session: Session;
  readonly following: boolean;
  readonly heading: string;
  /** Routes that are still possible, as a decimal string; null where it is known which one it is. */
  readonly possible: string | null;
  readonly current: string | null;
}

export function Trail({ plan, session, following, heading, possible, current }: Props) {
  const { walk, pages, at } = session;
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    list.current?.querySelector('[data-state="now"]')?.scrollIntoView({ block: 'nearest' });
  }, [current, at]);
  if (walk === null) return <nav className={classes.trail} aria-label="Trail" />;
  const pageOf = new Map(pages.flatMap((page, index) => page.steps.map(({ key }) => [key, index] as const)));
  const steps = new Map(walk.steps.map((step) => [step.key, step]));
  const notApplicable = plan.document.missing.find(({ reason }) => reason === 'not_applicable')?.code;
  const notReached = plan.document.missing.find(({ reason }) => reason === 'not_reached')?.code;
  const notDrawn = plan.document.missing.find(({ reason }) => reason === 'not_drawn')?.code;
  const lines = whyLines(plan, walk);
  const lastShown = Math.max(
    -1,
    ...lines.map(({ name }, index) => ((pageOf.get(name) ?? Infinity) <= at ? index : -1)),
  );
  const ended = at >= pages.length;
  const shown = lines.filter((_, index) => following || ended || index <= lastShown);
  const position =
    current === null ? walk.steps.length : walk.steps.findIndex(({ key }) => key === current) + 1;
  return (
    <nav className={classes.trail} aria-label="Trail">
      <h2>
        {heading}
        {' · '}
        {ended ? 'at its end' : following ? `item ${position} of ${walk.steps.length}` : `item ${position}`}
        {possible !== null && !ended && (
          <small aria-live="polite">
            {possible === '1' ? 'one route' : `${countText(possible)} routes`} still possible
          </small>
        )}
      </h2>
      <ol ref={list}>
        {shown.map(({ name, presented, because }, index) => {
          const step = steps.get(name);
          const page = pageOf.get(name) ?? -1;
          if (!presented || step === undefined) {
            const drawn = because.startsWith('not drawn');
            const reached = !because.startsWith('not reached');
            return (
              <li
                key={name}
                className={classes.passed}
                data-state={index > lastShown ? 'ahead' : undefined}
                title={because}
              >
                <i />
                <span>{name}</span>
                <em>
                  {drawn
                    ? `${notDrawn} not drawn`
                    : reached
                      ? `${notApplicable} not applicable`
                      : `${notReached} not reached`}
                </em>
              </li>
            );
          }
          const words = answeredWords(step, session.answers);
          const state =
            name === current && !ended ? 'now' : page > at ? 'ahead' : page === at ? 'here' : 'done';
          return (
            <li key={name} data-state={state} title={because}>
              <i />
              <button
                type="button"
                disabled={page > session.reached}
                onClick={() => session.goTo(page, name)}
              >
                {name}
              </button>
              <em>{words}</em>
            </li>
          );
        })}
      </ol>
      {session.dropped.length > 0 && (
        <>
          <h2>Dropped answers</h2>
          <ul>
            {session.dropped.map(({ key, value }, index) => (
              <li
                key={index}
                className={classes.dropped}
                title="Answered, then put off the route by a change of mind: not in the data"
              >
                <i />
                <span>{key}</span>
                <em>was {Array.isArray(value) ? value.join(', ') : value}</em>
              </li>
            ))}
          </ul>
        </>
      )}
    </nav>
  );
}
