/**
 * The routes that go through an item, avoid one, or end somewhere: how many, and which, by their numbers over the
 * whole questionnaire.
 *
 * The graph is gone along together with the one thing to be remembered: whether the item to go through is still to
 * come.
 */
import type { PlanEnding } from '../routing/plan';
import type { Edge, Node } from './graph';

export interface RouteFilter {
  /** Presented on the route, in any pass. */
  readonly through?: string;
  /** Not presented on it. */
  readonly avoid?: string;
  /** Id of the ending. */
  readonly ending?: string;
}

export interface FilteredRoutes {
  readonly total: bigint;
  /** The number, over all routes, of the k-th route that is left, from 1; null where there are fewer. */
  numberOf(k: bigint): bigint | null;
}

export function filterRoutes(
  root: Node,
  endings: readonly PlanEnding[],
  filter: RouteFilter,
): FilteredRoutes {
  const known = [new Map<Node, bigint>(), new Map<Node, bigint>()] as const;

  /** Routes left on an edge, and whether the item to go through is still to come after it. */
  const follow = ({ sight, to }: Edge, waiting: boolean): { routes: bigint; waiting: boolean } => {
    if (to === null) {
      const fits = filter.ending === undefined || endings[sight.ending]?.ending.id === filter.ending;
      return { routes: fits && !waiting ? 1n : 0n, waiting };
    }
    const name = sight.planItem?.item.name;
    if (name === filter.avoid) return { routes: 0n, waiting };
    const still = waiting && name !== filter.through;
    return { routes: count(to, still), waiting: still };
  };
  const count = (node: Node, waiting: boolean): bigint => {
    const before = known[waiting ? 1 : 0].get(node);
    if (before !== undefined) return before;
    const routes = node.edges.reduce((sum, edge) => sum + follow(edge, waiting).routes, 0n);
    known[waiting ? 1 : 0].set(node, routes);
    return routes;
  };

  const begins = filter.through !== undefined;
  return {
    total: count(root, begins),
    numberOf(k) {
      if (k < 1n || k > count(root, begins)) return null;
      let rest = k - 1n;
      let number = 1n;
      let waiting = begins;
      for (let node: Node | null = root; node !== null;) {
        let next: Node | null = null;
        for (const edge of node.edges) {
          const here = follow(edge, waiting);
          if (rest < here.routes) {
            next = edge.to;
            waiting = here.waiting;
            break;
          }
          rest -= here.routes;
          number += edge.to?.routes ?? 1n;
        }
        node = next;
      }
      return number;
    },
  };
}
