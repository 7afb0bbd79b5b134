/** Which limits an answer of each type can have, in the order they are printed, and what they are called. */
import type { Answer } from '../../../core/document/types';

type AnswerOf<Type> = Extract<Answer, { type: Type }>;

/** One limit; `property` is that of the answer. */
export type LimitField<Property = string> =
  | {
      readonly as: 'number';
      readonly property: Property;
      readonly label: string;
      readonly whole?: boolean;
      /** An answer of this type has it always. */
      readonly needed?: boolean;
      /** Where Enter goes: to another limit, or to a new question. */
      readonly next?: Property | 'question';
    }
  | {
      readonly as: 'words';
      readonly property: Property;
      readonly label: string;
      /** Characters in sight. */
      readonly size: number;
      /** Only where the answer has one of these. */
      readonly beside?: readonly Property[];
    }
  /** The first of the values is what is meant where the property is not there. */
  | {
      readonly as: 'choice';
      readonly property: Property;
      readonly label: string;
      readonly values: readonly [string, ...string[]];
    }
  | { readonly as: 'random-order' }
  /** `suggested`: only as long as the limits are a suggestion. */
  | { readonly as: 'said'; readonly words: string; readonly suggested?: boolean };

const RANDOM_ORDER = { as: 'random-order' } as const;
const COLUMNS = { as: 'number', property: 'columns', label: 'columns', whole: true } as const;
const said = (words: string) => ({ as: 'said', words }) as const;
const moments = (like: string) =>
  [
    { as: 'words', property: 'min', label: 'from', size: 14 },
    { as: 'words', property: 'max', label: 'to', size: 14 },
    said(like),
  ] as const;

export const LIMITS: {
  readonly [Type in Answer['type']]: readonly LimitField<Exclude<keyof AnswerOf<Type>, 'type'> & string>[];
} = {
  single: [COLUMNS, RANDOM_ORDER],
  multiple: [
    { as: 'number', property: 'minPicks', label: 'picks at least', whole: true },
    { as: 'number', property: 'maxPicks', label: 'at most', whole: true },
    { as: 'words', property: 'picksMessage', label: 'else say', size: 28, beside: ['minPicks', 'maxPicks'] },
    COLUMNS,
    RANDOM_ORDER,
  ],
  grid: [{ as: 'choice', property: 'pick', label: 'picks a row', values: ['one', 'many'] }, RANDOM_ORDER],
  rank: [{ as: 'number', property: 'top', label: 'places ranked', whole: true }, RANDOM_ORDER],
  scale: [
    { as: 'number', property: 'min', label: 'from', needed: true },
    { as: 'number', property: 'max', label: 'to', needed: true },
    { as: 'number', property: 'step', label: 'step' },
    { as: 'words', property: 'lowLabel', label: 'low end', size: 12 },
    { as: 'words', property: 'midLabel', label: 'middle', size: 12 },
    { as: 'words', property: 'highLabel', label: 'high end', size: 12 },
  ],
  number: [
    { as: 'number', property: 'min', label: 'from', needed: true, next: 'max' },
    { as: 'number', property: 'max', label: 'to', needed: true, next: 'question' },
    { ...said('a suggestion: write the least and the most that can be true'), suggested: true },
    { as: 'number', property: 'decimals', label: 'decimals', whole: true },
    { as: 'words', property: 'unit', label: 'unit', size: 8 },
  ],
  text: [
    { as: 'choice', property: 'lines', label: 'lines', values: ['one', 'many'] },
    { as: 'choice', property: 'pattern', label: 'pattern', values: ['none', 'email', 'phone', 'url'] },
    { as: 'number', property: 'minLength', label: 'at least', whole: true },
    { as: 'number', property: 'maxLength', label: 'at most', whole: true },
    said('characters'),
    { as: 'words', property: 'placeholder', label: 'shows first', size: 16 },
  ],
  date: moments('like 2026-01-31'),
  time: moments('like 08:30'),
  datetime: moments('like 2026-01-31T08:30'),
};
