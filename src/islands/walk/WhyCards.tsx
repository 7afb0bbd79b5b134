/** Why the current item is asked, where its answer leads, and what a change of mind drops. */
import { printCondition } from '../../core/condition/print';
import type { Plan } from '../../core/routing/plan';
import type { WalkStep } from '../../core/routing/walk';
import { targetView } from '../../core/wording/targets';
import { answeredWords } from '../../core/wording/values';
import { presentedBecause, whyLines } from '../../core/wording/why';
import { plural } from '../ui/format';
import type { Session } from '../../core/responding/session';
import classes from './cards.module.css';

/** Items passed over whose reasons are listed. */
const MOST_OVER = 6;

interface Props {
  readonly plan: Plan;
  readonly session: Session;
  readonly step: WalkStep | null;
}

export function WhyCards({ plan, session, step }: Props) {
  return (
    <>
      {step !== null && session.walk !== null && <Why plan={plan} session={session} step={step} />}
      <Changes session={session} />
    </>
  );
}

function Why({ plan, session, step }: Props & { readonly step: WalkStep }) {
  const { walk } = session;
  if (walk === null) return null;
  const index = walk.steps.findIndex(({ key }) => key === step.key);
  if (index < 0) return null;
  const reasons = presentedBecause(plan, walk, index).split('; ');
  const answer = answeredWords(step, session.answers);
  const lines = whyLines(plan, walk);
  const here = lines.findIndex(({ name }) => name === step.key);
  const onward = walk.steps[index + 1];
  const next = onward === undefined ? lines.length : lines.findIndex(({ name }) => name === onward.key);
  const over = lines.slice(here + 1, next).filter(({ presented }) => !presented);
  const code = plan.document.missing.find(({ reason }) => reason === 'not_applicable')?.code;
  const { item } = step.planItem;
  // Where a blank is not allowed, what would follow from one is nothing to tell.
  const isAllowed = item.kind !== 'question' || item.required !== true;
  // What was not drawn, or not reached in time, has a code of its own.
  const isPlain = over.every(({ because }) => !/^not (drawn|reached)/.test(because));
  return (
    <>
      <h2>
        Why <code>{step.key}</code> is asked
      </h2>
      <div className={classes.card}>
        {reasons.map((reason) => (
          <p key={reason} className={classes.line}>
            <b>✓</b>
            <span>{reason.charAt(0).toUpperCase() + reason.slice(1)}</span>
          </p>
        ))}
      </div>
      {(answer !== '' || isAllowed) && (
        <>
          <h2>
            {answer === ''
              ? item.kind === 'statement'
                ? 'Then'
                : 'Left blank'
              : `If the answer is ${answer}`}
          </h2>
          <div className={classes.card}>
            <p className={classes.line}>
              <b>✓</b>
              <span>{departureWords(plan, step, onward?.key ?? endingOf(plan, walk.ending))}</span>
            </p>
            {over.length > 0 && (
              <p className={classes.line}>
                <i>–</i>
                <span>
                  {plural(over.length, 'item')} passed over
                  {isPlain && (
                    <>
                      , coded <code>{code}</code>
                    </>
                  )}
                  :
                </span>
              </p>
            )}
            {over.slice(0, MOST_OVER).map(({ name, because }) => (
              <p key={name} className={classes.line}>
                <i />
                <span>
                  <code>{name}</code> {because}
                </span>
              </p>
            ))}
            {over.length > MOST_OVER && <p className={classes.line}>and {over.length - MOST_OVER} more</p>}
          </div>
        </>
      )}
    </>
  );
}

function endingOf(plan: Plan, ending: number | null): string {
  return ending === null ? 'the end' : targetView(plan, { to: 'ending', ending }).label;
}

function departureWords(plan: Plan, { departure }: WalkStep, next: string): string {
  switch (departure?.by) {
    case 'skip': {
      const { skip } = departure;
      const to = targetView(plan, skip.to).label;
      return skip.if === null ? `Skips to ${to}, always` : `Skips to ${to}, as ${printCondition(skip.if)}`;
    }
    case 'quota':
      return `Goes to ${targetView(plan, departure.quota.to).label}, as quota ${departure.quota.id} is full`;
    case 'time-out':
      return `The time ran out: on to ${next}`;
    default:
      return `Carries on to ${next}`;
  }
}

function Changes({ session }: { readonly session: Session }) {
  const { changed, offRoute, answers } = session;
  const live = changed.filter(
    ({ key, from }) => JSON.stringify(answers[key] ?? null) !== JSON.stringify(from),
  );
  if (live.length === 0 && offRoute.length === 0) return null;
  return (
    <>
      <h2>Changed answers</h2>
      <div className={classes.card}>
        {live.map(({ key, from }) => (
          <p key={key} className={classes.line}>
            <i>↺</i>
            <span>
              <code>{key}</code> was <code>{Array.isArray(from) ? from.join(', ') : from}</code>.
            </span>
          </p>
        ))}
        {offRoute.length > 0 && (
          <p className={classes.line}>
            <i>–</i>
            <span>
              Going on drops{' '}
              {offRoute.map((key, index) => (
                <span key={key}>
                  {index > 0 && ', '}
                  <code>{key}</code>
                </span>
              ))}{' '}
              from the data.
            </span>
          </p>
        )}
      </div>
    </>
  );
}
