/** What somebody types into a field of a paper form: codes, numbers and words, read and written again. */
import { optionsOf } from '../document/shape';
import type { Answer, NumberAnswer, Option, ScaleAnswer, Value } from '../document/types';
import { refusal, type ShownParts } from '../routing/answers';
import type { KeyField } from './fields';

export type Typed =
  /** Null: left blank on the form. */
  | { readonly ok: true; readonly value: Value | null }
  /** What is allowed, in words. */
  | { readonly ok: false; readonly problem: string };

/** Reads a field; `shown` says which options and rows are on the form for this respondent, all by default. */
export function readTyped(field: KeyField, text: string, shown?: ShownParts): Typed {
  const trimmed = text.trim();
  if (trimmed === '') return { ok: true, value: null };
  if (field.kind !== 'answer') return { ok: true, value: text.trim() };
  const { answer, question } = field;
  const value = valueOf(answer, trimmed);
  if (value === null) return { ok: false, problem: allowedWords(answer) };
  const everything = { options: optionsOf(answer).map(() => true), rows: [] };
  const refused = refusal(question, answer, value, shown ?? everything);
  if (refused === null) return { ok: true, value };
  const own = refused.reason === 'unknown-code' ? allowedWords(answer) : `${refused.message}`;
  return { ok: false, problem: own };
}

/** As it was typed, to be shown in the field again. */
export function typedText(value: Value | null | undefined): string {
  if (value === null || value === undefined) return '';
  return typeof value === 'object' ? value.join(' ') : String(value);
}

/**
 * How far what is being typed has come. `complete`: nothing more can be typed, so that the next field may take over; never
 * of a number, whose end only the person who types it knows. `refused`: nothing that is allowed begins so.
 */
export function typingOf({ answer, kind }: KeyField, text: string): 'open' | 'complete' | 'refused' {
  const typed = text.trim();
  if (kind !== 'answer' || typed === '') return 'open';
  const codes = optionsOf(answer).map(({ code }) => String(code));
  const begins = (list: readonly string[]) => list.some((each) => each.startsWith(typed));
  const ends = (list: readonly string[]) =>
    list.filter((each) => each.startsWith(typed)).length === 1 && list.includes(typed);
  switch (answer.type) {
    case 'single':
      return !begins(codes) ? 'refused' : ends(codes) ? 'complete' : 'open';
    case 'scale': {
      const marks = [...marksOf(answer), ...codes];
      return !begins(marks) ? 'refused' : ends(marks) ? 'complete' : 'open';
    }
    case 'number':
      return begins(codes) || beginsNumber(answer, typed.replace(',', '.')) ? 'open' : 'refused';
    case 'multiple':
    case 'rank':
    case 'grid':
    case 'text':
    case 'date':
    case 'time':
    case 'datetime':
      return 'open';
    default:
      return answer satisfies never;
  }
}

/** More marks than this are not told apart by what is typed for them. */
const MOST_MARKS = 2000;

function marksOf({ min, max, step = 1 }: ScaleAnswer): string[] {
  const count = Math.min(MOST_MARKS, Math.floor((max - min) / step + 1e-9) + 1);
  return Array.from({ length: count }, (_, n) => String(Number((min + n * step).toFixed(9))));
}

/** Whether some number within the limits is written with these digits first. */
function beginsNumber({ min, max, decimals = 0 }: NumberAnswer, typed: string): boolean {
  const found = /^(-?)(\d*)(\.\d*)?$/.exec(typed);
  if (found === null) return false;
  const [, sign = '', digits = '', fraction] = found;
  if (fraction !== undefined && (decimals === 0 || fraction.length - 1 > decimals)) return false;
  // The size of the number, from nought, and the limits of it on this side of nought.
  const [least, most] = sign === '-' ? [Math.max(0, -max), -min] : [Math.max(0, min), max];
  if (most < 0 || (sign === '-' && min >= 0)) return false;
  // Forms fill up with noughts in front.
  const whole = digits.replace(/^0+/, '');
  const fits = (from: number, to: number) => from <= most && to >= least;
  if (fraction !== undefined) {
    const from = Number(`${whole || '0'}${fraction === '.' ? '' : fraction}`);
    return fits(from, from + 10 ** -(fraction.length - 1) - 10 ** -decimals);
  }
  if (whole === '') return true;
  const part = 10 ** -decimals;
  for (let scale = 1; Number(whole) * scale <= most; scale *= 10) {
    if (fits(Number(whole) * scale, (Number(whole) + 1) * scale - part)) return true;
  }
  return false;
}

/** What may stand in a field, beside its codes: limits, and how many picks. Empty where there is nothing to say. */
export function limitWords({ answer, kind, question }: KeyField): string {
  if (kind !== 'answer') return '';
  const required = question.required === true ? '' : 'may be blank';
  const own = (): string => {
    switch (answer.type) {
      case 'number':
      case 'scale':
        return `${answer.min} to ${answer.max}${'unit' in answer && answer.unit !== undefined ? ` ${answer.unit}` : ''}`;
      case 'multiple': {
        const { minPicks, maxPicks } = answer;
        const words = [minPicks && `at least ${minPicks}`, maxPicks && `at most ${maxPicks}`].filter(Boolean);
        return words.length === 0 ? 'all that apply' : words.join(', ');
      }
      case 'rank':
        return answer.top === undefined ? 'in order of rank' : `the first ${answer.top} in order of rank`;
      case 'date':
      case 'datetime':
      case 'time': {
        const like = { date: 'day.month.year', datetime: 'day.month.year hour:minute', time: 'hour:minute' }[
          answer.type
        ];
        const limits = [answer.min && `from ${answer.min}`, answer.max && `to ${answer.max}`].filter(Boolean);
        return [like, ...limits].join(', ').replaceAll('T', ' ');
      }
      case 'text':
        return answer.maxLength === undefined ? '' : `at most ${answer.maxLength} characters`;
      case 'single':
      case 'grid':
        return '';
      default:
        return answer satisfies never;
    }
  };
  return [own(), required].filter((part) => part !== '').join(' · ');
}

/** The number that stands on the next form: its last digits one more, as wide as before; null where it has none. */
export function nextCaseId(caseId: string, taken: ReadonlySet<string>): string | null {
  const found = /^(.*?)(\d+)$/.exec(caseId);
  if (found === null) return null;
  const [, head = '', digits = ''] = found;
  for (let number = BigInt(digits) + 1n; ; number += 1n) {
    const next = `${head}${String(number).padStart(digits.length, '0')}`;
    if (!taken.has(next)) return next;
  }
}

/** What a field takes, in a few words. */
export function allowedWords(answer: Answer): string {
  switch (answer.type) {
    case 'single':
      return `Key one of ${codes(answer.options)}, or nothing for a blank.`;
    case 'multiple':
      return `Key the codes picked with spaces between them, of ${codes(answer.options)}; or nothing for a blank.`;
    case 'rank':
      return `Key the codes in order of rank with spaces between them, of ${codes(answer.options)}; or nothing for a blank.`;
    case 'scale':
    case 'number':
      return `Key a number from ${answer.min} to ${answer.max}${orSpecials(answer.specials)}, or nothing for a blank.`;
    case 'date':
      return `Key a day like 2026-03-01 or 1.3.2026${orSpecials(answer.specials)}, or nothing for a blank.`;
    case 'time':
      return `Key a time like 14:05${orSpecials(answer.specials)}, or nothing for a blank.`;
    case 'datetime':
      return `Key day and time like 2026-03-01 14:05${orSpecials(answer.specials)}, or nothing for a blank.`;
    case 'text':
      return 'Key the words on the form, or nothing for a blank.';
    case 'grid':
      return '';
    default:
      return answer satisfies never;
  }
}

function codes(options: readonly Option[]): string {
  return options.map(({ code }) => code).join(', ');
}

function orSpecials(specials: readonly Option[] | undefined): string {
  return specials === undefined || specials.length === 0 ? '' : `, or ${codes(specials)}`;
}

function valueOf(answer: Answer, text: string): Value | null {
  const special = optionsOf(answer).find(({ code }) => String(code) === text);
  switch (answer.type) {
    case 'text':
      return text;
    case 'single':
      return numberIn(text);
    case 'multiple':
    case 'rank': {
      const picked = text.split(/[\s,;]+/).map(numberIn);
      const different = new Set(picked);
      if (picked.some((code) => code === null) || different.size < picked.length) return null;
      return picked as number[];
    }
    case 'scale':
    case 'number':
      return numberIn(text.replace(',', '.'));
    case 'date':
      return special?.code ?? dayIn(text);
    case 'time':
      return special?.code ?? timeIn(text);
    case 'datetime': {
      if (special !== undefined) return special.code;
      const [day = '', time = ''] = text.split(/[\sT]+/);
      const [date, hour] = [dayIn(day), timeIn(time)];
      return date === null || hour === null ? null : `${date}T${hour}`;
    }
    case 'grid':
      return null;
    default:
      return answer satisfies never;
  }
}

function numberIn(text: string): number | null {
  return /^-?\d+(\.\d+)?$/.test(text) ? Number(text) : null;
}

/** 2026-03-01, or 1.3.2026 and 1/3/2026 with the day first. */
function dayIn(text: string): string | null {
  if (/^\d{4}-\d{2}-\d{2}$/.test(text)) return text;
  const found = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(text);
  if (found === null) return null;
  const [, day = '', month = '', year = ''] = found;
  return `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
}

/** 14:05, 14.05 or 1405. */
function timeIn(text: string): string | null {
  const found = /^(\d{1,2})[:.]?(\d{2})$/.exec(text);
  return found === null ? null : `${(found[1] ?? '').padStart(2, '0')}:${found[2]}`;
}
