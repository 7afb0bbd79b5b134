/** The routes of those who take some ways: their own graph, numbered over all routes. */
import type { Plan } from '../../routing/plan';
import type { Via } from '../answers/via';
import { encodedWithin } from '../conditions/encoded-within';
import { Beliefs } from '../counting/belief';
import { buildGraph } from '../counting/build-graph';
import type { Node } from '../counting/graph';
import { numberIn, observationsOf, seenOn, type Route } from '../counting/routes';
import { witnessOf } from '../counting/witness';
import type { Caps } from '../diagrams/limits';
import { filterRoutes, type RouteFilter, type RoutesLeft } from './filters';
import type { Numbering } from './selection';

export interface FilteredRoutes extends RoutesLeft {
  /** Whether `total` is all there are, or proven to be no more than there are. */
  readonly exact: boolean;
  /** The k-th route that is left, with a respondent who takes the ways asked for; null where there are fewer. */
  route(k: bigint): Route | null;
}

/** The graph of what those see who take some ways. */
export interface ViaRoutes {
  readonly root: Node;
  readonly beliefs: Beliefs;
  readonly exact: boolean;
}

/** Counted anew, with everybody left out who does not go by all of `via`. */
export function viaRoutesOf(plan: Plan, caps: Caps, via: readonly Via[]): ViaRoutes {
  const beliefs = new Beliefs(encodedWithin(plan, caps, { via }));
  const graph = buildGraph(beliefs, caps);
  const exact = beliefs.encoded.limits.length === 0 && graph.stoppedAt === null;
  return { root: graph.root, beliefs, exact };
}

/** Their routes in canonical order, which is the same order as over all routes, by their numbers over those. */
export function filteredViaRoutes(
  plan: Plan,
  { root, beliefs, exact }: ViaRoutes,
  filter: RouteFilter,
  { numberOf, outline }: Numbering,
): FilteredRoutes {
  const left = filterRoutes(root, plan.endings, filter);
  const seen = (own: bigint) => {
    const observations = observationsOf(root, own);
    if (observations === null) return null;
    const { items, ending } = seenOn(plan, observations);
    const number = numberOf(items, ending);
    return number === null ? null : { number, items, ending, observations };
  };
  return {
    total: left.total,
    exact,
    numberOf: numbered(left, (own) => seen(own)?.number ?? null),
    positionOf(number) {
      const all = outline(number);
      const own = all === null ? null : numberIn(plan, root, all.items, all.ending);
      return own === null ? null : left.positionOf(own);
    },
    route: numbered(left, (own) => {
      const found = seen(own);
      if (found === null) return null;
      const { number, items, ending, observations } = found;
      const witness = witnessOf(beliefs, observations);
      return witness && { number, items, ending, ...witness };
    }),
  };
}

/** What belongs to the k-th route that is left. */
export function numbered<Found>(left: RoutesLeft, find: (number: bigint) => Found | null) {
  return (k: bigint): Found | null => {
    const number = left.numberOf(k);
    return number === null ? null : find(number);
  };
}
