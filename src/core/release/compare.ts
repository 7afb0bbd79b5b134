/**
 * Two versions of a questionnaire held against each other: which routes are lost, gained and changed, who is asked what,
 * and what of items, words, codes, conditions and endings is other than it was. What breaks a series of data is told apart.
 */
import { DEFAULT_CAPS, itemSharesOf, jointly, type Caps } from '../analysis';
import type { Questionnaire } from '../document/types';
import type { Plan } from '../routing/plan';
import { planOf } from '../routing/planner';
import { answeredAs } from './aligned';
import { baseChanges, type BaseChange } from './base-changes';
import { seriesBreaks, type SeriesBreak } from './breaks';
import { codeChanges, type CodeChange } from './code-changes';
import { differingRoutes, type DifferingRoutes } from './differing-routes';
import type { ItemMatching } from './matching';
import { shownOf } from './shown';
import { textChanges, type TextChange } from './text-changes';
import { versionsOf, type Versions } from './versions';

export interface RoutesCompared {
  readonly old: bigint;
  readonly now: bigint;
  /** Of the old version: no route of the new one presents the same items and ends alike. Null: too entangled to tell. */
  readonly lost: bigint | null;
  readonly gained: bigint | null;
  /** On which the same is presented, and something of it is worded, coded or answered otherwise. */
  readonly changed: bigint | null;
  /** Of the sample of the new version, from 0 to 1, who meets a difference; null where that is not known exactly. */
  readonly share: number | null;
  /** Both versions were counted exactly. */
  readonly exact: boolean;
}

export interface Comparison {
  readonly routes: RoutesCompared;
  readonly bases: readonly BaseChange[];
  readonly items: Omit<ItemMatching, 'byOld'>;
  readonly words: readonly TextChange[];
  readonly codes: readonly CodeChange[];
  readonly conditions: readonly TextChange[];
  readonly endings: { readonly added: readonly string[]; readonly gone: readonly string[] };
  readonly breaks: readonly SeriesBreak[];
}

/** Both must be of sound shape; what is broken in one is taken as it is walked. */
export function compareVersions(
  old: Questionnaire,
  now: Questionnaire,
  caps: Caps = DEFAULT_CAPS,
): Comparison {
  const versions = versionsOf(old, now, caps);
  return compareThese(versions, differingRoutes(versions), caps);
}

/** The same of versions that are counted already. */
export function compareThese(
  versions: Versions,
  routes: DifferingRoutes,
  caps: Caps = DEFAULT_CAPS,
): Comparison {
  const { old, now, matching, renamed, before, after, first, second } = versions;
  const otherwise = shownOtherwise(before, after, matching);
  const joint = jointly(planOf(answeredAs(renamed, now)), after, otherwise, caps);
  const { byOld: _byOld, ...items } = matching;
  const bases = baseChanges(versions, joint?.otherBases ?? null, (plan, names) =>
    itemSharesOf(plan, names, caps),
  );
  const texts = textChanges(renamed, now);
  const codes = codeChanges(renamed, now);
  const [ids, idsNow] = [old, now].map(({ endings }) => endings.map(({ id }) => id));
  return {
    routes: {
      old: first.routes,
      now: second.routes,
      lost: routes.lost?.total ?? null,
      gained: routes.gained?.total ?? null,
      changed: routes.changed?.total ?? null,
      share: joint?.share ?? null,
      exact: first.exact && second.exact,
    },
    bases,
    items,
    words: texts.words,
    codes,
    conditions: texts.conditions,
    endings: {
      added: (idsNow ?? []).filter((id) => !ids?.includes(id)),
      gone: (ids ?? []).filter((id) => !idsNow?.includes(id)),
    },
    breaks: seriesBreaks(renamed, now, bases, codes),
  };
}

/** Whether any route of one is not a route of the other just so; also where that could not be told. */
export function routesDiffer({ routes }: Comparison): boolean {
  return [routes.lost, routes.gained, routes.changed].some((count) => count !== 0n);
}

/** Items and endings of which something else is shown, and items that come in another order. */
function shownOtherwise(before: Plan, after: Plan, { moved }: ItemMatching) {
  const [shown, shownNow] = [shownOf(before), shownOf(after)];
  const names = after.sections.flatMap(({ items }) => items.map(({ item }) => item.name));
  return {
    items: new Set([
      ...names.filter((name) => shown.item(name, null) !== shownNow.item(name, null)),
      ...moved,
    ]),
    endings: new Set(
      after.endings.map(({ ending }) => ending.id).filter((id) => shown.ending(id) !== shownNow.ending(id)),
    ),
  };
}
