/** The routes on which two versions differ, as lists that can be gone through. */
import { less, type Analysis, type ContentMarkOf, type RoutesLeft } from '../analysis';
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
  const only = (one: Analysis, other: Analysis, marks: readonly [ContentMarkOf, ContentMarkOf]) =>
    one.select({ notIn: [one.version(marks[0]), other.version(marks[1])] });
  const lost = only(first, second, [NAMED, NAMED]);
  const gained = only(second, first, [NAMED, NAMED]);
  // What shows something else is gained, or a route of both on which something is other than it was.
  const otherwise = only(second, first, [shownNow, shown]);
  return {
    lost,
    gained,
    changed: otherwise === null || gained === null ? null : less(otherwise, gained),
  };
}

/** Whatever an item shows, it is the same item. */
const NAMED: ContentMarkOf = {
  item: (name, pass) => `${name} ${pass ?? ''}`,
  ending: (id) => `> ${id}`,
};
