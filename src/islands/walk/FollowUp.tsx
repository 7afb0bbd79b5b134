/** The questionnaire that a hand-off leads to, walked in the same sitting with what was carried along. */
import { useEffect, useState } from 'react';
import type { Answers } from '../../core/document/types';
import type { Plan } from '../../core/routing/plan';
import { LeadsCard } from './LeadsCard';
import { RespondentPage, type Device } from './RespondentPage';
import { RowCard } from './RowCard';
import { useSession } from '../state/use-session';
import { Trail } from './Trail';
import { WhyCards } from './WhyCards';
import page from '../responding/page.module.css';
import classes from './walk.module.css';

interface Props {
  readonly plan: Plan;
  /** What it is given, the carried answers among it. */
  readonly given: Answers;
  readonly carried: readonly string[];
  readonly device: Device;
  readonly back: () => void;
}

export function FollowUp({ plan, given, carried, device, back }: Props) {
  const session = useSession(plan);
  const [current, setCurrent] = useState<string | null>(null);
  const { start } = session;
  const [begun, setBegun] = useState(false);
  useEffect(() => {
    if (begun) return;
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the walk begins once
    setBegun(true);
    start({}, { seed: 1, given });
  }, [begun, start, given]);
  const step = session.page?.steps.find(({ key }) => key === current) ?? session.page?.steps[0] ?? null;
  return (
    <div className={classes.columns}>
      <Trail
        plan={plan}
        session={session}
        following={false}
        heading={plan.document.title}
        possible={null}
        current={step?.key ?? null}
      />
      <div className={classes.middle}>
        <div className={classes.tools} role="toolbar" aria-label="How to walk">
          <button type="button" onClick={back}>
            Back to the first questionnaire
          </button>
        </div>
        {session.problem === null ? (
          <RespondentPage
            plan={plan}
            session={session}
            device={device}
            following={false}
            current={step?.key ?? null}
            setCurrent={setCurrent}
            ahead={null}
            sameSitting
            again={back}
            againWords="Back to the first questionnaire"
          />
        ) : (
          <div className={page.paper}>
            <p>
              {plan.document.title} cannot start yet. {session.problem}.
            </p>
          </div>
        )}
      </div>
      <aside className={classes.side} aria-label="Why">
        <h2>Carried along</h2>
        <p className={classes.carried}>
          {carried.length === 0
            ? 'nothing'
            : carried.map((name) => `${name} = ${String(given[name] ?? 'nothing')}`).join(', ')}
        </p>
        <WhyCards plan={plan} session={session} step={step} />
        {step !== null && <LeadsCard plan={plan} session={session} step={step} />}
        <RowCard plan={plan} session={session} />
      </aside>
    </div>
  );
}
