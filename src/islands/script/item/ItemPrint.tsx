/** An item as it is printed on the sheet, while it is not being written in. */
import { memo } from 'react';
import { fieldId } from '../../../core/document/addresses';
import type { Plan, PlanItem } from '../../../core/routing/plan';
import { answerLines } from '../../../core/views/answer-lines';
import { RichText } from '../../ui/RichText';
import { LeadText } from './LeadText';
import answersClasses from './answers.module.css';
import askIfClasses from './ask-if.module.css';
import blockClasses from './block.module.css';
import detailsClasses from './details.module.css';

interface Props {
  readonly plan: Plan;
  readonly planItem: PlanItem;
}

/**
 * What an item's print can show of the rest of the questionnaire: the names of targets. While they stay, an item
 * that did not change is not drawn anew.
 */
export function outlineOf({ document }: Plan): string {
  const sections = document.sections.map(({ id, title, items }) => [
    id,
    title,
    items.map((item) => (item.kind === 'page_break' ? '' : item.name)),
  ]);
  return JSON.stringify([sections, document.endings.map(({ id, kind }) => [id, kind])]);
}

interface PrintProps extends Props {
  readonly outline: string;
}

export const ItemPrint = memo(printed, isSamePrint);

function isSamePrint(a: PrintProps, b: PrintProps): boolean {
  return a.planItem.item === b.planItem.item && a.outline === b.outline;
}

function printed({ plan, planItem }: PrintProps) {
  const { item } = planItem;
  return (
    <>
      <div className={blockClasses.name}>
        <span data-field={fieldId(item.name, 'name')}>{item.name}</span>
        <small>{item.kind === 'statement' ? 'statement' : item.answer.type}</small>
      </div>
      <div>
        {item.askIf !== undefined && (
          <div className={askIfClasses.askIf} data-field={fieldId(item.name, 'askIf')}>
            ask if {item.askIf}
          </div>
        )}
        <div
          className={item.kind === 'statement' ? blockClasses.statement : blockClasses.question}
          data-field={fieldId(item.name, 'text')}
        >
          {item.text === '' ? (
            <em className={blockClasses.blank}>No words yet</em>
          ) : (
            <RichText text={item.text} />
          )}
          {item.kind === 'question' && item.required && (
            <i title="An answer is required" aria-label="required">
              {' '}
              *
            </i>
          )}
        </div>
        {item.kind === 'question' && item.note !== undefined && (
          <div className={blockClasses.note} data-field={fieldId(item.name, 'note')}>
            <RichText text={item.note} />
          </div>
        )}
        {item.instruction !== undefined && (
          <div className={blockClasses.note} data-field={fieldId(item.name, 'instruction')}>
            Interviewer: {item.instruction}
          </div>
        )}
        {item.image !== undefined && (
          <span className={detailsClasses.picture}>
            <img src={item.image.src} alt={item.image.alt} />
          </span>
        )}
        <AnswerPrint plan={plan} planItem={planItem} />
      </div>
    </>
  );
}

export function AnswerPrint({ plan, planItem, only }: Props & { readonly only?: readonly string[] }) {
  const { item } = planItem;
  const lines = answerLines(plan, planItem).filter(({ kind }) => only?.includes(kind) ?? true);
  return (
    <div className={answersClasses.answers}>
      {lines.map(({ key, label, code, lead, faint, tag, anchor, kind }) => (
        <div key={key} data-faint={faint || undefined} data-anchor={anchor ?? undefined} data-kind={kind}>
          <span
            className={answersClasses.label}
            data-field={
              kind === 'option' ? fieldId(item.name, 'label', key.slice('option/'.length)) : undefined
            }
          >
            {label}
            {tag !== '' && <small> {tag}</small>}
          </span>
          <span className={answersClasses.dots} />
          <span className={answersClasses.code}>{code}</span>
          {lead === null ? <span className={answersClasses.lead} /> : <LeadText lead={lead} />}
        </div>
      ))}
    </div>
  );
}
