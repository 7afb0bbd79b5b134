/** What the forks of a questionnaire did to one respondent, told from their walk alone. */
import { holds } from '../../src/core/condition/evaluate';
import type { Plan } from '../../src/core/routing/plan';
import type { Walk } from '../../src/core/routing/walk';

/** One text for each outcome; `pass ID n` for each pass begun, with n 0 where there is none to run. */
export function forksMet(plan: Plan, walk: Walk): Set<string> {
  const met = new Set<string>();
  const sectionsEntered = new Set<number>();
  for (const { planItem, shown, departure } of walk.steps) {
    const { name } = planItem.item;
    sectionsEntered.add(planItem.section);
    met.add(`presented ${name}`);
    if (planItem.askIf !== null) met.add(`${name} ask-if true`);
    for (const [what, conditions, are] of [
      ['option', planItem.optionIf, shown.options],
      ['row', planItem.rowIf, shown.rows],
    ] as const) {
      conditions.forEach((condition, index) => {
        if (condition !== null) met.add(`${name} ${what} ${index} ${are[index]}`);
      });
    }
    if (departure?.by === 'skip') met.add(`${name} skip ${departure.skip.index}`);
    if (departure?.by === 'quota') met.add(`${name} quota ${departure.quota.id}`);
    if (departure?.by === 'carry-on' && planItem.skips.length + planItem.quotas.length > 0)
      met.add(`${name} carries on`);
  }
  for (const { section, item, why } of walk.passedOver) {
    const of = plan.sections[section];
    if (item === null) {
      if (why.because === 'no-pass') met.add(`pass ${section} 0`);
      if (why.because === 'section-ask-if') met.add(`section ${section} ask-if false`);
      else if (of?.gate) met.add(`section ${section} ask-if true`);
      continue;
    }
    sectionsEntered.add(section);
    const planItem = of?.items[item];
    if (planItem?.askIf == null) continue;
    met.add(`${planItem.item.name} ask-if ${why.because !== 'ask-if'}`);
  }
  for (const { section, onward } of walk.left) {
    sectionsEntered.add(section);
    if ((plan.sections[section]?.onward.length ?? 0) > 0)
      met.add(`onward ${section} ${onward?.index ?? 'default'}`);
  }
  for (const section of sectionsEntered) {
    if (plan.sections[section]?.gate) met.add(`section ${section} ask-if true`);
  }
  for (const [section, passes] of walk.passes) {
    if (plan.sections[section]?.repeat == null) continue;
    for (let pass = 1; pass <= passes; pass += 1) met.add(`pass ${section} ${pass}`);
  }
  if (walk.ending !== null) {
    const ending = plan.endings[walk.ending];
    met.add(`ending ${walk.ending}`);
    const outside = walk.environment(plan.sections.length, null);
    const message = ending?.messages.findIndex((m) => m.if === null || holds(m.if, outside)) ?? -1;
    if (message >= 0) met.add(`message ${walk.ending} ${message}`);
  }
  return met;
}

/** Of the passes of each section none at all and the last. */
export function withLastPasses(met: ReadonlySet<string>): Set<string> {
  const last = new Map<string, number>();
  const rest = new Set<string>();
  for (const outcome of met) {
    const [, section, pass] = /^pass (\d+) (\d+)$/.exec(outcome) ?? [];
    if (section === undefined || pass === '0') rest.add(outcome);
    else last.set(section, Math.max(Number(pass), last.get(section) ?? 0));
  }
  for (const [section, pass] of last) rest.add(`pass ${section} ${pass}`);
  return rest;
}
