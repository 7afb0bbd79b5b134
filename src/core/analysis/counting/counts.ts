/**
 * How many of all routes come to each ending and present each item: the ways to a node of the graph times those on from it.
 */
import { passKey } from '../../document/addresses';
import type { Plan } from '../../routing/plan';
import type { Edge, Graph, Node } from './graph';
import type { Observation } from './observations';

/** How many routes there are for each way on from a node: routes to it, times those through the parts beside it. */
export function waysTo({ root, nodes }: Graph): Map<Node, bigint> {
  const ways = new Map<Node, bigint>([[root, 1n]]);
  const add = (node: Node, more: bigint) => ways.set(node, (ways.get(node) ?? 0n) + more);
  for (const node of nodes.toReversed()) {
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

/** Names of the items that some route presents. */
export function presentedItems({ root, nodes }: Graph): Set<string> {
  const names = new Set<string>();
  const reached = new Set<Node>([root]);
  for (const node of nodes.toReversed()) {
    if (!reached.has(node) || node.routes === 0n) continue;
    if (node.kind === 'parts') for (const part of node.parts) reached.add(part);
    else
      for (const { observation, to } of node.edges) {
        if (to !== null) reached.add(to);
        const name = observation?.planItem?.item.name;
        if (name !== undefined) names.add(name);
      }
  }
  return names;
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
 * route: it is counted where that is for the first time.
 */
export function routesByItem(plan: Plan, { nodes }: Graph, ways: ReadonlyMap<Node, bigint>): RoutesOfItems {
  const bySeen = new Map<Observation, bigint>();
  for (const [node, here] of ways) {
    if (node.kind === 'parts') continue;
    for (const { observation, to } of node.edges)
      if (observation !== null && to !== null)
        bySeen.set(observation, (bySeen.get(observation) ?? 0n) + here * to.routes);
  }
  const items = new Map<string, bigint>(
    plan.sections.flatMap((section) => section.items.map(({ item }) => [item.name, 0n] as const)),
  );
  const inPass = new Map<string, bigint>();
  for (const [{ planItem, pass }, routes] of bySeen) {
    if (planItem === null) continue;
    const { name } = planItem.item;
    if (pass === null) items.set(name, routes);
    else inPass.set(passKey(name, pass), routes);
  }
  for (const section of plan.sections) {
    if (section.repeat === null) continue;
    const names = section.items.map(({ item }) => item.name);
    for (const [name, routes] of presentedOnce(names, nodes, ways)) items.set(name, routes);
  }
  return { items, inPass };
}

/** Of items that a route may present several times, how many routes do so at least once. */
function presentedOnce(
  names: readonly string[],
  nodes: readonly Node[],
  ways: ReadonlyMap<Node, bigint>,
): Map<string, bigint> {
  const counts = new Map(names.map((name) => [name, 0n]));
  const nameIn = ({ observation }: Edge) => {
    const name = observation?.planItem?.item.name;
    return name !== undefined && counts.has(name) ? name : null;
  };
  const isHere = (node: Node) => node.kind === 'fork' && node.edges.some((edge) => nameIn(edge) !== null);
  const between = nodesBetween(nodes, isHere);
  for (const name of names) {
    /** Ways to a node on which it has been presented. */
    const after = new Map<Node, bigint>();
    const add = (to: Node, more: bigint) => {
      if (more !== 0n) after.set(to, (after.get(to) ?? 0n) + more);
    };
    for (const node of between) {
      const before = after.get(node) ?? 0n;
      if (node.kind === 'parts') {
        const others = before === 0n ? [] : productsOfOthers(node.parts.map(({ routes }) => routes));
        for (const [n, part] of node.parts.entries()) add(part, before * (others[n] ?? 0n));
        continue;
      }
      const here = ways.get(node) ?? 0n;
      for (const edge of node.edges) {
        const { to } = edge;
        if (to === null) continue;
        const isNow = nameIn(edge) === name;
        if (isNow) counts.set(name, (counts.get(name) ?? 0n) + (here - before) * to.routes);
        add(to, isNow ? here : before);
      }
    }
  }
  return counts;
}

/**
 * Those from the first that is `here` on which one that is may still follow, parents before children: only there does it
 * matter whether one has been passed.
 */
function nodesBetween(nodes: readonly Node[], isHere: (node: Node) => boolean): Node[] {
  const leads = new Set<Node>();
  for (const node of nodes) if (isHere(node) || someAhead(node, (to) => leads.has(to))) leads.add(node);
  const follows = new Set<Node>();
  return nodes.toReversed().filter((node) => {
    if (!leads.has(node) || !(follows.has(node) || isHere(node))) return false;
    someAhead(node, (to) => {
      follows.add(to);
      return false;
    });
    return true;
  });
}

function someAhead(node: Node, is: (to: Node) => boolean): boolean {
  if (node.kind === 'parts') return node.parts.some(is);
  return node.edges.some(({ to }) => to !== null && is(to));
}
