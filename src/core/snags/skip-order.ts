/** Skips of one question that get in each other's way: only the first that holds is taken. */
import { FALSE, type Diagram } from '../analysis';
import { picksMany } from '../document/answer-types';
import type { PlanItem, PlanTarget } from '../routing/plan';
import type { CheckContext, Site } from './check-context';
import type { Snag } from './types';

/** A skip after others which take everybody that it would take. */
export function skipShadowed(context: CheckContext): Snag[] {
  return queues(context).flatMap((queue) =>
    queue.flatMap((site, n): Snag[] => {
      const earlier = queue.slice(0, n);
      if (site.condition === null || !holds(context, site) || left(context, site, earlier) !== null)
        return [];
      const by = earlier.find((other) => left(context, site, [other]) === null);
      const whom = by === undefined ? 'the skips before it take' : `“${by.text || 'always'}” takes`;
      const found = context.firstSpot(site.spots, ({ here, when }) => context.diagrams.and(here, when));
      return [
        {
          rule: 'skip-shadowed',
          severity: 'error',
          at: site.at,
          message: `“${site.text}” can hold, but ${whom} all of them first, so this is never taken: move it before, or narrow what stands before it`,
          ...(found === null ? {} : context.witness(found.spot.at, found.mass)),
          mends: mendOrder(context, site, by ?? earlier[0]),
        },
      ];
    }),
  );
}

/** Two skips that both hold for somebody and lead two ways. Of a `multiple`, picks that lead two ways. */
export function rulesOverlap(context: CheckContext): Snag[] {
  const { diagrams } = context;
  return queues(context).flatMap((queue) =>
    queue.flatMap((site, n): Snag[] => {
      const earlier = queue.slice(0, n);
      if (site.condition === null || !holds(context, site) || left(context, site, earlier) === null)
        return [];
      for (const other of earlier) {
        if (other.condition === null || sameTarget(targetOf(site), targetOf(other))) continue;
        const both = context.firstSpot(site.spots, (spot) => {
          const first = other.spots.find(({ at }) => at === spot.at);
          const taken = first === undefined ? FALSE : diagrams.and(first.when, spot.when);
          return without(context, diagrams.and(spot.here, taken), spot.at, earlier, other);
        });
        if (both === null) continue;
        const picks = site.planItem?.item.kind === 'question' && picksMany(site.planItem.item.answer);
        return [
          {
            rule: picks ? 'picks-contradict' : 'rules-overlap',
            severity: picks ? 'warning' : 'note',
            at: site.at,
            message: picks
              ? `somebody can pick answers for which both “${other.text}” and “${site.text}” hold, and they lead two ways: the first wins`
              : `“${other.text}” and “${site.text}” both hold for some, and they lead two ways: the first wins`,
            ...context.witness(both.spot.at, both.mass),
          },
        ];
      }
      return [];
    }),
  );
}

/** The skips of each item and the onwards of each section, each in the order in which they are tried. */
function queues({ sites }: CheckContext): Site[][] {
  const byOwner = new Map<string, Site[]>();
  for (const site of sites) {
    if (site.role !== 'skip' && site.role !== 'onward') continue;
    const owner = site.role === 'skip' ? `item ${site.at.item ?? ''}` : `section ${site.at.section ?? ''}`;
    byOwner.set(owner, [...(byOwner.get(owner) ?? []), site]);
  }
  return [...byOwner.values()];
}

function holds({ diagrams }: CheckContext, { spots }: Site): boolean {
  return spots.some(({ here, when }) => diagrams.and(here, when) !== FALSE);
}

/** Somebody whom the others leave to a skip; null where there is nobody. */
function left(context: CheckContext, site: Site, others: readonly Site[]) {
  return context.firstSpot(site.spots, ({ at, here, when }) =>
    without(context, context.diagrams.and(here, when), at, others, null),
  );
}

/** Those of whom none of the skips holds, tried up to `until`. */
function without(
  { diagrams }: CheckContext,
  mass: Diagram,
  at: number,
  skips: readonly Site[],
  until: Site | null,
): Diagram {
  let rest = mass;
  for (const skip of skips) {
    if (skip === until) break;
    const when = skip.spots.find((spot) => spot.at === at)?.when ?? FALSE;
    rest = diagrams.and(rest, diagrams.not(when));
  }
  return rest;
}

function targetOf({ planItem, at }: Site): PlanTarget | undefined {
  return planItem?.skips.find(({ index }) => index === at.skip)?.to;
}

function sameTarget(a: PlanTarget | undefined, b: PlanTarget | undefined): boolean {
  return a !== undefined && b !== undefined && JSON.stringify(a) === JSON.stringify(b);
}

function mendOrder(context: CheckContext, site: Site, before: Site | undefined) {
  const { planItem, at } = site;
  if (planItem === null || before?.at.skip === undefined || at.skip === undefined) return [];
  const [from, to] = [at.skip, before.at.skip];
  return [
    context.mendBy(`Try “${site.text}” first`, (draft) => {
      const skips = skipsIn(draft, planItem);
      const [moved] = skips?.splice(from, 1) ?? [];
      if (moved !== undefined) skips?.splice(to, 0, moved);
    }),
  ];
}

function skipsIn(draft: Parameters<Parameters<CheckContext['mendBy']>[1]>[0], { section, place }: PlanItem) {
  const item = draft.sections[section]?.items[place];
  return item === undefined || item.kind === 'page_break' ? undefined : item.skips;
}
