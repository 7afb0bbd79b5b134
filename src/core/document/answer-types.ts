/**
 * The types of answers by their traits: what one is like, for all who would otherwise name types one by one.
 *
 * A new type needs a row here; the guards below take it in where its traits say so, and every `switch` over the types
 * fails to compile until it decides. Lint keeps others from testing for one type by its name.
 */
import type { Answer, AnswerType, GridRow, Question } from './types';

/** What a value is, for comparisons. */
export type ValueKind = 'number' | 'text' | 'date' | 'time' | 'datetime' | 'set' | 'order' | 'whole-grid';
export type Measure = 'nominal' | 'ordinal' | 'interval' | 'ratio';

export interface AnswerTraits {
  readonly value: ValueKind;
  /** What the variable's columns of data hold: its value, a pick of each option, an option for each place; or its rows have them. */
  readonly columns: 'value' | 'picks' | 'places' | 'rows';
  /** What is tabulated, and drawn. */
  readonly tabulated: 'codes' | 'numbers' | 'moments' | 'texts';
  /** What the type suggests, where a question says nothing else. */
  readonly measure: Measure;
  /** The property that lists what can be chosen; null where nothing can. */
  readonly list: 'options' | 'specials' | null;
  /** It runs from one end to another, and the ends have words. */
  readonly ends: boolean;
  /** In words, as the codebook has it. */
  readonly words: string;
  /** In words, to whom it is offered. */
  readonly offered: string;
}

export const ANSWER_TRAITS = {
  single: {
    value: 'number',
    columns: 'value',
    tabulated: 'codes',
    measure: 'nominal',
    list: 'options',
    ends: false,
    words: 'one answer',
    offered: 'one answer of a list',
  },
  multiple: {
    value: 'set',
    columns: 'picks',
    tabulated: 'codes',
    measure: 'nominal',
    list: 'options',
    ends: false,
    words: 'picks',
    offered: 'any number of a list',
  },
  scale: {
    value: 'number',
    columns: 'value',
    tabulated: 'numbers',
    measure: 'ordinal',
    list: 'specials',
    ends: true,
    words: 'scale',
    offered: 'a place between two ends',
  },
  number: {
    value: 'number',
    columns: 'value',
    tabulated: 'numbers',
    measure: 'ratio',
    list: 'specials',
    ends: false,
    words: 'number',
    offered: 'a number',
  },
  text: {
    value: 'text',
    columns: 'value',
    tabulated: 'texts',
    measure: 'nominal',
    list: null,
    ends: false,
    words: 'text',
    offered: 'in their own words',
  },
  date: {
    value: 'date',
    columns: 'value',
    tabulated: 'moments',
    measure: 'interval',
    list: 'specials',
    ends: false,
    words: 'date',
    offered: 'a day',
  },
  time: {
    value: 'time',
    columns: 'value',
    tabulated: 'moments',
    measure: 'interval',
    list: 'specials',
    ends: false,
    words: 'time',
    offered: 'a time of day',
  },
  datetime: {
    value: 'datetime',
    columns: 'value',
    tabulated: 'moments',
    measure: 'interval',
    list: 'specials',
    ends: false,
    words: 'date and time',
    offered: 'a day and a time',
  },
  grid: {
    value: 'whole-grid',
    columns: 'rows',
    tabulated: 'codes',
    measure: 'nominal',
    list: 'options',
    ends: false,
    words: 'grid row',
    offered: 'the same for several rows',
  },
  rank: {
    value: 'order',
    columns: 'places',
    tabulated: 'codes',
    measure: 'ordinal',
    list: 'options',
    ends: false,
    words: 'rank',
    offered: 'a list put in order',
  },
} as const satisfies Record<AnswerType, AnswerTraits>;

/** The types that have a trait. */
type TypesWith<Traits extends Partial<AnswerTraits>> = {
  [Type in AnswerType]: (typeof ANSWER_TRAITS)[Type] extends Traits ? Type : never;
}[AnswerType];
type AnswerWith<Traits extends Partial<AnswerTraits>> = Extract<Answer, { readonly type: TypesWith<Traits> }>;

export type NumericAnswer = AnswerWith<{ tabulated: 'numbers' }>;
export type DatedAnswer = AnswerWith<{ tabulated: 'moments' }>;
type Perhaps = Answer | null | undefined;

/** The row of the answer’s type. */
export function traitsOf(answer: Answer): AnswerTraits {
  return ANSWER_TRAITS[answer.type];
}

/** One of its options is the answer. */
export function picksOne(answer: Perhaps): answer is AnswerWith<{ columns: 'value'; list: 'options' }> {
  return answer != null && traitsOf(answer).columns === 'value' && traitsOf(answer).list === 'options';
}

/** Any of its options are. */
export function picksMany(answer: Perhaps): answer is AnswerWith<{ columns: 'picks' }> {
  return answer != null && traitsOf(answer).columns === 'picks';
}

/** Its options are put in order. */
export function ranksOptions(answer: Perhaps): answer is AnswerWith<{ columns: 'places' }> {
  return answer != null && traitsOf(answer).columns === 'places';
}

/** Its rows are variables of their own. */
export function hasRows(answer: Perhaps): answer is AnswerWith<{ columns: 'rows' }> {
  return answer != null && traitsOf(answer).columns === 'rows';
}

/** It is a number between limits. */
export function isNumeric(answer: Perhaps): answer is NumericAnswer {
  return answer != null && traitsOf(answer).tabulated === 'numbers';
}

/** It is a date, a time, or both. */
export function isDated(answer: Perhaps): answer is DatedAnswer {
  return answer != null && traitsOf(answer).tabulated === 'moments';
}

/** Its ends have words. */
export function hasEnds(answer: Perhaps): answer is AnswerWith<{ ends: true }> {
  return answer != null && traitsOf(answer).ends;
}

/** It is written in words. */
export function isWritten(answer: Perhaps): answer is AnswerWith<{ tabulated: 'texts' }> {
  return answer != null && traitsOf(answer).tabulated === 'texts';
}

/** Everything that can be answered stands in its list. */
export function isListed(answer: Perhaps): answer is AnswerWith<{ list: 'options' }> {
  return answer != null && traitsOf(answer).list === 'options';
}

/** The rows of an answer that has some; none for any other. */
export function rowsOf(answer: Answer): readonly GridRow[] {
  return hasRows(answer) ? answer.rows : [];
}

/** The variables that a question is answered under: itself, or its rows. */
export function answeredNames({ name, answer }: Pick<Question, 'name' | 'answer'>): readonly string[] {
  return hasRows(answer) ? answer.rows.map((row) => row.name) : [name];
}

/** The numbers that can be given: `from` and whole `step`s away from it, up or down, within the limits. */
export function stepsOf(answer: NumericAnswer): { readonly from: number; readonly step: number } {
  switch (answer.type) {
    case 'scale':
      return { from: answer.min, step: answer.step ?? 1 };
    case 'number':
      return { from: 0, step: 10 ** -(answer.decimals ?? 0) };
    default:
      return answer satisfies never;
  }
}

/** Whether everything in it is a whole number. */
export function isWhole(answer: NumericAnswer): boolean {
  const { from, step } = stepsOf(answer);
  return Number.isInteger(from) && Number.isInteger(step);
}

/** Lines that it takes up on the sheet. */
export function linesOf(answer: Answer): number {
  return isListed(answer) ? rowsOf(answer).length + answer.options.length : 1;
}
