/** Where each answer of a question leads, as far as the question alone decides it. */
import { holds, UNASKED, type Environment } from '../condition/evaluate';
import { eachName, type Condition } from '../condition/syntax';
import { hasRows, picksMany, picksOne, ranksOptions } from '../document/answer-types';
import type { Value } from '../document/types';
import type { Plan, PlanItem, PlanSkip } from '../routing/plan';
import { readingOf } from '../routing/readings';
import { targetView, type TargetView } from '../wording/targets';

export interface Lead {
  /** Null: carry on. */
  readonly target: TargetView | null;
  /** Whether other answers decide too. */
  readonly sometimes: boolean;
}

const CARRY_ON: Lead = { target: null, sometimes: false };

/** Where the answer with this code leads. */
export function leadOf(plan: Plan, planItem: PlanItem, code: number): Lead {
  const { item } = planItem;
  if (item.kind !== 'question') return CARRY_ON;
  const value: Value = picksMany(item.answer) || ranksOptions(item.answer) ? [code] : code;
  const reading = readingOf(item.answer, value);
  const own: Environment = {
    read: (name) => (name === item.name.toLowerCase() ? reading : UNASKED),
    pass: null,
    each: null,
    passesOver: () => [],
  };
  for (const skip of planItem.skips) {
    const target = targetView(plan, skip.to);
    if (skip.if === null) return { target, sometimes: false };
    if (!isOnlyAbout(skip.if, item.name)) return { target, sometimes: true };
    if (holds(skip.if, own)) return { target, sometimes: picksMany(item.answer) };
  }
  return CARRY_ON;
}

/** The codes of `planItem`'s options from which a skip leaves; empty where it leaves from the question as a whole. */
export function codesSkipped(planItem: PlanItem, skip: PlanSkip): number[] {
  const { item } = planItem;
  if (skip.if === null || item.kind !== 'question' || !('options' in item.answer) || hasRows(item.answer))
    return [];
  if (!isOnlyAbout(skip.if, item.name)) return [];
  const condition = skip.if;
  return item.answer.options
    .map(({ code }) => code)
    .filter((code) => {
      const value: Value = picksOne(item.answer) ? code : [code];
      const reading = readingOf(item.answer, value);
      return holds(condition, { read: () => reading, pass: null, each: null, passesOver: () => [] });
    });
}

/** Whether a condition reads one question and nothing else. */
export function isOnlyAbout(condition: Condition, name: string): boolean {
  let only = true;
  eachName(condition, (node) => {
    if (node.name.toLowerCase() !== name.toLowerCase()) only = false;
  });
  return only;
}
