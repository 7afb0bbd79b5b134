/** What reads an answer further on. */
import { printCondition } from '../condition/print';
import type { Condition } from '../condition/syntax';
import { pipedInto, pipedNames, textsOf } from '../routing/pipes';
import type { Plan } from '../routing/plan';

/** Everything that names a variable later on, as `item` names or section ids, in document order. */
export function usedLaterBy(plan: Plan, name: string): string[] {
  const users = new Set<string>();
  const mentions = (condition: Condition | null) =>
    condition !== null && new RegExp(`\\b${name}\\b`, 'i').test(printCondition(condition));
  for (const { section, gate, repeat, items, onward } of plan.sections) {
    const heads = textsOf('section', section).some(({ text }) => pipedNames(text).includes(name));
    if (heads || mentions(gate) || repeat?.driver?.name === name || onward.some((skip) => mentions(skip.if)))
      users.add(section.title);
    for (const { item, askIf, optionIf, rowIf, skips } of items) {
      if (item.name === name) continue;
      if (
        pipedInto(item).includes(name) ||
        [askIf, ...optionIf, ...rowIf, ...skips.map((skip) => skip.if)].some(mentions)
      )
        users.add(item.name);
    }
  }
  for (const { derived, inputs } of plan.derived)
    if (inputs.some(({ variable }) => variable.name === name)) users.add(derived.name);
  return [...users];
}
