/** A link as a respondent has it before them: the page in hand, the end, or why there is none. */
import { useEffect, useSyncExternalStore } from 'react';
import type { Plan } from '../core/routing/plan';
import { themeStyle } from '../islands/ui/theme';
import type { AnswerPage } from '../wire/answer';
import { AnsweringPage } from './AnsweringPage';
import { Foot } from './Foot';
import { LastPage } from './LastPage';
import { ReturnForm } from './ReturnForm';
import classes from './respondent.module.css';
import type { Sitter } from './sitter';

interface Props {
  readonly page: AnswerPage;
  /** Of the questionnaire of the link. */
  readonly plan: Plan;
  readonly sitter: Sitter;
  readonly tryNow: () => void;
  /** Called once the page has come to life. */
  readonly alive: () => void;
}

export function Respondent({ page, plan, sitter, tryNow, alive }: Props) {
  const state = useSyncExternalStore(sitter.subscribe, sitter.get, sitter.get);
  // By now what the sitter says is listened to.
  useEffect(() => alive(), [alive]);
  const { phase, away, notice } = state;
  const shown = sitter.shown();
  const theme = themeStyle((shown?.plan ?? plan).document.settings?.theme ?? {});
  return (
    <main className={classes.respondent} style={theme}>
      {page.isDraft && (
        <p className={classes.draft}>
          <strong>Draft, for trying out.</strong> Answers show how the questionnaire works.
        </p>
      )}
      <p className={classes.notice} role="status">
        {notice}
      </p>
      {away !== null && (
        <div className={classes.away} role="alert">
          <p>
            {away === 'there is no connection' ? 'There is no connection' : 'The server does not answer'}:
            your answers are kept in this browser. They are sent as soon as that works again while this page
            is open, or when you open the link here another time.
          </p>
          <button type="button" onClick={tryNow}>
            Try now
          </button>
        </div>
      )}
      {phase.is === 'refused' ? (
        <Refused {...{ page, sitter }} problem={phase.problem} mayBeginAnew={phase.mayBeginAnew} />
      ) : shown === null ? (
        <div className={classes.sheet} aria-busy="true">
          <h1 className={classes.title}>{page.title}</h1>
          <p>Opening …</p>
        </div>
      ) : shown.kept.closed !== null ? (
        <LastPage
          {...{ page, sitter }}
          plan={shown.plan}
          kept={shown.kept}
          cameBack={phase.is === 'sitting' && phase.cameBack}
        />
      ) : (
        <AnsweringPage
          key={`${shown.id} ${shown.kept.turns}`}
          {...{ page, sitter, state }}
          plan={shown.plan}
          kept={shown.kept}
          sitting={phase.is === 'sitting' ? phase.sitting : null}
        />
      )}
      <Foot {...{ page, sitter }} sitting={phase.is === 'sitting' ? phase.sitting : null} />
    </main>
  );
}

interface RefusedProps {
  readonly page: AnswerPage;
  readonly sitter: Sitter;
  readonly problem: string;
  readonly mayBeginAnew: boolean;
}

function Refused({ page, sitter, problem, mayBeginAnew }: RefusedProps) {
  return (
    <div className={classes.sheet}>
      <h1 className={classes.title}>{page.title}</h1>
      <p role="alert">{problem}</p>
      {mayBeginAnew && (
        <p className={classes.acts}>
          <button type="button" onClick={() => void sitter.beginAnew()}>
            Begin anew
          </button>
        </p>
      )}
      {page.settings.mayReturn && page.key === null && <ReturnForm sitter={sitter} />}
    </div>
  );
}
