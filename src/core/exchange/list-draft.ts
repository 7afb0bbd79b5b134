/** What a list says of one question, as it is gathered line by line, and the answer that comes of it. */
import { isNumeric, picksMany } from '../document/answer-types';
import { freshName } from '../document/names';
import type { Answer, Option, SectionKind, Statement } from '../document/types';
import { suggest, suggestedNumber } from '../editing/suggested';
import { optionFrom, type PicksAllowed, type ScaleIn } from './list-answers';
import type { AskedOf } from './list-lines';

export const LINE_KINDS = ['section', 'question', 'answer', 'skip', 'text', 'note', 'trouble'] as const;
export type LineKind = (typeof LINE_KINDS)[number];

export interface UnderstoodLine {
  /** From 1. */
  readonly line: number;
  readonly text: string;
  readonly kind: LineKind;
  /** What became of it, in a few words. */
  readonly says: string;
  /** What a person should look at; null where nothing is doubtful. */
  readonly doubt: string | null;
}

/** A line while it is looked at. */
export type LineReport = { -readonly [Key in keyof UnderstoodLine]: UnderstoodLine[Key] };

/** A skip as it is written: the answers that take it, none for all. */
export interface DraftSkip {
  readonly labels: readonly string[];
  readonly code: number | null;
  readonly to: string;
  readonly section: number;
  readonly report: LineReport;
}

export interface DraftQuestion {
  readonly name: string;
  readonly number: string;
  text: string;
  readonly options: Option[];
  /** Which of the options stood behind a letter, as statements of a block do. */
  readonly lettered: Set<Option>;
  /** Answers that all statements of a block have in common. */
  common: string[];
  picks: PicksAllowed | null;
  scale: ScaleIn | null;
  written: 'one' | 'many' | null;
  hints: string;
  note: string | null;
  instruction: string | null;
  unit: string | null;
  askedOf: { readonly of: AskedOf; readonly report: LineReport } | null;
  readonly skips: DraftSkip[];
  /** The number that the last answer had in front. */
  lastNumber: number | null;
  readonly report: LineReport;
}

/** Some lines with a heading, or those before the first one. */
export interface DraftSection {
  readonly title: string;
  readonly kind: SectionKind;
  readonly entries: (DraftQuestion | Statement)[];
  /** The line of the heading; null where none was written. */
  readonly report: LineReport | null;
}

/** Adds to what is said of a line. */
export function joined(says: string, more: string): string {
  return says === '' ? more : `${says}; ${more}`;
}

/** Marks a line, or a part of it, as left out. */
export function unused(row: LineReport, why: string): void {
  row.kind = row.kind === 'skip' ? 'trouble' : row.kind;
  row.says = joined(row.says, why);
  row.doubt ??= why;
}

/** The condition that one of some answers is given; null where there are none. */
export function conditionOf(name: string, answer: Answer, codes: readonly number[]): string | null {
  const [only] = codes;
  if (only === undefined) return null;
  if (picksMany(answer))
    return codes.length === 1 ? `${name} has ${only}` : `${name} has any (${codes.join(', ')})`;
  return codes.length === 1 ? `${name} = ${only}` : `${name} in (${codes.join(', ')})`;
}

/** The answer that some words mean, as a list speaks of it elsewhere; null where none is meant. */
export function codeFor(label: string, options: readonly Option[]): number | null {
  const plain = (text: string) =>
    text
      .toLowerCase()
      .replace(/[’‘`]/g, "'")
      .replace(/[^\p{L}\p{N}' ]+/gu, '')
      .trim();
  const wanted = plain(label).replace(/^(?:code|option|answer)\s+/, '');
  const exact = options.find((option) => plain(option.label) === wanted || String(option.code) === wanted);
  if (exact !== undefined) return exact.code;
  // “Not sure” and “don't know” are the same to whoever writes a list.
  const missing = optionFrom(label, null, []).missing;
  const alike = missing === undefined ? undefined : options.find((option) => option.missing === missing);
  return (alike ?? options.find((option) => plain(option.label).startsWith(wanted)))?.code ?? null;
}

/** How a question is answered, by all that its lines said. Names of grid rows are added to those that are taken. */
export function answerFrom(draft: DraftQuestion, taken: Set<string> = new Set()): Answer {
  const { options, common, picks, scale, written, hints } = draft;
  if (common.length > 0 && options.length > 0) {
    const answers: Option[] = [];
    for (const label of common) answers.push(optionFrom(label, null, answers));
    return {
      type: 'grid',
      rows: options.map(({ label }, n) => {
        const name = freshName(`${draft.name}_${n + 1}`, taken);
        taken.add(name.toLowerCase());
        return { name, label };
      }),
      options: answers,
      ...(picks?.several ? { pick: 'many' as const } : {}),
    };
  }
  const all = [...options];
  if (options.length === 0) for (const label of common) all.push(optionFrom(label, null, all));
  if (all.length > 0) {
    if (picks?.several !== true)
      return { type: 'single', options: all.map(({ exclusive: _, ...option }) => option) };
    const { least, most } = picks;
    return {
      type: 'multiple',
      options: all,
      ...(least === undefined || least < 2 ? {} : { minPicks: Math.min(least, all.length) }),
      ...(most === undefined ? {} : { maxPicks: Math.min(most, all.length) }),
    };
  }
  if (scale !== null) {
    const { min, max, low, high } = scale;
    return {
      type: 'scale',
      min,
      max,
      ...(low ? { lowLabel: low } : {}),
      ...(high ? { highLabel: high } : {}),
    };
  }
  if (written !== null) return { type: 'text', lines: written };
  const open = openAnswer(hints);
  if (draft.unit === null) return open;
  return suggest({ ...(isNumeric(open) ? open : suggestedNumber(draft.hints)), unit: draft.unit });
}

/** From the words of a question that has no answers below it. */
function openAnswer(hints: string): Answer {
  const range = /(-?\d+)\s*(?:to|–|-|\.\.)\s*(\d+)/.exec(hints);
  if (range !== null) {
    const [min, max] = [Number(range[1]), Number(range[2])];
    const rates = /scale|rate|how (?:satisfied|likely|much)/i.test(hints) && max - min <= 20;
    if (min < max) return { type: rates ? 'scale' : 'number', min, max };
  }
  if (/\b(?:date|on which day|dd.?mm.?yyyy)\b/i.test(hints)) return { type: 'date' };
  if (/\b(?:at what time|what time)\b/i.test(hints)) return { type: 'time' };
  if (
    /\bhow many|\bhow old|\bnumber of|\((?:number|numeric|whole number|enter a number|years?)\)|\b(?:in )?what year/i.test(
      hints,
    )
  )
    return suggestedNumber(hints);
  return { type: 'text', lines: /\bwhy\b|describe|comment|anything else/i.test(hints) ? 'many' : 'one' };
}
