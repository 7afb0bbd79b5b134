/** What has no label, and sensitive questions without a way out. */
import { hasEnds, hasRows, rowsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Question } from '../document/types';
import { OPTIONS_MISSING } from '../document/vocabularies';
import { applyChange } from '../editing/change';
import { editQuestion } from '../editing/structure';
import type { Plan, PlanItem } from '../routing/plan';
import type { DocumentPlace } from '../routing/problems';
import type { Snag } from './types';

export function unlabelled(plan: Plan): Snag[] {
  return [
    ...(plan.document.given ?? []).flatMap((given) => [
      ...note(given.label.trim() === '', { given: given.name }, 'label', 'this given value has no label'),
      ...ofAnswer(given.answer, { given: given.name }),
    ]),
    ...questions(plan).flatMap(({ item }) => ofQuestion(item)),
    ...(plan.document.derived ?? []).flatMap(({ name, label }) =>
      note(label.trim() === '', { derived: name }, 'label', 'this variable has no label for the codebook'),
    ),
  ];
}

/** Questions are never changed in place. */
const ofQuestions = new WeakMap<Question, readonly Snag[]>();

function ofQuestion(item: Question): readonly Snag[] {
  const known = ofQuestions.get(item);
  if (known !== undefined) return known;
  const at = { item: item.name };
  // The variables of a grid are its rows.
  const bare = !hasRows(item.answer) && !item.label?.trim();
  const found = [
    ...note(bare, at, 'label', 'this variable has no label for the codebook'),
    ...ofAnswer(item.answer, at),
  ];
  ofQuestions.set(item, found);
  return found;
}

function ofAnswer(answer: Answer, at: DocumentPlace): Snag[] {
  const ends = hasEnds(answer)
    ? [!answer.lowLabel?.trim() && 'low', !answer.highLabel?.trim() && 'high'].filter(Boolean)
    : [];
  const rows = rowsOf(answer);
  return [
    ...optionsOf(answer).flatMap(({ code, label }) =>
      note(
        label.trim() === '',
        { ...at, option: code },
        'label',
        `the answer with the code ${code} has no label`,
      ),
    ),
    ...note(ends.length > 0, at, 'answer', `the ${ends.join(' and the ')} end of the scale has no label`),
    ...rows.flatMap(({ name, label }) =>
      note(label.trim() === '', { ...at, row: name }, 'label', `the row “${name}” has no label`),
    ),
  ];
}

function note(missing: boolean, at: DocumentPlace, field: string, message: string): Snag[] {
  return missing ? [{ rule: 'unlabelled', severity: 'note', at, field, message }] : [];
}

export function noWayOut(plan: Plan): Snag[] {
  return questions(plan).flatMap(({ item, planItem }): Snag[] => {
    if (item.sensitive !== true || item.required !== true) return [];
    if (
      optionsOf(item.answer).some(({ missing }) => missing !== undefined && OPTIONS_MISSING[missing].wayOut)
    )
      return [];
    const change = editQuestion(
      { section: planItem.section, item: planItem.place },
      'required',
      `Let ${item.name} be left blank`,
      (draft) => {
        delete draft.required;
      },
    );
    return [
      {
        rule: 'no-way-out',
        severity: 'note',
        at: { item: item.name },
        message:
          'a sensitive question that must be answered: offer “don’t know” or “prefer not to say”, or let it be left blank',
        mends: [{ label: change.label, patches: applyChange(plan.document, change).step.forward }],
      },
    ];
  });
}

function questions(plan: Plan): { readonly item: Question; readonly planItem: PlanItem }[] {
  return plan.sections.flatMap(({ items }) =>
    items.flatMap((planItem) =>
      planItem.item.kind === 'question' ? [{ item: planItem.item, planItem }] : [],
    ),
  );
}
