/** Whole answer lists: common ones, those of another question, and their order. */
import type { Draft } from 'immer';
import { optionsOf } from '../document/shape';
import type { Option, Question, Questionnaire } from '../document/types';
import type { Change } from './change';
import type { Recoding } from './recode';
import { editQuestion, type ItemPlace } from './structure';

/** Lists that surveys use again and again, by what they are called. */
export const COMMON_LISTS = {
  'yes or no': ['Yes', 'No'],
  agreement: ['Strongly agree', 'Agree', 'Neither agree nor disagree', 'Disagree', 'Strongly disagree'],
  satisfaction: [
    'Very satisfied',
    'Fairly satisfied',
    'Neither satisfied nor dissatisfied',
    'Fairly dissatisfied',
    'Very dissatisfied',
  ],
  frequency: ['Always', 'Often', 'Sometimes', 'Rarely', 'Never'],
  likelihood: ['Very likely', 'Fairly likely', 'Not very likely', 'Not at all likely'],
  importance: ['Very important', 'Fairly important', 'Not very important', 'Not at all important'],
  quality: ['Very good', 'Good', 'Fair', 'Poor', 'Very poor'],
  'how much': ['A great deal', 'A fair amount', 'Not very much', 'Not at all'],
} as const satisfies Readonly<Record<string, readonly string[]>>;
export type CommonList = keyof typeof COMMON_LISTS;

/** Puts a common list in place of the ordinary answers; don't know and the like stay. */
export function withCommonList(place: ItemPlace, list: CommonList): Change {
  return replacing(
    place,
    `Answers: ${list}`,
    COMMON_LISTS[list].map((label, n) => ({ code: n + 1, label })),
  );
}

/** Questions whose answers can be used again, in order. */
export function questionsWithLists(document: Questionnaire, besides: string): Question[] {
  return document.sections.flatMap(({ items }) =>
    items.flatMap((item) =>
      item.kind === 'question' && item.name !== besides && 'options' in item.answer ? [item] : [],
    ),
  );
}

/** The same answers as another question has: words, codes and kinds, but not when each is shown. */
export function withListOf(place: ItemPlace, from: Question): Change {
  const options = optionsOf(from.answer).map(({ askIf: _, ...option }) => option);
  return replacing(place, `Answers as in ${from.name}`, options, true);
}

function replacing(place: ItemPlace, label: string, options: readonly Option[], whole = false): Change {
  const change = editQuestion(place, 'list', label, (draft) => {
    if (!('options' in draft.answer)) return;
    const kept = whole ? [] : draft.answer.options.filter((option) => option.missing !== undefined);
    const codes = new Set(options.map(({ code }) => code));
    draft.answer.options = [...options, ...kept.filter(({ code }) => !codes.has(code))] as Draft<Option>[];
    const has = (code: number) => codes.has(code) || kept.some((option) => option.code === code);
    if (draft.agrees !== undefined) draft.agrees = draft.agrees.filter(has);
    // Shares of answers that are gone, and of new ones, are not known.
    if (draft.assume?.shares !== undefined || draft.assume?.where !== undefined) delete draft.assume;
  });
  return {
    ...change,
    apply(draft) {
      change.apply(draft);
      const item = draft.sections[place.section]?.items[place.item];
      if (item?.kind !== 'question') return;
      for (const set of draft.settings?.forecast?.sets ?? [])
        set.assume = set.assume.filter(({ of }) => of !== item.name);
    },
    telling: true,
  };
}

/** The order of the ordinary answers, with what excludes others and what is missing after them. */
export function orderOptions(place: ItemPlace, how: 'by words' | 'reversed'): Change {
  return editQuestion(place, 'order', `Order the answers ${how}`, (draft) => {
    if (!('options' in draft.answer)) return;
    const ordinary = draft.answer.options.filter((option) => !isLast(option));
    const last = draft.answer.options.filter(isLast);
    if (how === 'reversed') ordinary.reverse();
    else ordinary.sort((a, b) => a.label.localeCompare(b.label));
    draft.answer.options = [...ordinary, ...last];
  });
}

/** Codes 1, 2, 3 … for the ordinary answers in their order; those with a meaning of their own keep theirs. */
export function renumbering(question: Question): Recoding {
  const options = optionsOf(question.answer);
  const kept = new Set(options.filter(isLast).map(({ code }) => code));
  const recoding = new Map<number, number>();
  let next = 1;
  for (const option of options) {
    if (isLast(option)) continue;
    while (kept.has(next)) next += 1;
    recoding.set(option.code, next);
    next += 1;
  }
  return recoding;
}

function isLast(option: { readonly exclusive?: boolean | undefined; readonly missing?: unknown }): boolean {
  return option.exclusive === true || option.missing !== undefined;
}
