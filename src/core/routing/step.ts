/**
 * One step of a walk: from a place in the questionnaire to the next item presented, and on from there.
 *
 * Implements the walking rules literally and knows nothing of where answers come from; both the walk of one
 * respondent and the listing of routes are built on it.
 */
import { holds, type Environment } from '../condition/evaluate';
import type { Condition } from '../condition/syntax';
import { picksMany } from '../document/answer-types';
import { canBeAnswered, type ShownParts } from './answers';
import type { Plan, PlanItem, PlanQuota, PlanRepeat, PlanSection, PlanSkip, PlanTarget } from './plan';

/** Where a walk stands: entering a section (at an item of it), about to come to an item, or at an ending. */
export type Cursor =
  | { readonly at: 'enter'; readonly section: number; readonly item: number }
  | { readonly at: 'item'; readonly section: number; readonly pass: number; readonly item: number }
  | { readonly at: 'ending'; readonly ending: number };

export const START: Cursor = { at: 'enter', section: 0, item: 0 };

/** Why an item, or a whole section, was passed over without being presented. */
export type PassedOver =
  | { readonly because: 'ask-if'; readonly condition: Condition }
  | { readonly because: 'not-drawn' }
  | { readonly because: 'nothing-shown' }
  | { readonly because: 'section-ask-if'; readonly condition: Condition }
  | { readonly because: 'no-pass' };

export interface Surroundings {
  /** What conditions see in `section`, in its current pass; `pass` null for conditions as from outside. */
  environment(section: number, pass: number | null): Environment;
  /** Indices of the plan items drawn in this pass of a section that draws. */
  drawn(section: number, pass: number): ReadonlySet<number>;
  /** Told when a pass of a section is begun. */
  beginPass?(section: number, pass: number): void;
  /** Told when somebody gets past a section's last item, with the onward that takes them on; null for none. */
  leaveSection?(section: number, onward: PlanSkip | null): void;
  /** Told of what is passed over on the way. A section: `item` null. */
  passedOver?(section: number, pass: number | null, item: number | null, why: PassedOver): void;
}

/** An item about to be presented. */
export interface Arrival {
  readonly planItem: PlanItem;
  /** Null outside a repeated section. */
  readonly pass: number | null;
  readonly shown: ShownParts;
}

/** How many passes a repeated section has now, and for `each` the code of every pass. */
export function passesOf(
  repeat: PlanRepeat,
  environment: Environment,
): { count: number; codes: readonly number[] } {
  const { driver } = repeat;
  if (driver === null) return { count: 0, codes: [] };
  const { value, missing } = environment.read(driver.name.toLowerCase());
  if (value === null || missing) return { count: 0, codes: [] };
  if (repeat.kind === 'times') {
    const times = typeof value === 'number' ? Math.max(0, Math.trunc(value)) : 0;
    return { count: Math.min(times, repeat.max), codes: [] };
  }
  const answer =
    driver.of === 'question' ? driver.question.answer : driver.of === 'given' ? driver.given.answer : null;
  const options = picksMany(answer) ? answer.options : [];
  const picked = Array.isArray(value) ? (value as readonly number[]) : [];
  const codes = options
    .filter((option) => !option.exclusive && option.missing === undefined && picked.includes(option.code))
    .map((option) => option.code)
    .slice(0, repeat.max);
  return { count: codes.length, codes };
}

/** Moves on silently from `cursor` to the next item that is presented, or to an ending. */
export function arrive(
  plan: Plan,
  cursor: Cursor,
  around: Surroundings,
): Arrival | { readonly ending: number } {
  let at = cursor;
  for (;;) {
    const moved = move(plan, at, around);
    if (!('at' in moved)) return moved;
    at = moved;
  }
}

/** One silent move: the next cursor, or the arrival at an item or ending. */
export function move(
  plan: Plan,
  at: Cursor,
  around: Surroundings,
): Cursor | Arrival | { readonly ending: number } {
  switch (at.at) {
    case 'ending':
      return { ending: at.ending };
    case 'enter':
      return enter(plan, at, around);
    case 'item': {
      const section = plan.sections[at.section] as PlanSection;
      const planItem = section.items[at.item];
      if (planItem === undefined) return pastEnd(plan, section, at.pass, around);
      return meet(section, planItem, at.pass, around) ?? { ...at, item: at.item + 1 };
    }
    default:
      return at satisfies never;
  }
}

function enter(plan: Plan, cursor: Cursor & { at: 'enter' }, around: Surroundings): Cursor {
  const section = plan.sections[cursor.section];
  if (section === undefined) return { at: 'ending', ending: plan.lastEnding };
  const outside = around.environment(section.index, null);
  const next: Cursor = { at: 'enter', section: cursor.section + 1, item: 0 };
  if (section.gate !== null && !holds(section.gate, outside)) {
    around.passedOver?.(section.index, null, null, { because: 'section-ask-if', condition: section.gate });
    return next;
  }
  if (section.repeat !== null && passesOf(section.repeat, outside).count === 0) {
    around.passedOver?.(section.index, null, null, { because: 'no-pass' });
    return next;
  }
  around.beginPass?.(section.index, 1);
  return { at: 'item', section: cursor.section, pass: 1, item: cursor.item };
}

/** The arrival where the item is presented; null where it is passed over. */
function meet(section: PlanSection, planItem: PlanItem, pass: number, around: Surroundings): Arrival | null {
  const openPass = section.repeat === null ? null : pass;
  const over = (why: PassedOver) => {
    around.passedOver?.(section.index, openPass, planItem.index, why);
    return null;
  };
  const { item } = planItem;
  if (section.section.draw !== undefined && item.kind === 'question') {
    if (!around.drawn(section.index, pass).has(planItem.index)) return over({ because: 'not-drawn' });
  }
  const environment = around.environment(section.index, openPass);
  if (planItem.askIf !== null && !holds(planItem.askIf, environment)) {
    return over({ because: 'ask-if', condition: planItem.askIf });
  }
  const shown = shownOf(planItem, environment);
  if (item.kind === 'question' && !canBeAnswered(item, shown)) return over({ because: 'nothing-shown' });
  return { planItem, pass: openPass, shown };
}

/** Parallel to the options and rows of the item. */
export function shownOf(planItem: PlanItem, environment: Environment): ShownParts {
  const show = (condition: Condition | null) => condition === null || holds(condition, environment);
  return { options: planItem.optionIf.map(show), rows: planItem.rowIf.map(show) };
}

/** Past a pass's last item: the next pass, or where the section's end leads. */
function pastEnd(plan: Plan, section: PlanSection, pass: number, around: Surroundings): Cursor {
  const outside = around.environment(section.index, null);
  if (section.repeat !== null && pass < passesOf(section.repeat, outside).count) {
    around.beginPass?.(section.index, pass + 1);
    return { at: 'item', section: section.index, pass: pass + 1, item: 0 };
  }
  const taken = firstThatHolds(section.onward, outside);
  around.leaveSection?.(section.index, taken);
  return taken === null
    ? { at: 'enter', section: section.index + 1, item: 0 }
    : aim(plan, taken.to, section, pass, around);
}

function firstThatHolds(skips: readonly PlanSkip[], environment: Environment): PlanSkip | null {
  return skips.find((skip) => skip.if === null || holds(skip.if, environment)) ?? null;
}

function aim(plan: Plan, target: PlanTarget, from: PlanSection, pass: number, around: Surroundings): Cursor {
  switch (target.to) {
    case 'ending':
      return { at: 'ending', ending: target.ending };
    case 'section':
      return { at: 'enter', section: target.section, item: 0 };
    case 'item':
      return target.section === from.index
        ? { at: 'item', section: from.index, pass, item: target.item }
        : { at: 'enter', section: target.section, item: target.item };
    case 'next-pass':
      return pastEnd(plan, from, pass, around);
    default:
      return target satisfies never;
  }
}

/** What took a respondent on from an item. */
export type Departure =
  | { readonly by: 'carry-on' }
  | { readonly by: 'skip'; readonly skip: PlanSkip }
  | { readonly by: 'quota'; readonly quota: PlanQuota }
  /** The time of the section ran out: on from its end. */
  | { readonly by: 'time-out' };

/** Where an item that was presented and answered leads: full quotas first, then skips, then the next item. */
export function depart(
  plan: Plan,
  arrival: Arrival,
  around: Surroundings,
  isFull: (quota: string) => boolean,
): { readonly cursor: Cursor; readonly departure: Departure } {
  const { planItem, pass } = arrival;
  const section = plan.sections[planItem.section] as PlanSection;
  const environment = around.environment(section.index, pass);
  const quota = planItem.quotas.find(({ id, if: condition }) => holds(condition, environment) && isFull(id));
  if (quota !== undefined) {
    return { cursor: aim(plan, quota.to, section, pass ?? 1, around), departure: { by: 'quota', quota } };
  }
  const skip = firstThatHolds(planItem.skips, environment);
  if (skip !== null) {
    return { cursor: aim(plan, skip.to, section, pass ?? 1, around), departure: { by: 'skip', skip } };
  }
  const cursor: Cursor = { at: 'item', section: section.index, pass: pass ?? 1, item: planItem.index + 1 };
  return { cursor, departure: { by: 'carry-on' } };
}

/** Past the last item of the section, whose time has run out; of a repeated one, of this pass. */
export function timeOut(plan: Plan, { planItem, pass }: Arrival): { cursor: Cursor; departure: Departure } {
  const item = plan.sections[planItem.section]?.items.length ?? 0;
  const cursor: Cursor = { at: 'item', section: planItem.section, pass: pass ?? 1, item };
  return { cursor, departure: { by: 'time-out' } };
}
