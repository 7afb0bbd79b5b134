/**
 * The same question on routes that exclude each other, or would if one branch did not fall through into the other:
 * its answers land in two columns instead of one.
 */
import { FALSE } from '../analysis';
import { rowsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Question } from '../document/types';
import type { PlanItem } from '../routing/plan';
import type { CheckContext } from './check-context';
import { fallsThrough } from './falls-through';
import type { Snag } from './types';

export function askedTwice(context: CheckContext): Snag[] {
  const { flow } = context;
  const fallen = fallsThrough(context).map(({ at }) =>
    context.plan.sections.findIndex(({ section }) => section.id === at.section),
  );
  const apart = (one: PlanItem, other: PlanItem) =>
    (one.section !== other.section && fallen.includes(one.section)) || exclude(context, one, other);
  const alike = new Map<string, PlanItem[]>();
  for (const planItem of context.items) {
    if (planItem.item.kind !== 'question') continue;
    const key = looks(planItem.item);
    alike.set(key, [...(alike.get(key) ?? []), planItem]);
  }
  return [...alike.values()].flatMap((group) =>
    group.flatMap((planItem, n): Snag[] => {
      const presented = (of: PlanItem) => context.placesOf(of).some((at) => flow.presentedAt(at) !== FALSE);
      const earlier = group
        .slice(0, n)
        .find((other) => presented(other) && presented(planItem) && apart(other, planItem));
      if (earlier === undefined) return [];
      const [at = 0] = context.placesOf(planItem);
      return [
        {
          rule: 'asked-twice',
          severity: 'note',
          at: { item: planItem.item.name },
          message: `the same question with the same answers as “${earlier.item.name}”, on routes that are meant to exclude each other: ask it once, where the branches meet again, so that the answers land in one column`,
          ...context.witness(at, flow.presentedAt(at)),
        },
      ];
    }),
  );
}

/** What a question looks like, whatever it is called. */
function looks({ text, answer }: Question): string {
  const plain = (words: string) => words.toLowerCase().replace(/\s+/g, ' ').trim();
  const options = optionsOf(answer).map(({ code, label }) => `${code} ${plain(label)}`);
  const rows = rowsOf(answer).map(({ label }) => plain(label));
  const limits = 'min' in answer ? [String(answer.min), String(answer.max)] : [];
  return JSON.stringify([plain(text), answer.type, options, rows, limits]);
}

/** Nobody who is presented the earlier one is presented the later one. */
function exclude(context: CheckContext, earlier: PlanItem, later: PlanItem): boolean {
  const { flow } = context;
  const places = context.placesOf(later);
  const last = Math.max(...places);
  return context.placesOf(earlier).every((at) => {
    const reached = flow.spread(at, flow.answersAt(at), (place) => place > last);
    return places.every(
      (place) => place <= at || flow.presentedAt(place, reached.get(place) ?? FALSE) === FALSE,
    );
  });
}
