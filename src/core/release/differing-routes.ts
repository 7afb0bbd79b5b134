/** The routes on which two versions differ, as lists that can be gone through. */
import {
  less,
  RouteContents,
  type Analysis,
  type ContentMarkOf,
  type RoutesLeft,
  type RouteVersion,
} from '../analysis';
import type { Plan } from '../routing/plan';
import { shownOf } from './shown';
import type { VersionsCounted } from './versions';

/**
 * `lost`: of the old version, where no route of the new one presents the same items and ends alike. `gained`: of the new
 * one, likewise. `changed`: of the new one, where the old one has it and something on it is worded, coded or answered
 * otherwise.
 */
export const DIFFERING = ['lost', 'gained', 'changed'] as const;
export type Differing = (typeof DIFFERING)[number];

/** Each in canonical order; null where it is too entangled to tell. */
export type DifferingRoutes = Readonly<Record<Differing, RoutesLeft | null>>;

export function differingRoutes({ before, after, first, second }: VersionsCounted): DifferingRoutes {
  const [shown, shownNow] = [shownOf(before), shownOf(after)];
  const contents = new RouteContents();
  const only = (one: Analysis, own: RouteVersion, other: RouteVersion) =>
    one.select({ notIn: [own, other, contents] });
  const [named, namedNow] = [first.version(NAMED), second.version(NAMED)];
  const lost = only(first, named, namedNow);
  const gained = only(second, namedNow, named);
  // What shows something else is gained, or a route of both on which something is other than it was.
  const otherwise = showAlike(before, after, shown, shownNow)
    ? gained
    : only(second, second.version(shownNow), first.version(shown));
  return {
    lost,
    gained,
    changed: otherwise === null || gained === null ? null : less(otherwise, gained),
  };
}

/** Whether all that both versions have shows the same in both. */
function showAlike(before: Plan, after: Plan, shown: ContentMarkOf, shownNow: ContentMarkOf): boolean {
  const names = new Set(before.sections.flatMap(({ items }) => items.map(({ item }) => item.name)));
  const endings = new Set(before.endings.map(({ ending }) => ending.id));
  return (
    after.sections.every(({ items }) =>
      items.every(
        ({ item: { name } }) => !names.has(name) || shown.item(name, null) === shownNow.item(name, null),
      ),
    ) &&
    after.endings.every(({ ending: { id } }) => !endings.has(id) || shown.ending(id) === shownNow.ending(id))
  );
}

/** Whatever an item shows, it is the same item. */
const NAMED: ContentMarkOf = {
  item: (name, pass) => `${name} ${pass ?? ''}`,
  ending: (id) => `> ${id}`,
};
