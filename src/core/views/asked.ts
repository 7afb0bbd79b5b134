/** Who is asked an item, as far as the document says so itself: its own ask-if, its section's, and skips past it. */
import type { Plan, PlanItem, PlanTarget } from '../routing/plan';
import { printCondition } from '../condition/print';
import type { Condition } from '../condition/syntax';

export interface AskedBy {
  /** Conditions that must hold, outermost first. */
  readonly only: readonly { readonly from: 'section' | 'item'; readonly condition: Condition }[];
  /** Skips from earlier places that lead past the item. */
  readonly passedBy: readonly {
    /** Name of the item, or id of the section at whose end. */
    readonly at: string;
    readonly condition: Condition | null;
  }[];
}

export function askedBy(plan: Plan, planItem: PlanItem): AskedBy {
  const section = plan.sections[planItem.section];
  const only: AskedBy['only'][number][] = [];
  if (section?.gate) only.push({ from: 'section', condition: section.gate });
  if (planItem.askIf) only.push({ from: 'item', condition: planItem.askIf });
  const passedBy: AskedBy['passedBy'][number][] = [];
  for (const earlier of plan.sections.slice(0, planItem.section + 1)) {
    for (const other of earlier.items) {
      const before = earlier.index < planItem.section || other.index < planItem.index;
      if (!before) continue;
      for (const skip of other.skips)
        if (leadsPast(skip.to, planItem)) passedBy.push({ at: other.item.name, condition: skip.if });
    }
    if (earlier.index === planItem.section) continue;
    for (const onward of earlier.onward) {
      if (leadsPast(onward.to, planItem)) passedBy.push({ at: earlier.section.id, condition: onward.if });
    }
  }
  return { only, passedBy };
}

function leadsPast(target: PlanTarget, { section, index }: PlanItem): boolean {
  switch (target.to) {
    case 'ending':
      return true;
    case 'section':
      return target.section > section;
    case 'item':
      return target.section > section || (target.section === section && target.item > index);
    case 'next-pass':
      return false;
    default:
      return target satisfies never;
  }
}

/** Everything that names a variable later on, as `item` names or section ids, in document order. */
export function usedLaterBy(plan: Plan, name: string): string[] {
  const users = new Set<string>();
  const mentions = (condition: Condition | null) =>
    condition !== null && new RegExp(`\\b${name}\\b`, 'i').test(printCondition(condition));
  for (const { section, gate, repeat, items, onward } of plan.sections) {
    if (mentions(gate) || repeat?.driver?.name === name || onward.some((skip) => mentions(skip.if)))
      users.add(section.title);
    for (const { item, askIf, optionIf, rowIf, skips } of items) {
      if (item.name === name) continue;
      const texts = item.kind === 'question' ? [item.text, item.note ?? ''] : [item.text];
      const piped = texts.some((text) => text.includes(`{${name}}`));
      if (piped || [askIf, ...optionIf, ...rowIf, ...skips.map((skip) => skip.if)].some(mentions))
        users.add(item.name);
    }
  }
  for (const { derived, inputs } of plan.derived)
    if (inputs.some(({ variable }) => variable.name === name)) users.add(derived.name);
  return [...users];
}
