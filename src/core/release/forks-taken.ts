/** What the forks of a questionnaire did to one respondent, told from their walk: the same outcomes that a cover counts. */
import type { ForkEvent } from '../analysis';
import { holds } from '../condition/evaluate';
import type { Plan } from '../routing/plan';
import type { Walk, WalkStep } from '../routing/walk';

/** Of a walk to an ending or not; none stands twice. */
export function forksTaken(plan: Plan, walk: Walk): ForkEvent[] {
  const taken = new Map<string, ForkEvent>();
  const add = (event: ForkEvent) => taken.set(forkKey(event), event);
  const entered = new Set<number>();
  for (const step of walk.steps) {
    entered.add(step.planItem.section);
    for (const event of ofStep(step)) add(event);
  }
  for (const { section, item, why } of walk.passedOver) {
    const planSection = plan.sections[section];
    if (planSection === undefined) continue;
    const { id } = planSection.section;
    if (item === null) {
      if (why.because === 'no-pass') add({ kind: 'pass', section: id, pass: 0 });
      if (planSection.gate !== null)
        add({ kind: 'ask-if', of: { section: id }, holds: why.because !== 'section-ask-if' });
      continue;
    }
    entered.add(section);
    const planItem = planSection.items[item];
    if (planItem?.askIf != null)
      add({ kind: 'ask-if', of: { item: planItem.item.name }, holds: why.because !== 'ask-if' });
  }
  for (const { section, onward } of walk.left) {
    entered.add(section);
    const planSection = plan.sections[section];
    if (planSection !== undefined && planSection.onward.length > 0)
      add({ kind: 'onward', section: planSection.section.id, index: onward?.index ?? -1 });
  }
  for (const index of entered) {
    const { section, gate } = plan.sections[index] as Plan['sections'][number];
    if (gate !== null) add({ kind: 'ask-if', of: { section: section.id }, holds: true });
  }
  for (const [index, passes] of walk.passes) {
    const { section, repeat } = plan.sections[index] as Plan['sections'][number];
    if (repeat === null) continue;
    for (let pass = 1; pass <= passes; pass += 1) add({ kind: 'pass', section: section.id, pass });
  }
  for (const event of ofEnding(plan, walk)) add(event);
  return [...taken.values()];
}

function ofStep({ planItem, shown, departure }: WalkStep): ForkEvent[] {
  const { name } = planItem.item;
  const events: ForkEvent[] = [{ kind: 'presented', item: name }];
  if (planItem.askIf !== null) events.push({ kind: 'ask-if', of: { item: name }, holds: true });
  const part = (what: string, conditions: readonly unknown[], are: readonly boolean[]) =>
    conditions.forEach((condition, index) => {
      if (condition !== null)
        events.push({
          kind: 'ask-if',
          of: { item: name, part: `${what} ${index}` },
          holds: are[index] === true,
        });
    });
  part('option', planItem.optionIf, shown.options);
  part('row', planItem.rowIf, shown.rows);
  if (departure?.by === 'skip') events.push({ kind: 'skip', item: name, index: departure.skip.index });
  else if (departure?.by === 'quota')
    events.push({ kind: 'quota', item: name, index: planItem.quotas.indexOf(departure.quota) });
  else if (departure !== null && planItem.skips.length + planItem.quotas.length > 0)
    events.push({ kind: planItem.skips.length > 0 ? 'skip' : 'quota', item: name, index: -1 });
  return events;
}

function ofEnding(plan: Plan, walk: Walk): ForkEvent[] {
  const ending = walk.ending === null ? undefined : plan.endings[walk.ending];
  if (ending === undefined) return [];
  const { id } = ending.ending;
  const outside = walk.environment(plan.sections.length, null);
  const index = ending.messages.findIndex((message) => message.if === null || holds(message.if, outside));
  const ended: ForkEvent = { kind: 'ending', ending: id };
  return index < 0 ? [ended] : [ended, { kind: 'message', ending: id, index }];
}

/** What an outcome is told by. */
export function forkKey(event: ForkEvent): string {
  return event.kind === 'ask-if' ? JSON.stringify([event.of, event.holds]) : JSON.stringify(event);
}

/** Of the passes of a section none at all and the last, as a cover counts them; all else as it is. */
export function countedForks(events: Iterable<ForkEvent>): ForkEvent[] {
  const all = [...new Map([...events].map((event) => [forkKey(event), event])).values()];
  const last = new Map<string, number>();
  for (const event of all)
    if (event.kind === 'pass') last.set(event.section, Math.max(event.pass, last.get(event.section) ?? 0));
  return all.filter(
    (event) => event.kind !== 'pass' || event.pass === 0 || last.get(event.section) === event.pass,
  );
}
