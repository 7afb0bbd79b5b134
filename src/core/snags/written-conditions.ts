/** Every condition of a questionnaire that can be read, with where it is written. */
import type { Condition } from '../condition/syntax';
import { rowsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Plan, PlanItem, PlanSection } from '../routing/plan';
import type { DocumentPlace } from '../routing/problems';

export interface WrittenCondition {
  readonly at: DocumentPlace;
  readonly field: string;
  readonly condition: Condition;
  /** Decides who is asked what, or where somebody goes. */
  readonly steers: boolean;
}

/** Plans are never changed in place, and sections that an edit leaves alone stay planned as they are. */
const ofPlans = new WeakMap<Plan, readonly WrittenCondition[]>();
const ofSections = new WeakMap<PlanSection, readonly WrittenCondition[]>();

/** In document order; those with a problem are left out. Kept as long as the plan, or its section, is. */
export function writtenConditions(plan: Plan): readonly WrittenCondition[] {
  return once(ofPlans, plan, () => [
    ...plan.sections.flatMap((section) => once(ofSections, section, () => ofSection(section))),
    ...plan.sections.flatMap(({ items }) =>
      items.flatMap(({ quotas }) =>
        quotas.flatMap(({ id, if: condition }) => written({ quota: id }, 'if', condition)),
      ),
    ),
    ...plan.derived.flatMap(({ derived, cases }) =>
      (cases ?? []).flatMap((entry, n) =>
        written({ derived: derived.name }, `cases[${n}].if`, entry.if, false),
      ),
    ),
    ...plan.endings.flatMap(({ ending, messages }) =>
      messages.flatMap((message, n) =>
        written({ ending: ending.id }, `messages[${n}].if`, message.if, false),
      ),
    ),
  ]);
}

function once<Key extends object, Value>(known: WeakMap<Key, Value>, key: Key, make: () => Value): Value {
  const before = known.get(key);
  if (before !== undefined) return before;
  const made = make();
  known.set(key, made);
  return made;
}

function written(
  at: DocumentPlace,
  field: string,
  condition: Condition | null,
  steers = true,
): WrittenCondition[] {
  return condition === null ? [] : [{ at, field, condition, steers }];
}

function ofSection({ section, gate, items, onward }: PlanSection): WrittenCondition[] {
  return [
    ...written({ section: section.id }, 'askIf', gate),
    ...items.flatMap(ofItem),
    ...onward.flatMap((skip) => written({ section: section.id, onward: skip.index }, 'if', skip.if)),
  ];
}

function ofItem({ item, askIf, optionIf, rowIf, checks, assumedIf, skips }: PlanItem): WrittenCondition[] {
  const at = { item: item.name };
  const options = item.kind === 'question' ? optionsOf(item.answer) : [];
  const rows = item.kind === 'question' ? rowsOf(item.answer) : [];
  return [
    ...written(at, 'askIf', askIf),
    ...optionIf.flatMap((condition, o) =>
      written({ ...at, option: options[o]?.code ?? 0 }, 'askIf', condition),
    ),
    ...rowIf.flatMap((condition, r) => written({ ...at, row: rows[r]?.name ?? '' }, 'askIf', condition)),
    ...checks.flatMap((check, c) => written(at, `checks[${c}].if`, check.if, false)),
    ...assumedIf.flatMap((condition, n) => written(at, `assume.where[${n}].if`, condition, false)),
    ...skips.flatMap((skip) => written({ ...at, skip: skip.index }, 'if', skip.if)),
  ];
}
