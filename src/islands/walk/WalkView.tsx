/** Walk: the respondent's page in the middle, the trail at the left, why and the verdict at the right. */
import { useCallback, useEffect, useMemo, useState, type ComponentProps } from 'react';
import { nameInKey } from '../../core/document/addresses';
import { isNumeric, isWritten, picksOne } from '../../core/document/answer-types';
import { readDocument } from '../../core/document/read';
import type { Answers } from '../../core/document/types';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { FollowUpSchema } from '../../wire/studies';
import { useAnalysisClient } from '../state/analysis';
import { useStudy } from '../state/store';
import { call } from '../ui/api';
import { countText, grouped } from '../ui/format';
import { FollowUp } from './FollowUp';
import type { PaperWalk } from '../paper/PaperScript';
import { PaperView } from '../paper/PaperView';
import { useAhead, usePossible } from './ahead';
import { InputsCard } from './InputsCard';
import { LeadsCard } from './LeadsCard';
import { RespondentPage, type Device } from './RespondentPage';
import { RespondentsCard } from './RespondentsCard';
import { RowCard } from './RowCard';
import { useSession, type Session } from '../state/walk-session';
import { Trail } from './Trail';
import { VerdictCard } from './VerdictCard';
import { WalkKeys } from './WalkKeys';
import { WhyCards } from './WhyCards';
import { useRouteOfWalk } from '../state/route-of-walk';
import classes from './walk.module.css';

/** How the walk is shown; paper: the printed script with this walk on it. */
type WalkDisplay = Device | 'Paper';

export function WalkView() {
  const plan = useStudy((state) => state.plan);
  const analysis = useStudy((state) => state.analysis);
  const reviewing = useStudy((state) => state.reviewing);
  const api = useStudy((state) => state.api);
  const [followUp, setFollowUp] = useState<Omit<ComponentProps<typeof FollowUp>, 'device' | 'back'> | null>(
    null,
  );
  const [problem, setProblem] = useState<string | null>(null);
  const client = useAnalysisClient();
  const session = useSession(plan);
  const [device, setDevice] = useState<WalkDisplay>('Desktop');
  const [following, setFollowing] = useState<string | null>(() =>
    new URLSearchParams(location.search).get('route'),
  );
  const [followed, setFollowed] = useState<readonly string[]>([]);
  const [wanted, setWanted] = useState<string>(following ?? '1');
  const [current, setCurrent] = useState<string | null>(null);
  const { start } = session;
  const found = useRouteOfWalk(plan, session);
  const ahead = useAhead(session);
  const possible = usePossible(session);
  const ready = analysis !== null;

  const follow = useCallback(
    async (number: string) => {
      const route = await client.api.route(number);
      if (route === null) return;
      const { answers, given, full, draws } = route;
      start(answers, {
        seed: 1,
        ...(given ? { given } : {}),
        ...(full ? { full } : {}),
        ...(draws ? { draws } : {}),
      });
      setFollowing(number);
      setFollowed(route.items);
      setWanted(number);
      history.replaceState(null, '', `?route=${number}`);
    },
    [client, start],
  );
  const [begun, setBegun] = useState(false);
  useEffect(() => {
    if (!ready || begun) return;
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the walk begins once, when routes are known
    setBegun(true);
    if (following !== null && /^\d+$/.test(following)) void follow(following);
  }, [ready, begun, following, follow]);

  const toWalk = useStudy((state) => state.toWalk);
  const setToWalk = useStudy((state) => state.setToWalk);
  useEffect(() => {
    if (toWalk === null || !ready) return;
    const { answers, given, full, draws, items, ending } = toWalk.witness;
    setToWalk(null);
    start(
      answers,
      { seed: 1, ...(given ? { given } : {}), ...(full ? { full } : {}), ...(draws ? { draws } : {}) },
      toWalk.item ?? undefined,
    );
    const key = items.find((each) => nameInKey(each) === toWalk.item);
    void (ending === null ? Promise.resolve(null) : client.api.numberOf(items, ending)).then((number) => {
      if (key !== undefined) setCurrent(key);
      setFollowing(number);
      setFollowed(items);
      if (number !== null) setWanted(number);
      history.replaceState(null, '', number === null ? location.pathname : `?route=${number}`);
    });
  }, [toWalk, setToWalk, ready, client, start]);

  const free = () => {
    session.start(
      {},
      { seed: 1 + Math.floor(Math.random() * 1_000_000), given: session.inputs.given ?? firstGiven(plan) },
    );
    setFollowing(null);
    history.replaceState(null, '', location.pathname);
  };
  const walkOn = async (ending: string) => {
    const reply = await call(FollowUpSchema, 'GET', `${api}/follow-up?ending=${encodeURIComponent(ending)}`);
    const read = reply.ok ? readDocument(reply.body.document) : null;
    if (!reply.ok || read?.ok !== true) {
      setProblem(reply.ok ? 'The follow-up is no questionnaire that can be used.' : reply.problem);
      return;
    }
    const next = planOf(read.document);
    const to = plan.endings.find((each) => each.ending.id === ending)?.ending.next;
    const carry = to !== undefined && 'carry' in to ? (to.carry ?? []) : [];
    const environment = session.walk?.environment(plan.sections.length, null);
    const carried = Object.fromEntries(
      carry.map((name) => [name, environment?.read(name.toLowerCase()).value ?? null]),
    );
    setProblem(null);
    setFollowUp({ plan: next, given: { ...firstGiven(next), ...carried }, carried: carry });
  };
  const steps = session.walk?.steps ?? [];
  const left =
    following !== null &&
    steps.length > 0 &&
    (steps.length !== followed.length || steps.some(({ key }, index) => key !== followed[index]));
  const step = useMemo(
    () => session.page?.steps.find(({ key }) => key === current) ?? session.page?.steps[0] ?? null,
    [session.page, current],
  );
  if (followUp !== null)
    return (
      <FollowUp
        {...followUp}
        device={device === 'Phone' ? 'Phone' : 'Desktop'}
        back={() => setFollowUp(null)}
      />
    );
  return (
    <div className={classes.columns}>
      <Trail
        plan={plan}
        session={session}
        following={following !== null}
        heading={headingOf(following, left, found?.number ?? null, analysis?.routes ?? null)}
        possible={following === null || left ? possible : null}
        current={step?.key ?? null}
      />
      <div className={classes.middle}>
        <div className={classes.tools} role="toolbar" aria-label="How to walk">
          {(['Desktop', 'Phone', 'Paper'] as const).map((name) => (
            <button key={name} type="button" aria-pressed={device === name} onClick={() => setDevice(name)}>
              {name}
            </button>
          ))}
          <span className={classes.follow}>
            <button type="button" aria-pressed={following !== null} onClick={() => void follow(wanted)}>
              Follow route
            </button>
            <input
              aria-label="Route to follow"
              inputMode="numeric"
              value={wanted}
              size={7}
              onChange={(event) => setWanted(event.target.value.replace(/\D/g, ''))}
              onKeyDown={(event) => {
                if (event.key === 'Enter' && wanted !== '') void follow(wanted);
              }}
            />
          </span>
          <button type="button" aria-pressed={following === null} onClick={free}>
            Choose freely
          </button>
          {following !== null && session.page !== null && (
            <button type="button" onClick={session.toEnd}>
              To the end
            </button>
          )}
        </div>
        {problem !== null && (
          <p role="alert" className={classes.refused}>
            {problem}
          </p>
        )}
        {device === 'Paper' ? (
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
              session={session}
              device={device}
              following={following !== null}
              ahead={ahead}
              current={step?.key ?? null}
              setCurrent={setCurrent}
              again={free}
              walkOn={(ending) => void walkOn(ending)}
            />
            {session.page !== null && <WalkKeys plan={plan} step={step} />}
          </>
        ) : (
          <div className={classes.paper}>
            <p>This walk cannot start yet. {session.problem}.</p>
          </div>
        )}
      </div>
      <aside className={classes.side} aria-label="Why, and the verdict">
        <InputsCard plan={plan} session={session} free={following === null} />
        <WhyCards plan={plan} session={session} step={step} />
        {step !== null && <LeadsCard plan={plan} session={session} step={step} />}
        <VerdictCard session={session} found={found} follow={(number) => void follow(number)} />
        {!reviewing && <RespondentsCard plan={plan} found={found} />}
        <RowCard plan={plan} session={session} />
      </aside>
    </div>
  );
}

/** The walk as the paper marks it, as far as it has come. */
function paperWalk(plan: Plan, { walk, answers, pages, at }: Session): PaperWalk {
  const ended = walk !== null && walk.ending !== null && at >= pages.length - 1;
  const steps = ended ? walk.steps : pages.slice(0, at + 1).flatMap((page) => page.steps);
  const presented = new Set(steps.map(({ planItem }) => planItem.item.name));
  const names = plan.sections.flatMap(({ items }) => items.map(({ item }) => item.name));
  const last = ended ? names.length : Math.max(0, ...[...presented].map((name) => names.indexOf(name)));
  return {
    presented,
    passedOver: new Set(names.slice(0, last).filter((name) => !presented.has(name))),
    answers,
  };
}

function headingOf(
  following: string | null,
  left: boolean,
  taken: string | null,
  total: string | null,
): string {
  const on = taken === null ? null : `Route ${grouped(taken)}`;
  if (following === null) return on ?? 'Choosing freely';
  if (left) return `Left route ${grouped(following)}${taken === null ? '' : ` for ${grouped(taken)}`}`;
  return `Route ${grouped(following)} of ${total === null ? '…' : countText(total)}`;
}

/** A value for each given that is not drawn by chance: its first option, or its least number. */
function firstGiven(plan: Plan): Answers {
  return Object.fromEntries(
    (plan.document.given ?? [])
      .filter(({ random }) => !random)
      .map(({ name, answer }) => {
        if ('options' in answer)
          return [
            name,
            picksOne(answer) ? (answer.options[0]?.code ?? null) : [answer.options[0]?.code ?? 0],
          ];
        if (isNumeric(answer)) return [name, answer.min];
        return [name, isWritten(answer) ? 'x' : null];
      }),
  );
}
