/** What paper says in the place of what a screen does: numbers of questions, where to go, how often, for whom. */
import { parseCondition } from '../condition/parse';
import { readAddress } from '../document/addresses';
import { hasRows } from '../document/answer-types';
import { sectionLetter } from '../document/variables';
import type { Plan, PlanSection } from '../routing/plan';
import { conditionSentence } from '../wording/sentence';
import type { TargetView } from '../wording/targets';

/** “go to D1”, “end: Declined”; null where one carries on. */
export function goToWords(
  plan: Plan,
  numbers: ReadonlyMap<string, string>,
  target: TargetView | null,
): string | null {
  if (target === null) return null;
  if (target.ending !== null) return `end: ${target.label}`;
  if (target.anchor === null) return 'next time round';
  const { kind, name } = readAddress(target.anchor);
  if (kind === 'item') return `go to ${numbers.get(name.toLowerCase()) ?? name}`;
  return `go to ${firstNumber(plan, numbers, name) ?? target.label}`;
}

/** “Ask for each of up to 4 children; if none, go to D1.” */
export function repeatWords(
  plan: Plan,
  { index, repeat }: PlanSection,
  numbers: ReadonlyMap<string, string>,
): string {
  const { driver, max = 1, kind } = repeat ?? {};
  const next = plan.sections[index + 1]?.section.id;
  const where =
    next === undefined ? 'end' : `go to ${firstNumber(plan, numbers, next) ?? 'the next section'}`;
  const number = numbers.get(driver?.name.toLowerCase() ?? '');
  const label = driver?.of === 'question' ? (driver.question.label ?? driver.name) : (driver?.name ?? '');
  if (kind === 'each')
    return `Ask for each answer picked at ${number ?? label}, up to ${max}; if none, ${where}.`;
  const which = number === undefined ? '' : ` (${number})`;
  return `Ask for each of up to ${max}, as many as the number of ${label.toLowerCase()}${which}; if none, ${where}.`;
}

/** By lower-case name: section letter and running number of each question; a grid's rows have their question's. */
export function numbersOf({ sections }: Plan): ReadonlyMap<string, string> {
  const numbers = new Map<string, string>();
  for (const { index, items } of sections) {
    let running = 0;
    for (const { item } of items) {
      if (item.kind === 'statement') continue;
      running += 1;
      const number = `${sectionLetter(index)}${running}`;
      numbers.set(item.name.toLowerCase(), number);
      if (hasRows(item.answer))
        for (const { name } of item.answer.rows) numbers.set(name.toLowerCase(), number);
    }
  }
  return numbers;
}

/** The number where somebody who is sent to a section begins; null where it has none. */
export function firstNumber(plan: Plan, numbers: ReadonlyMap<string, string>, id: string): string | null {
  const section = plan.sections.find(({ section: each }) => each.id === id);
  const [first] = section?.items ?? [];
  // A section that begins with a statement is entered there.
  return first === undefined || first.item.kind === 'statement'
    ? section === undefined
      ? null
      : `section ${sectionLetter(section.index)}`
    : (numbers.get(first.item.name.toLowerCase()) ?? null);
}

/** A condition in words; as it is written where it cannot be read. */
export function sentence(plan: Plan, text: string | undefined): string | null {
  if (text === undefined) return null;
  const parsed = parseCondition(text);
  return parsed.ok ? conditionSentence(parsed.tree, plan.variables) : text;
}
