/** An answer as lines of a printed form: what can be answered, the code in the data, where it leads. */
import { printCondition } from '../condition/print';
import { address, type Address } from '../document/addresses';
import { hasRows, picksOne, traitsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, GridRow, Option } from '../document/types';
import type { Plan, PlanItem } from '../routing/plan';
import { momentWords } from '../wording/dates';
import { targetView } from '../wording/targets';
import { codesSkipped, leadOf, type Lead } from './leads';

export interface AnswerLine {
  /** Unique within the item. */
  readonly key: string;
  readonly label: string;
  /** Code, unit or name of a row: what stands at the end of the dots. */
  readonly code: string;
  /** Null where it makes no sense to say where a line leads. */
  readonly lead: Lead | null;
  /** Don't know and the like; rules. */
  readonly faint: boolean;
  /** A tag behind the label: *specify*, *excludes the others*. */
  readonly tag: string;
  /** Where an arc may leave from. */
  readonly anchor: Address | null;
  readonly kind: 'option' | 'range' | 'row' | 'codes' | 'rule';
}

/** Of a statement: where it leads, if anywhere. */
export function answerLines(plan: Plan, planItem: PlanItem): AnswerLine[] {
  const { item } = planItem;
  if (item.kind === 'statement') return rules(plan, planItem);
  const { answer } = item;
  const always = planItem.skips.find((skip) => skip.if === null);
  const whole: Lead = {
    target: always === undefined ? null : targetView(plan, always.to),
    sometimes: planItem.skips.length > 1,
  };
  const options = optionsOf(answer).map((option): AnswerLine => ({
    key: `option/${option.code}`,
    label: option.label,
    code: String(option.code),
    lead: hasRows(answer) ? null : leadOf(plan, planItem, option.code),
    faint: option.missing !== undefined,
    tag: optionTag(option, answer),
    anchor: address('option', item.name, option.code),
    kind: 'option',
  }));
  const line = (kind: 'range' | 'codes', label: string, code: string): AnswerLine => ({
    key: kind,
    label,
    code,
    lead: kind === 'range' ? whole : null,
    faint: kind === 'codes',
    tag: '',
    anchor: null,
    kind,
  });
  switch (answer.type) {
    case 'single':
    case 'multiple':
    case 'rank':
      return [...options, ...rules(plan, planItem)];
    case 'grid': {
      const codes = answer.options.map(({ code, label }) => `${code} ${label}`).join(' · ');
      return [
        ...answer.rows.map(rowLine),
        line('codes', codes, answer.pick === 'many' ? 'many a row' : 'one a row'),
        ...rules(plan, planItem),
      ];
    }
    case 'scale':
    case 'number':
    case 'text':
    case 'date':
    case 'time':
    case 'datetime':
      return [line('range', rangeWords(answer), unitOf(answer)), ...options, ...rules(plan, planItem)];
    default:
      return answer satisfies never;
  }
}

function rowLine({ name, label, askIf }: GridRow): AnswerLine {
  return {
    key: `row/${name}`,
    label,
    code: name,
    lead: null,
    faint: false,
    tag: askIf === undefined ? '' : `if ${askIf}`,
    anchor: null,
    kind: 'row',
  };
}

/** Skips that no single answer decides, each as a line of its own. */
function rules(plan: Plan, planItem: PlanItem): AnswerLine[] {
  return planItem.skips
    .filter((skip) => codesSkipped(planItem, skip).length === 0)
    .filter((skip) => skip.if !== null || planItem.item.kind === 'statement' || isListed(planItem))
    .map((skip) => ({
      key: `rule/${skip.index}`,
      label: skip.if === null ? 'everyone else' : printCondition(skip.if),
      code: '',
      lead: { target: targetView(plan, skip.to), sometimes: false },
      faint: true,
      tag: '',
      anchor: address('item-skips', planItem.item.name),
      kind: 'rule',
    }));
}

function isListed({ item }: PlanItem): boolean {
  return item.kind === 'question' && ['single', 'multiple', 'rank', 'grid'].includes(item.answer.type);
}

function optionTag(option: Option, answer: Answer): string {
  const tags = [
    option.specify ? (option.specifyLabel ?? 'please specify') : '',
    option.exclusive && !picksOne(answer) ? 'excludes the others' : '',
    option.askIf === undefined ? '' : `if ${option.askIf}`,
  ];
  return tags.filter((tag) => tag !== '').join(', ');
}

type OpenAnswer = Exclude<Answer, { type: 'single' | 'multiple' | 'rank' | 'grid' }>;

function rangeWords(answer: OpenAnswer): string {
  switch (answer.type) {
    case 'scale': {
      const low = answer.lowLabel ? ` ${answer.lowLabel}` : '';
      const high = answer.highLabel ? ` ${answer.highLabel}` : '';
      return `${answer.min}${low} to ${answer.max}${high}`;
    }
    case 'number':
      return `${answer.min} to ${answer.max}`;
    case 'text': {
      const what =
        answer.pattern === undefined || answer.pattern === 'none' ? 'text' : PATTERN_WORDS[answer.pattern];
      return answer.lines === 'many' ? 'several lines of text' : `one line of ${what}`;
    }
    case 'date':
    case 'time':
    case 'datetime': {
      const what = `a ${traitsOf(answer).words}`;
      const range = [
        answer.min && `from ${momentWords(answer.min)}`,
        answer.max && `to ${momentWords(answer.max)}`,
      ].filter(Boolean);
      return [what, ...range].join(' ');
    }
    default:
      return answer satisfies never;
  }
}

const PATTERN_WORDS = { email: 'e-mail', phone: 'telephone', url: 'web address' } as const;

function unitOf(answer: OpenAnswer): string {
  switch (answer.type) {
    case 'number':
      return answer.unit ?? 'number';
    case 'scale':
      return 'mark';
    case 'text':
    case 'date':
    case 'time':
    case 'datetime':
      return answer.type;
    default:
      return answer satisfies never;
  }
}
