/** What interviews cost of everybody's time: by item, by section and in all. */
import { secondsByName } from '../routing/burden';
import type { Plan } from '../routing/plan';
import type { Expected } from './forecast';

export interface ItemCost {
  readonly name: string;
  /** Each time it is presented. */
  readonly seconds: number;
  readonly hours: number;
}

export interface Costs {
  /** The dearest first. */
  readonly items: readonly ItemCost[];
  readonly sections: readonly { readonly id: string; readonly title: string; readonly hours: number }[];
  readonly hours: number;
}

/** Of so many who start; `expected`: every item, and every pass of a repeated one, as a forecast has them. */
export function costs(plan: Plan, expected: readonly Expected[], starts: number): Costs {
  const seconds = secondsByName(plan);
  const times = new Map<string, number>();
  const passes = new Map<string, number>();
  for (const { group, share } of expected) {
    if (!('item' in group)) continue;
    if (group.pass === null) times.set(group.item, share);
    else passes.set(group.item, (passes.get(group.item) ?? 0) + share);
  }
  const hoursOf = (name: string) =>
    ((passes.get(name) ?? times.get(name) ?? 0) * starts * seconds(name)) / 3600;
  const items = plan.sections.flatMap(({ items: own }) =>
    own.map(({ item: { name } }) => ({ name, seconds: seconds(name), hours: hoursOf(name) })),
  );
  return {
    items: items.toSorted((a, b) => b.hours - a.hours),
    sections: plan.sections.map(({ section, items: own }) => ({
      id: section.id,
      title: section.title,
      hours: own.reduce((sum, { item }) => sum + hoursOf(item.name), 0),
    })),
    hours: items.reduce((sum, { hours }) => sum + hours, 0),
  };
}
