/** Walk: the respondent's page in the middle, the trail at the left, why and the verdict at the right. */
import { useMemo, useState } from 'react';
import type { Session } from '../../core/responding/session';
import { PaperView } from '../paper/PaperView';
import { useRouteOfWalk } from '../state/route-of-walk';
import { useStudy } from '../state/store';
import { useSession } from '../state/use-session';
import { useAhead, usePossible } from './ahead';
import { FollowUp } from './FollowUp';
import { InputsCard } from './InputsCard';
import { LeadsCard } from './LeadsCard';
import { paperWalk } from './paper-walk';
import { ReplayBar } from './ReplayBar';
import { RespondentPage } from './RespondentPage';
import { RespondentsCard } from './RespondentsCard';
import { RowCard } from './RowCard';
import { Trail } from './Trail';
import { useFollowUp } from './use-follow-up';
import { useReplay, type Replay } from './use-replay';
import { headingOf, useFollowing } from './use-following';
import { VerdictCard } from './VerdictCard';
import { WalkKeys } from './WalkKeys';
import { Problem } from '../ui/Problem';
import page from '../responding/page.module.css';
import classes from './walk.module.css';
import { WalkTools, type WalkDisplay } from './WalkTools';
import { WhyCards } from './WhyCards';

export function WalkView() {
  const plan = useStudy((state) => state.plan);
  const analysis = useStudy((state) => state.analysis);
  const readOnly = useStudy((state) => state.readOnly);
  const session = useSession(plan);
  const [display, setDisplay] = useState<WalkDisplay>('Desktop');
  const [current, setCurrent] = useState<string | null>(null);
  const following = useFollowing(plan, session, setCurrent);
  const { followUp, problem: followUpProblem, walkOn, back } = useFollowUp(plan, session);
  const { replay, problem: replayProblem } = useReplay(session);
  const problem = followUpProblem ?? replayProblem;
  const found = useRouteOfWalk(plan, session);
  const ahead = useAhead(session);
  const possible = usePossible(session);
  const isFollowing = following.number !== null || replay !== null;
  const isOfLink = useStudy((state) => state.link !== null);
  const follow = (number: string) => void following.follow(number);
  const step = useMemo(
    () => session.page?.steps.find(({ key }) => key === current) ?? session.page?.steps[0] ?? null,
    [session.page, current],
  );
  if (followUp !== null)
    return <FollowUp {...followUp} device={display === 'Phone' ? 'Phone' : 'Desktop'} back={back} />;
  return (
    <div className={classes.columns}>
      <Trail
        plan={plan}
        session={session}
        following={isFollowing}
        heading={
          replay === null
            ? headingOf(following, found?.number ?? null, analysis?.routes ?? null)
            : `Response ${replay.trail.number}`
        }
        possible={!isFollowing || following.left ? possible : null}
        current={step?.key ?? null}
      />
      <div className={classes.middle}>
        <WalkTools
          display={display}
          setDisplay={setDisplay}
          following={isOfLink ? null : following}
          toEnd={isFollowing && replay === null && session.page !== null ? session.toEnd : null}
        />
        {replay !== null && <ReplayBar {...{ plan, session, replay }} />}
        <Problem of={problem} className={classes.refused} />
        {display === 'Paper' ? (
          <PaperView
            plan={plan}
            walk={paperWalk(plan, session)}
            choose={setCurrent}
            chosen={step?.planItem.item.name ?? null}
          />
        ) : session.problem === null ? (
          <>
            <RespondentPage
              plan={plan}
              session={replay === null ? session : turnedBy(replay, session)}
              device={display}
              following={isFollowing}
              ahead={ahead}
              current={step?.key ?? null}
              setCurrent={setCurrent}
              again={replay === null ? following.free : () => replay.go(0)}
              walkOn={(ending) => void walkOn(ending)}
            />
            {session.page !== null && <WalkKeys plan={plan} step={step} />}
          </>
        ) : (
          <div className={page.paper}>
            <p>This walk cannot start yet. {session.problem}.</p>
          </div>
        )}
      </div>
      <aside className={classes.side} aria-label="Why, and the verdict">
        <InputsCard plan={plan} session={session} free={!isFollowing} />
        <WhyCards plan={plan} session={session} step={step} />
        {step !== null && <LeadsCard plan={plan} session={session} step={step} />}
        {!isOfLink && <VerdictCard session={session} found={found} follow={follow} />}
        {readOnly === null && <RespondentsCard plan={plan} found={found} />}
        <RowCard plan={plan} session={session} />
      </aside>
    </div>
  );
}

/** The buttons of the page go along what a respondent did, as those of the bar do; past that as in any walk. */
function turnedBy({ at, stops, go }: Replay, session: Session): Session {
  return {
    ...session,
    next: at < stops - 1 ? () => go(at + 1) : session.next,
    back: at > 0 ? () => go(at - 1) : session.back,
  };
}
