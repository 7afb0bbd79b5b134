/**
 * The routes that go through an item, avoid one, or end somewhere: how many, and which, by their numbers over the
 * whole graph.
 *
 * What is to be avoided is left out of the graph, and routes that go through an item are all but those that avoid
 * it: so counts still multiply over parts that have nothing to do with each other.
 */
import type { PlanEnding } from '../routing/plan';
import type { Sight } from './sights';
import type { Node } from './graph';
import { allRoutes, beginning, countOf, nextOf, type Count, type Next, type Prefix } from './prefix';
import type { WayTaken } from './taking';

export interface RouteFilter {
  /** Presented on the route, in any pass. */
  readonly through?: string;
  /** Not presented on it. */
  readonly avoid?: string;
  /** Id of the ending. */
  readonly ending?: string;
  /** Somebody on the route takes each of these ways, all of them on one walk. */
  readonly taking?: readonly WayTaken[];
}

export interface RoutesLeft {
  readonly total: bigint;
  /** The number, over all routes, of the k-th route that is left, from 1; null where there are fewer. */
  numberOf(k: bigint): bigint | null;
}

export function filterRoutes(
  root: Node,
  endings: readonly PlanEnding[],
  { through, avoid, ending }: Omit<RouteFilter, 'taking'>,
): RoutesLeft {
  const ends = (index: number) => ending === undefined || endings[index]?.ending.id === ending;
  const shows = (name: string | undefined) => name !== avoid;
  const fitting = counted(({ planItem, ending: e }) => (planItem ? shows(planItem.item.name) : ends(e)));
  const without = counted(({ planItem, ending: e }) =>
    planItem ? shows(planItem.item.name) && planItem.item.name !== through : ends(e),
  );
  /** Routes left: those that still have to go through the item are all but those that avoid it. */
  const left = (prefix: Prefix | null, waiting: boolean) =>
    countOf(prefix, fitting) - (waiting ? countOf(prefix, without) : 0n);

  const begins = through !== undefined;
  const first = beginning(root);
  const total = first === null ? 0n : left(first, begins);
  return {
    total,
    numberOf(k) {
      if (k < 1n || k > total) return null;
      let rest = k - 1n;
      let number = 1n;
      let waiting = begins;
      for (let prefix = first; prefix !== null;) {
        let taken: Next | null = null;
        for (const next of nextOf(prefix)) {
          const { sight, to } = next;
          const name = sight.planItem?.item.name;
          const still = waiting && name !== through;
          const fits = name === undefined ? ends(sight.ending) && !still : shows(name);
          const here = fits ? (to === null ? 1n : left(to, still)) : 0n;
          if (rest < here) {
            taken = next;
            waiting = still;
            break;
          }
          rest -= here;
          number += countOf(to, allRoutes);
        }
        prefix = taken?.to ?? null;
      }
      return number;
    },
  };
}

/** Ways on from a node that show only what is allowed; `unopened` says how many a node counts that has no edges. */
export function counted(
  allows: (sight: Sight) => boolean,
  unopened: (node: Node) => bigint = () => 0n,
): Count {
  const known = new Map<Node, bigint>();
  const count = (node: Node): bigint => {
    let ways = known.get(node);
    if (ways !== undefined) return ways;
    if (node.kind === 'fork' && !node.opened) ways = unopened(node);
    else if (node.kind === 'parts') ways = node.parts.reduce((product, part) => product * count(part), 1n);
    else {
      ways = 0n;
      for (const { sight, to } of node.edges)
        if (sight === null || allows(sight)) ways += to === null ? 1n : count(to);
    }
    known.set(node, ways);
    return ways;
  };
  return count;
}
