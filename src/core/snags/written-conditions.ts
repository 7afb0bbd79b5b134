/** Every condition of a questionnaire that can be read, with where it is written. */
import type { Condition } from '../condition/syntax';
import { optionsOf } from '../document/shape';
import type { Plan, PlanItem } from '../routing/plan';
import type { Place } from '../routing/problems';

export interface WrittenCondition {
  readonly at: Place;
  readonly field: string;
  readonly condition: Condition;
  /** Decides who is asked what, or where somebody goes. */
  readonly steers: boolean;
}

export function writtenConditions(plan: Plan): WrittenCondition[] {
  const found: WrittenCondition[] = [];
  const add = (at: Place, field: string, condition: Condition | null, steers = true) => {
    if (condition !== null) found.push({ at, field, condition, steers });
  };
  for (const { section, gate, items, onward } of plan.sections) {
    add({ section: section.id }, 'askIf', gate);
    for (const planItem of items) ofItem(planItem, add);
    for (const skip of onward) add({ section: section.id, onward: skip.index }, 'if', skip.if);
  }
  for (const { items } of plan.sections) {
    for (const { quotas } of items) for (const quota of quotas) add({ quota: quota.id }, 'if', quota.if);
  }
  for (const { derived, cases } of plan.derived)
    cases?.forEach((entry, n) => add({ derived: derived.name }, `cases[${n}].if`, entry.if, false));
  for (const { ending, messages } of plan.endings)
    messages.forEach((message, n) => add({ ending: ending.id }, `messages[${n}].if`, message.if, false));
  return found;
}

function ofItem(
  { item, askIf, optionIf, rowIf, checks, skips }: PlanItem,
  add: (at: Place, field: string, condition: Condition | null, steers?: boolean) => void,
): void {
  const at = { item: item.name };
  add(at, 'askIf', askIf);
  if (item.kind === 'question') {
    const options = optionsOf(item.answer);
    optionIf.forEach((condition, o) => add({ ...at, option: options[o]?.code ?? 0 }, 'askIf', condition));
    const rows = item.answer.type === 'grid' ? item.answer.rows : [];
    rowIf.forEach((condition, r) => add({ ...at, row: rows[r]?.name ?? '' }, 'askIf', condition));
    checks.forEach((check, c) => add(at, `checks[${c}].if`, check.if, false));
  }
  for (const skip of skips) add({ ...at, skip: skip.index }, 'if', skip.if);
}
