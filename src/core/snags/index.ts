/**
 * All checks of a questionnaire, in document order.
 *
 * So far those that need no analysis of routes: names, targets, conditions, codes.
 */
import type { Questionnaire } from '../document/types';
import type { Plan } from '../routing/plan';
import type { Place } from '../routing/problems';
import { duplicateNames } from './duplicate-names';
import { repeatedCodes } from './repeated-codes';
import type { Snag } from './types';

export type { Severity, Snag, SnagRule } from './types';

export function snagsOf(plan: Plan): Snag[] {
  const fromPlan: Snag[] = plan.problems.map(({ rule, at, field, message, span }) => ({
    rule,
    severity: 'error',
    at,
    field,
    message,
    ...(span === undefined ? {} : { span }),
  }));
  const order = documentOrder(plan.document);
  return [...fromPlan, ...duplicateNames(plan), ...repeatedCodes(plan.document)]
    .map((snag, index) => ({ snag, index, rank: order(snag.at) }))
    .sort((a, b) => a.rank - b.rank || a.index - b.index)
    .map(({ snag }) => snag);
}

/** Whether results over this plan are provisional: some rule of the error kind is broken. */
export function isProvisional(snags: readonly Snag[]): boolean {
  return snags.some(({ severity }) => severity === 'error');
}

function documentOrder(document: Questionnaire): (at: Place) => number {
  const rank = new Map<string, number>();
  const add = (key: string) => {
    if (!rank.has(key)) rank.set(key, rank.size);
  };
  for (const { name } of document.given ?? []) add(`given ${name}`);
  for (const { id } of document.quotas ?? []) add(`quota ${id}`);
  for (const section of document.sections) {
    add(`section ${section.id}`);
    for (const item of section.items) if (item.kind !== 'page_break') add(`item ${item.name}`);
    add(`onward ${section.id}`);
  }
  for (const { name } of document.derived ?? []) add(`derived ${name}`);
  for (const { id } of document.endings) add(`ending ${id}`);
  return (at) => {
    const key =
      at.item !== undefined
        ? `item ${at.item}`
        : at.onward !== undefined
          ? `onward ${at.section}`
          : (Object.entries(at) as [string, string][]).map(([kind, id]) => `${kind} ${id}`)[0];
    return rank.get(key ?? '') ?? 0;
  };
}
