/**
 * How many of all routes come to each ending and present each item: the ways to a node of the graph times those on from it.
 */
import { passKey } from '../../document/addresses';
import type { Plan } from '../../routing/plan';
import type { Graph, Node } from './graph';
import { HOW_MANY, Tally } from './tally';

/** How many routes there are for each way on from a node: routes to it, times those through the parts beside it. */
export function waysTo({ root, nodes }: Graph): Map<Node, bigint> {
  const ways = new Map<Node, bigint>([[root, 1n]]);
  const add = (node: Node, more: bigint) => ways.set(node, (ways.get(node) ?? 0n) + more);
  for (const node of [...nodes].reverse()) {
    const here = ways.get(node);
    if (here === undefined) continue;
    if (node.kind === 'fork') {
      for (const { to } of node.edges) if (to !== null) add(to, here);
    } else {
      const others = productsOfOthers(node.parts.map(({ routes }) => routes));
      node.parts.forEach((part, n) => add(part, here * (others[n] ?? 0n)));
    }
  }
  return ways;
}

/** For each factor the product of all others. */
function productsOfOthers(factors: readonly bigint[]): bigint[] {
  const after: bigint[] = [1n];
  for (const factor of [...factors].reverse()) after.unshift((after[0] as bigint) * factor);
  let before = 1n;
  return factors.map((factor, n) => {
    const others = before * (after[n + 1] as bigint);
    before *= factor;
    return others;
  });
}

/** In the document’s order, endings with no route among them. `ways`: as `waysTo` gives them. */
export function routesByEnding(
  plan: Plan,
  ways: ReadonlyMap<Node, bigint>,
): { readonly id: string; readonly routes: bigint }[] {
  const counts = plan.endings.map(() => 0n);
  for (const [node, here] of ways) {
    if (node.kind === 'parts') continue;
    for (const { observation, to } of node.edges)
      if (to === null && observation !== null)
        counts[observation.ending] = (counts[observation.ending] ?? 0n) + here;
  }
  return plan.endings.map(({ ending }, index) => ({ id: ending.id, routes: counts[index] ?? 0n }));
}

export interface RoutesOfItems {
  readonly items: Map<string, bigint>;
  /** By `name#pass`, of the items of repeated sections. */
  readonly inPass: ReadonlyMap<string, bigint>;
}

/**
 * Ways to an item times routes onward from it. An item of a repeated section may be passed several times on one
 * route, so there the routes that avoid it are counted and taken off the total.
 */
export function routesByItem(plan: Plan, { root }: Graph, ways: ReadonlyMap<Node, bigint>): RoutesOfItems {
  const counts = new Map<string, bigint>();
  const inPass = new Map<string, bigint>();
  const repeated = new Set<string>();
  for (const { repeat, items } of plan.sections) {
    for (const { item } of items) {
      counts.set(item.name, 0n);
      if (repeat !== null) repeated.add(item.name);
    }
  }
  for (const [node, here] of ways) {
    if (node.kind === 'parts') continue;
    for (const { observation, to } of node.edges) {
      const name = observation?.planItem?.item.name;
      if (name === undefined || to === null) continue;
      const by = repeated.has(name) ? inPass : counts;
      const key = repeated.has(name) ? passKey(name, observation?.pass ?? null) : name;
      by.set(key, (by.get(key) ?? 0n) + here * to.routes);
    }
  }
  for (const name of repeated) {
    const avoiding = new Tally(
      HOW_MANY,
      (observation) => observation.planItem?.item.name !== name,
      ({ routes }) => routes,
    );
    counts.set(name, root.routes - avoiding.from(root));
  }
  return { items: counts, inPass };
}
