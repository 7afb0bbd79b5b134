/** The page in hand: its questions as in the preview, and the way on, which the server decides. */
import { useMemo, useRef, useState } from 'react';
import { clockOf, inputsOf } from '../core/responding/kept-case';
import type { PageCase } from '../core/responding/page-case';
import {
  followed,
  NO_SESSION,
  sessionAfter,
  sessionOf,
  type SessionAction,
} from '../core/responding/session';
import type { Plan } from '../core/routing/plan';
import { PageItems, PageNav } from '../islands/responding/PageItems';
import { HumanCheckPage } from '../islands/responding/HumanCheckPage';
import { PageHead } from '../islands/responding/PageHead';
import { submitting } from '../islands/ui/submitting';
import { SectionClock } from '../islands/responding/SectionClock';
import { usePageFocus } from '../islands/responding/use-page-focus';
import { usePageKeys } from '../islands/responding/use-page-keys';
import type { AnswerPage, Sitting } from '../wire/answer';
import classes from './respondent.module.css';
import type { Sitter, SitterState } from './sitter';

interface Props {
  readonly page: AnswerPage;
  readonly sitter: Sitter;
  readonly state: SitterState;
  readonly plan: Plan;
  readonly kept: PageCase;
  /** Null until the response is begun. */
  readonly sitting: Sitting | null;
}

/** What was tried on this page; forgotten with it. */
const FRESH = { tried: false, tries: 0, confirmed: '' };

/** To be given a key of the turn: another page, another one of these. */
export function AnsweringPage({ page: link, sitter, state, plan, kept, sitting }: Props) {
  const [onPage, setOnPage] = useState(FRESH);
  const [current, setCurrent] = useState<string | null>(null);
  const form = useRef<HTMLFormElement>(null);
  const { draft, ahead } = state;
  const answers = useMemo(() => ({ ...kept.answers, ...draft?.answers }), [kept.answers, draft?.answers]);
  const ways = useMemo(() => followed(plan, { answers, inputs: inputsOf(kept) }), [plan, answers, kept]);
  const now = {
    ...{ ...NO_SESSION, walks: 1, answers, inputs: inputsOf(kept), at: kept.at, reached: kept.reached },
    ...onPage,
  };
  const dispatch = (action: SessionAction) => {
    if (action.do === 'answer') sitter.answer(action.key, action.value);
    else if (action.do === 'go') void sitter.go(action.to < kept.at ? 'back' : 'next');
    else if (action.do === 'time-out') void sitter.go('time-out');
    else if (action.do === 'tried') {
      const { tried, tries, confirmed } = sessionAfter(now, action);
      setOnPage({ tried, tries, confirmed });
    }
  };
  const session = sessionOf(plan, now, ways, dispatch);
  const { walk, page: shown } = session;
  const toCheck = sitting?.toCheck ?? link.toCheck;
  usePageFocus(form, session, false, toCheck);
  const onKeyDown = usePageKeys(session.next);
  if (walk === null || shown === null)
    return <p className={classes.sheet}>This questionnaire cannot go on: {session.problem}.</p>;
  if (toCheck)
    return (
      <HumanCheckPage
        className={classes.sheet ?? ''}
        style={{}}
        seed={kept.seed}
        passed={(written, tries) => void sitter.check(written, tries)}
      />
    );
  const begun = kept.clocks[clockOf(shown)];
  const { minutes, mayGoBack } = link.settings;
  const isOnItsWay = draft !== null && draft.go !== null;
  return (
    <form
      className={classes.sheet}
      ref={form}
      noValidate
      aria-label="Questionnaire"
      aria-busy={isOnItsWay}
      inert={isOnItsWay && state.away !== null}
      onSubmit={submitting(() => session.next())}
      onKeyDown={onKeyDown}
    >
      <h1 className={classes.told}>{plan.document.title}</h1>
      {minutes !== null && sitting?.endsAt != null && (
        <SectionClock
          limit={minutes * 60}
          begun={sitting.endsAt - minutes * 60_000 + ahead}
          of="the questionnaire"
          over={() => void sitter.go('over')}
        />
      )}
      <PageHead
        {...{ plan, session, walk }}
        page={shown}
        following={false}
        ahead={null}
        {...(begun === undefined ? {} : { clockBegun: begun + ahead })}
      />
      <PageItems {...{ plan, session, walk, current, setCurrent }} steps={shown.steps} />
      <PageNav
        back={mayGoBack ? session.back : null}
        isFirst={session.at === 0}
        words={!isOnItsWay ? 'Next' : state.away === null ? 'Saving …' : 'Waiting …'}
      />
    </form>
  );
}
