/** What has no label, and sensitive questions without a way out. */
import { optionsOf } from '../document/shape';
import type { Answer, Question } from '../document/types';
import type { Plan, PlanItem } from '../routing/plan';
import type { Place } from '../routing/problems';
import { editQuestion } from '../editing/structure';
import { applyChange } from '../editing/change';
import type { Snag } from './types';

export function unlabelled(plan: Plan): Snag[] {
  const snags: Snag[] = [];
  const note = (at: Place, field: string, message: string) =>
    snags.push({ rule: 'unlabelled', severity: 'note', at, field, message });
  const ofAnswer = (answer: Answer, at: Place) => {
    for (const option of optionsOf(answer)) {
      if (option.label.trim() === '')
        note({ ...at, option: option.code }, 'label', `the answer with the code ${option.code} has no label`);
    }
    if (answer.type === 'scale') {
      const ends = [!answer.lowLabel?.trim() && 'low', !answer.highLabel?.trim() && 'high'].filter(Boolean);
      if (ends.length > 0) note(at, 'answer', `the ${ends.join(' and the ')} end of the scale has no label`);
    }
    if (answer.type === 'grid') {
      for (const row of answer.rows)
        if (row.label.trim() === '')
          note({ ...at, row: row.name }, 'label', `the row “${row.name}” has no label`);
    }
  };
  for (const given of plan.document.given ?? []) {
    if (given.label.trim() === '') note({ given: given.name }, 'label', 'this given value has no label');
    ofAnswer(given.answer, { given: given.name });
  }
  for (const { item } of questions(plan)) {
    // The variables of a grid are its rows.
    if (item.answer.type !== 'grid' && !item.label?.trim())
      note({ item: item.name }, 'label', 'this variable has no label for the codebook');
    ofAnswer(item.answer, { item: item.name });
  }
  for (const derived of plan.document.derived ?? [])
    if (derived.label.trim() === '')
      note({ derived: derived.name }, 'label', 'this variable has no label for the codebook');
  return snags;
}

export function noWayOut(plan: Plan): Snag[] {
  return questions(plan).flatMap(({ item, planItem }): Snag[] => {
    if (item.sensitive !== true || item.required !== true) return [];
    if (optionsOf(item.answer).some(({ missing }) => missing === 'dont_know' || missing === 'refused'))
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
