/** One item on the respondent's page: its words, picture and note, its answer, its messages. */
import { useId } from 'react';
import { passKey } from '../../core/document/addresses';
import type { Plan } from '../../core/routing/plan';
import type { Walk, WalkStep } from '../../core/routing/walk';
import { pickWords } from '../../core/wording/picks';
import { shownText } from '../../core/wording/values';
import { AnswerForm } from './AnswerForm';
import { escapeMarkdown, RichText } from '../ui/RichText';
import type { Session } from '../../core/responding/session';
import classes from './item.module.css';

interface Props {
  readonly plan: Plan;
  readonly session: Session;
  readonly walk: Walk;
  readonly step: WalkStep;
  readonly current: boolean;
  readonly focused: () => void;
}

export function ItemForm({ plan, session, walk, step, current, focused }: Props) {
  const { planItem, pass, key } = step;
  const { item, section } = planItem;
  const faults = session.faults.filter((entry) => entry.step.key === key).map(({ fault }) => fault);
  const messageId = useId();
  const words = (text: string) => shownText(plan, walk, text, section, pass, escapeMarkdown);
  const { settings } = plan.document;
  const number = numberOf(plan, walk, step);
  const heading = (
    <>
      {number !== null && <span className={classes.number}>{number}</span>}
      <RichText text={words(item.text)} />
    </>
  );
  const extras = (
    <>
      {settings?.mode === 'interviewer' && item.instruction !== undefined && (
        <p className={classes.instruction}>Interviewer: {words(item.instruction)}</p>
      )}
      {item.image !== undefined && (
        <img className={classes.picture} src={item.image.src} alt={item.image.alt} />
      )}
    </>
  );
  if (item.kind === 'statement') {
    return (
      <div className={classes.statement} data-item={key} tabIndex={-1} data-current={current || undefined}>
        <RichText text={words(item.text)} />
        {extras}
      </div>
    );
  }
  const picks = pickWords(item);
  const whole = faults.filter(({ part, kind }) => part === item.name || kind === 'unspecified');
  const commentKey = passKey(`${item.name}_comment`, pass);
  return (
    <fieldset
      className={classes.question}
      data-question={key}
      data-item={key}
      data-current={current || undefined}
      aria-describedby={whole.length > 0 ? messageId : undefined}
      onFocus={focused}
    >
      <legend className={classes.text}>
        {heading}
        {item.required && (
          <i className={classes.star} title="An answer is required" aria-label="required">
            *
          </i>
        )}
      </legend>
      {item.note !== undefined && (
        <div className={classes.note}>
          <RichText text={words(item.note)} />
        </div>
      )}
      {picks !== null && <div className={classes.note}>{picks}</div>}
      {extras}
      <AnswerForm
        session={session}
        step={step}
        question={item}
        words={(text) => shownText(plan, walk, text, section, pass)}
        codes={showsCodes(plan)}
      />
      <div id={messageId}>
        {whole.map((fault, index) => (
          <p key={index} className={classes.fault} data-soft={fault.kind === 'soft' || undefined}>
            {words(fault.message)}
          </p>
        ))}
      </div>
      {item.comment !== undefined && (
        <label className={classes.comment}>
          {words(item.comment)}
          <textarea
            rows={2}
            value={String(session.answers[commentKey] ?? '')}
            onChange={(event) =>
              session.answer(commentKey, event.target.value === '' ? null : event.target.value)
            }
          />
        </label>
      )}
    </fieldset>
  );
}

/** Interviewers see the codes of answers; respondents do not. */
export function showsCodes(plan: Plan): boolean {
  return plan.document.settings?.mode === 'interviewer';
}

/** The number shown to respondents: closed up after skips, fixed as in the document, or none. */
function numberOf(plan: Plan, walk: Walk, step: WalkStep): number | null {
  const style = plan.document.settings?.numbers ?? 'running';
  if (style === 'none') return null;
  const isQuestion = (of: WalkStep['planItem']) => of.item.kind === 'question';
  if (style === 'fixed') {
    const all = plan.sections.flatMap(({ items }) => items).filter(isQuestion);
    return all.findIndex(({ item }) => item.name === step.planItem.item.name) + 1;
  }
  return (
    walk.steps.filter(({ planItem }) => isQuestion(planItem)).findIndex(({ key }) => key === step.key) + 1
  );
}
