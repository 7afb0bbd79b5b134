/** The end of a sitting: the message of its ending and that of the link, or that the time is over. */
import { useEffect, useRef } from 'react';
import { holds } from '../core/condition/evaluate';
import { inputsOf } from '../core/responding/kept-case';
import type { PageCase } from '../core/responding/page-case';
import type { Plan } from '../core/routing/plan';
import { walk } from '../core/routing/walk';
import { shownText } from '../core/wording/values';
import page from '../islands/responding/page.module.css';
import { escapeMarkdown, RichText } from '../islands/ui/RichText';
import type { AnswerPage } from '../wire/answer';
import classes from './respondent.module.css';
import type { Sitter } from './sitter';

interface Props {
  readonly page: AnswerPage;
  readonly sitter: Sitter;
  readonly plan: Plan;
  readonly kept: PageCase;
  /** It was over before this page was opened. */
  readonly cameBack: boolean;
}

export function LastPage({ page: link, sitter, plan, kept, cameBack }: Props) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  const isOver = kept.closed?.by !== 'ending';
  const { toldApart, attempts, closing } = link.settings;
  const mayBeginAnew = cameBack && link.key === null && (toldApart === 'anyone' || attempts > 1);
  return (
    <div className={classes.sheet}>
      <h1 ref={heading} tabIndex={-1} className={page.ending}>
        {cameBack
          ? 'You have answered this questionnaire already'
          : isOver
            ? 'The time is over'
            : 'The questionnaire is over'}
      </h1>
      {isOver ? (
        <p className={page.message}>What you have answered so far is kept. Thank you.</p>
      ) : (
        <Message plan={plan} kept={kept} />
      )}
      {closing !== null && (
        <div className={page.message}>
          <RichText text={closing} />
        </div>
      )}
      {!cameBack && <p className={page.left}>You can close this page now.</p>}
      {mayBeginAnew && (
        <p className={classes.acts}>
          <button type="button" onClick={() => void sitter.beginAnew()}>
            Answer once more
          </button>
        </p>
      )}
    </div>
  );
}

function Message({ plan, kept }: Pick<Props, 'plan' | 'kept'>) {
  const walked = walk(plan, { answers: kept.answers, ...inputsOf(kept), lenient: true });
  if (!walked.ok || walked.walk.ending === null) return null;
  const end = plan.endings[walked.walk.ending];
  const past = plan.sections.length;
  const environment = walked.walk.environment(past, null);
  const message = end?.messages.find((entry) => entry.if === null || holds(entry.if, environment));
  const next = end?.ending.next;
  return (
    <>
      <div className={page.message}>
        <RichText
          text={
            message === undefined
              ? 'Thank you for your time.'
              : shownText(plan, walked.walk, message.text, past, null, escapeMarkdown)
          }
        />
      </div>
      {next !== undefined && 'url' in next && (
        <p>
          It goes on at{' '}
          <a href={next.url} rel="noreferrer" target="_top">
            {next.url}
          </a>
          .
        </p>
      )}
    </>
  );
}
