/**
 * Whether a question allows an answer, given which of its options and rows are shown.
 *
 * Refusals are data; `wording` is not needed since each carries its sentence for the respondent.
 */
import { hasRows, isDated, isListed, stepsOf, traitsOf, type NumericAnswer } from '../document/answer-types';
import { isDateValue, normalDate } from '../document/dates';
import type {
  Answer,
  DateAnswer,
  MultipleAnswer,
  Option,
  Question,
  TextAnswer,
  Value,
} from '../document/types';
import type { Variable } from '../document/variables';
import type { PlanItem } from './plan';

/** What of a question is on show: parallel to its options (or specials) and rows. */
export interface ShownParts {
  readonly options: readonly boolean[];
  readonly rows: readonly boolean[];
}

export type RefusalReason = 'required' | 'limit' | 'picks' | 'unknown-code' | 'contradiction' | 'kind';

export interface Refusal {
  readonly reason: RefusalReason;
  /** For the respondent, in the author's words where there are any. */
  readonly message: string;
}

/** Whether anything but `missing` options is left to answer with; otherwise the question is passed over. */
export function canBeAnswered(question: Question, shown: ShownParts): boolean {
  const { answer } = question;
  if (!isListed(answer)) return true;
  const offered = answer.options.some((option, o) => option.missing === undefined && shown.options[o]);
  return offered && (!hasRows(answer) || shown.rows.some(Boolean));
}

/** Blank: nothing, an empty text, no picks. */
export function isBlank(value: Value | null | undefined): boolean {
  return (
    value === null || value === undefined || value === '' || (Array.isArray(value) && value.length === 0)
  );
}

/** As conditions compare it: dates and times with their seconds. */
export function normalValue(answer: Answer, value: Value): Value {
  const dated = isDated(answer);
  return dated && typeof value === 'string' ? normalDate(value) : value;
}

/** Whether the answer is one of the options or specials with `missing` set. */
export function isMissingAnswer(options: readonly Option[], value: Value): boolean {
  const codes: readonly unknown[] = typeof value === 'object' ? value : [value];
  return options.some((option) => option.missing !== undefined && codes.includes(option.code));
}

/**
 * Why a value that is not blank is not allowed; null where it is. For a grid, ask with `gridRowAnswer`.
 * Piped texts in messages are left to the caller.
 */
export function refusal(question: Question, answer: Answer, value: Value, shown: ShownParts): Refusal | null {
  const limit = (message: string): Refusal => ({
    reason: 'limit',
    message: question.limitMessage ?? message,
  });
  const kind = (message: string): Refusal => ({ reason: 'kind', message });
  switch (answer.type) {
    case 'single':
      if (typeof value !== 'number') return kind('one code is needed');
      return codeRefusal(answer.options, value, shown);
    case 'multiple':
      return picksRefusal(answer, value, shown);
    case 'grid':
      return kind('a grid is answered row by row');
    case 'rank':
      return rankRefusal(answer.options, answer.top ?? answer.options.length, value, shown);
    case 'scale':
    case 'number': {
      if (typeof value !== 'number' || !Number.isFinite(value)) return kind('Please give a number.');
      if (isShownSpecial(answer.specials, value, shown)) return null;
      if (value < answer.min || value > answer.max) {
        return limit(`Please give a number from ${answer.min} to ${answer.max}.`);
      }
      const { from, step } = stepsOf(answer);
      if (!isMultiple(value - from, step)) {
        return limit(stepWords(answer));
      }
      return null;
    }
    case 'text':
      if (typeof value !== 'string') return kind('a text is needed');
      return textRefusal(answer, value, limit);
    case 'date':
    case 'time':
    case 'datetime':
      if (typeof value === 'number' && isShownSpecial(answer.specials, value, shown)) return null;
      if (typeof value === 'number') return kind(`Please give a ${answer.type}.`);
      if (typeof value !== 'string' || !isDateValue(answer.type, value))
        return kind(`Please give a ${traitsOf(answer).words}.`);
      return dateRefusal(answer, value, limit);
    default:
      return answer satisfies never;
  }
}

type Limit = (message: string) => Refusal;

function textRefusal(answer: TextAnswer, value: string, limit: Limit): Refusal | null {
  const length = [...value].length;
  if (answer.minLength !== undefined && length < answer.minLength)
    return limit(`Please write at least ${answer.minLength} characters.`);
  if (answer.maxLength !== undefined && length > answer.maxLength)
    return limit(`Please write at most ${answer.maxLength} characters; there are ${length}.`);
  if (answer.lines !== 'many' && /[\r\n]/.test(value)) return limit('Please write on one line.');
  return patternRefusal(answer.pattern, value, limit);
}

function dateRefusal(answer: DateAnswer, value: string, limit: Limit): Refusal | null {
  const [moment, min, max] = [value, answer.min, answer.max].map((text) => text && normalDate(text));
  if (!(min && moment && moment < min) && !(max && moment && moment > max)) return null;
  const range = [answer.min && `from ${answer.min}`, answer.max && `up to ${answer.max}`];
  return limit(`Please give a ${answer.type} ${range.filter(Boolean).join(' ')}.`);
}

function stepWords(answer: NumericAnswer): string {
  switch (answer.type) {
    case 'scale':
      return `Please choose one of the marks from ${answer.min} to ${answer.max}.`;
    case 'number':
      return answer.decimals
        ? `Please give at most ${answer.decimals} digits after the point.`
        : 'Please give a whole number.';
    default:
      return answer satisfies never;
  }
}

/** The answer type of one row of a grid, like `single` or `multiple`. */
export function gridRowAnswer(answer: Extract<Answer, { type: 'grid' }>): Answer {
  const { options } = answer;
  return answer.pick === 'many' ? { type: 'multiple', options } : { type: 'single', options };
}

function codeRefusal(options: readonly Option[], code: number, shown: ShownParts): Refusal | null {
  const index = options.findIndex((option) => option.code === code);
  if (index < 0) return { reason: 'unknown-code', message: `${code} is not among the codes` };
  if (!shown.options[index])
    return { reason: 'unknown-code', message: `the option ${code} is not shown here` };
  return null;
}

function isShownSpecial(specials: readonly Option[] | undefined, code: number, shown: ShownParts): boolean {
  return specials?.some((option, o) => option.code === code && shown.options[o]) ?? false;
}

/** The pick limits as they stand: they shrink to the number of ordinary options shown. */
export function pickLimits(answer: MultipleAnswer, shown: ShownParts): { least: number; most: number } {
  const ordinary = answer.options.filter(
    (option, o) => shown.options[o] && !option.exclusive && option.missing === undefined,
  ).length;
  return {
    least: Math.min(answer.minPicks ?? 0, ordinary),
    most: Math.min(answer.maxPicks ?? ordinary, ordinary),
  };
}

function picksRefusal(answer: MultipleAnswer, value: Value, shown: ShownParts): Refusal | null {
  if (!Array.isArray(value)) return { reason: 'kind', message: 'a list of codes is needed' };
  const codes = value as readonly number[];
  const bad = listRefusal(answer.options, codes, shown);
  if (bad !== null) return bad;
  if (isAlone(answer.options, codes)) return null;
  const { least, most } = pickLimits(answer, shown);
  if (codes.length >= least && codes.length <= most) return null;
  const few = codes.length < least ? `Please pick at least ${least}.` : `Please pick at most ${most}.`;
  return { reason: 'picks', message: answer.picksMessage ?? few };
}

function rankRefusal(
  options: readonly Option[],
  top: number,
  value: Value,
  shown: ShownParts,
): Refusal | null {
  if (!Array.isArray(value)) return { reason: 'kind', message: 'a list of codes in order of rank is needed' };
  const codes = value as readonly number[];
  const bad = listRefusal(options, codes, shown);
  if (bad !== null) return bad;
  return codes.length > top ? { reason: 'picks', message: `Please rank at most ${top}.` } : null;
}

/** Codes unknown, hidden or given twice, and picks that exclude each other. */
function listRefusal(
  options: readonly Option[],
  codes: readonly number[],
  shown: ShownParts,
): Refusal | null {
  for (const code of codes) {
    const bad = codeRefusal(options, code, shown);
    if (bad !== null) return bad;
  }
  if (new Set(codes).size < codes.length) return { reason: 'contradiction', message: 'a code stands twice' };
  const excluding = options.find((o) => (o.exclusive || o.missing !== undefined) && codes.includes(o.code));
  if (excluding !== undefined && codes.length > 1) {
    return {
      reason: 'contradiction',
      message: `“${excluding.label}” cannot be combined with other answers.`,
    };
  }
  return null;
}

function isAlone(options: readonly Option[], codes: readonly number[]): boolean {
  const only = codes.length === 1 ? options.find((option) => option.code === codes[0]) : undefined;
  return only !== undefined && (only.exclusive === true || only.missing !== undefined);
}

function isMultiple(value: number, step: number): boolean {
  const steps = value / step;
  return Math.abs(steps - Math.round(steps)) < 1e-6;
}

const PATTERNS = {
  email: {
    // Each part ends where the next can begin in one way only, so that no text makes it try many.
    test: /^[^\s@]+@[^\s@.]+(\.[^\s@.]+)+$/,
    message: 'Please give an e-mail address, like name@example.org.',
  },
  phone: { test: /^\+?[\d\s()./-]{5,20}$/, message: 'Please give a telephone number.' },
  url: {
    test: /^https?:\/\/[^\s/.:?#]+(\.[^\s/.:?#]+)+([/?#:]\S*)?$/,
    message: 'Please give an address that starts with https:// or http://.',
  },
} as const;

function patternRefusal(
  pattern: 'email' | 'phone' | 'url' | 'none' | undefined,
  value: string,
  limit: (message: string) => Refusal,
): Refusal | null {
  if (pattern === undefined || pattern === 'none') return null;
  const { test, message } = PATTERNS[pattern];
  return test.test(value) ? null : limit(message);
}

/** One variable that an item presents: the question itself, or each shown row of a grid. */
export interface AskedVariable {
  readonly name: string;
  readonly answer: Answer;
}

/** The variables answered when an item is presented; none for a statement. */
export function partsOf(planItem: PlanItem, shown: ShownParts): AskedVariable[] {
  return partsAtMost(planItem).filter(({ row }) => row === null || shown.rows[row]);
}

/** The variables an item can ask for, all rows of a grid shown; `row` is the index of a grid's row. */
export function partsAtMost({
  item,
  namesakes,
}: PlanItem): (AskedVariable & { readonly row: number | null })[] {
  if (item.kind === 'statement') return [];
  const { answer } = item;
  const parts = hasRows(answer)
    ? answer.rows.map(({ name }, row) => ({ name, answer: gridRowAnswer(answer), row }))
    : [{ name: item.name, answer, row: null }];
  return namesakes.size === 0 ? parts : parts.filter(({ name }) => !namesakes.has(name));
}

/** How a variable is answered; null for a derived one. */
export function variableAnswer(variable: Variable | undefined): Answer | null {
  switch (variable?.of) {
    case 'question':
      return variable.question.answer;
    case 'row':
      return gridRowAnswer(variable.grid);
    case 'given':
      return variable.given.answer;
    default:
      return null;
  }
}
