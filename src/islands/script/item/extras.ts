/** What an item can have besides its words and answers, and what each of it is called. */
import type { Question, RoutedItem } from '../../../core/document/types';
import type { ItemPlace } from '../../../core/editing/structure';
import type { Plan } from '../../../core/routing/plan';

/** Properties that are texts, with what they are called and what shows before one is written. */
export const TEXTS = {
  note: ['help under the question', 'Help under the question'],
  instruction: [
    'an instruction for the interviewer',
    'What the interviewer does, never shown to respondents',
  ],
  label: ['a short label', 'A short label for the codebook'],
  requiredMessage: ['words for an answer left out', 'Please answer this question.'],
  limitMessage: ['words for an answer beyond the limits', 'Please give a number between … and …'],
  comment: ['a free remark beside it', 'Label of the remark: Anything to add?'],
} as const;
export type TextKey = keyof typeof TEXTS;

/** What can be added, by what it is called. */
export type Addable =
  TextKey | 'sensitive' | 'agrees' | 'measure' | 'seconds' | 'image' | 'checks' | 'missingCodes' | 'assume';

export const ADDED: Readonly<Record<Exclude<Addable, TextKey>, string>> = {
  checks: 'a check of the answer',
  image: 'a picture',
  agrees: 'the answers that give consent',
  sensitive: 'a note that it is sensitive',
  measure: 'the level of measurement',
  missingCodes: 'missing codes of its own',
  seconds: 'the seconds it takes',
  assume: 'assumed answers',
};

/** What stands before a text on the sheet. */
export const SHORT: Readonly<Record<TextKey, string>> = {
  note: 'help',
  instruction: 'interviewer',
  label: 'label',
  requiredMessage: 'if left out',
  limitMessage: 'if beyond',
  comment: 'remark',
};

/** What an item does not have yet and could. */
export function addable(plan: Plan, item: RoutedItem, place: ItemPlace): Addable[] {
  const has = item as Partial<Question>;
  const all: Addable[] =
    item.kind === 'statement'
      ? ['instruction', 'image', 'seconds']
      : [
          'note',
          ...(item.required ? (['requiredMessage'] as const) : []),
          ...('min' in item.answer || 'minLength' in item.answer ? (['limitMessage'] as const) : []),
          'checks',
          'image',
          ...(plan.document.sections[place.section]?.kind === 'consent' && 'options' in item.answer
            ? (['agrees'] as const)
            : []),
          'instruction',
          'comment',
          'label',
          'sensitive',
          'measure',
          'missingCodes',
          'assume',
          'seconds',
        ];
  return all.filter((key) => key === 'checks' || has[key] === undefined);
}
