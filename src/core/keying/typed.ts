/** What somebody types into a field of a paper form: codes, numbers and words, read and written again. */
import { optionsOf } from '../document/shape';
import type { Answer, Option, Value } from '../document/types';
import { refusal, type Shown } from '../routing/answers';
import type { KeyField } from './fields';

export type Typed =
  /** Null: left blank on the form. */
  | { readonly ok: true; readonly value: Value | null }
  /** What is allowed, in words. */
  | { readonly ok: false; readonly problem: string };

/** Reads a field; `shown` says which options and rows are on the form for this respondent, all by default. */
export function readTyped(field: KeyField, text: string, shown?: Shown): Typed {
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

/** Whether nothing more can be typed, so that the next field may take over: only for codes and whole numbers. */
export function isComplete({ answer, kind }: KeyField, text: string): boolean {
  const typed = text.trim();
  if (kind !== 'answer' || !/^-?\d+$/.test(typed)) return false;
  const codes = optionsOf(answer).map(({ code }) => String(code));
  const longer = codes.some((code) => code !== typed && code.startsWith(typed));
  switch (answer.type) {
    case 'single':
      return codes.includes(typed) && !longer;
    case 'scale':
    case 'number': {
      if (answer.type === 'number' && (answer.decimals ?? 0) > 0) return false;
      const value = Number(typed);
      const inside = value >= answer.min && value <= answer.max;
      return (inside || codes.includes(typed)) && !longer && (value === 0 || Math.abs(value) * 10 > Math.max(Math.abs(answer.min), Math.abs(answer.max))); // prettier-ignore
    }
    default:
      return false;
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
