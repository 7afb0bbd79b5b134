/** Single routes out of the graph: the route with a number, and the number of a route. */
import { passKey } from '../../document/addresses';
import type { Plan } from '../../routing/plan';
import { childrenFirst, type Node } from './graph';
import type { Observation } from './observations';
import { allRoutes, beginning, countOf, isOpened, nextOf, type Next, type Prefix } from './prefix';
import type { Witness } from './witness';

/** A route with one respondent who takes it: walking them gives exactly `items` and `ending`. */
export interface Route extends Witness {
  readonly number: bigint;
  /** `name`, or `name#pass`. */
  readonly items: readonly string[];
  readonly ending: string;
}

/** The observations of route `number`, counted from 1; null where there is none. */
export function observationsOf(root: Node, number: bigint): Observation[] | null {
  if (number < 1n || number > root.routes) return null;
  const observations: Observation[] = [];
  let rest = number - 1n;
  for (let prefix = beginning(root); prefix !== null;) {
    let taken: Next | null = null;
    for (const next of nextOf(prefix)) {
      const here = countOf(next.to, allRoutes);
      if (rest < here) {
        taken = next;
        break;
      }
      rest -= here;
    }
    // Without edges it was not opened, and its one counted route is not spelt out; a last part may just be over.
    if (taken === null) return isOpened(prefix) && rest === 0n ? observations : null;
    observations.push(taken.observation);
    prefix = taken.to;
  }
  return observations;
}

/**
 * The number of the first route on which every observation has the mark given for its place in order; null where
 * there is none, or its region was not opened. Marks may be names, or what is shown.
 */
export function numberMatching(
  root: Node,
  marks: readonly string[],
  markOf: (observation: Observation) => string,
): bigint | null {
  const first = beginning(root);
  if (first === null) return null;
  // Marks may be alike, so what leads no further is left again.
  const open = [{ nexts: nextOf(first), number: 1n }];
  for (let top = open.at(-1); top !== undefined; top = open.at(-1)) {
    const next = top.nexts.next();
    if (next.done === true) {
      open.pop();
      continue;
    }
    const { observation, to } = next.value;
    const { number } = top;
    top.number += countOf(to, allRoutes);
    if (markOf(observation) !== marks[open.length - 1]) continue;
    const last = open.length === marks.length;
    if (to === null && last) return number;
    if (to !== null && !last) open.push({ nexts: nextOf(to), number });
  }
  return null;
}

/** What lies ahead after observations with these marks, one after the other; null where no route begins so. */
export function prefixOf(
  root: Node,
  marks: readonly string[],
  markOf: (observation: Observation) => string | null,
): Prefix | null {
  let prefix = beginning(root);
  for (const mark of marks) {
    if (prefix === null) return null;
    let found: Prefix | null = null;
    for (const { observation, to } of nextOf(prefix)) {
      if (markOf(observation) !== mark) continue;
      found = to;
      break;
    }
    prefix = found;
  }
  return prefix;
}

/** The number of the first route with `length` items, which must be the root's shortest or longest. */
export function firstOfLength(root: Node, which: 'shortest' | 'longest'): bigint {
  let number = 1n;
  for (let prefix = beginning(root); prefix !== null && isOpened(prefix);) {
    const wanted = itemsAhead(prefix, which);
    let taken: Next | null = null;
    for (const next of nextOf(prefix)) {
      if ((next.to === null ? 0 : itemsAhead(next.to, which) + 1) === wanted) {
        taken = next;
        break;
      }
      number += countOf(next.to, allRoutes);
    }
    prefix = taken?.to ?? null;
  }
  return number;
}

/** Fewest or most items that are still presented. */
export function itemsAhead(prefix: Prefix, which: 'shortest' | 'longest'): number {
  let items = 0;
  for (let at: Prefix | null = prefix; at !== null; at = at.then) items += at.fork[which];
  return items;
}

/** The most that a route weighs, and the number of the first that weighs it; weights of items are whole numbers. */
export function firstHeaviest(
  root: Node,
  weightOf: (observation: Observation) => number,
): { weight: number; number: bigint } {
  const known = new Map<Node, number>();
  const most = (node: Node): number => known.get(node) ?? 0;
  const ahead = (observation: Observation | null, rest: number | null) =>
    (observation === null || rest === null ? 0 : weightOf(observation)) + (rest ?? 0);
  for (const node of childrenFirst(root)) {
    const weight =
      node.kind === 'parts'
        ? node.parts.reduce((sum, part) => sum + most(part), 0)
        : node.edges.reduce(
            (best, { observation, to }) => Math.max(best, ahead(observation, to && most(to))),
            node.opened ? -Infinity : 0,
          );
    known.set(node, weight);
  }
  const of = (prefix: Prefix | null) => {
    let sum = 0;
    for (let at = prefix; at !== null; at = at.then) sum += most(at.fork);
    return sum;
  };
  let number = 1n;
  for (let prefix = beginning(root); prefix !== null && isOpened(prefix);) {
    const wanted = of(prefix);
    let taken: Next | null = null;
    for (const next of nextOf(prefix)) {
      if (ahead(next.observation, next.to && of(next.to)) === wanted) {
        taken = next;
        break;
      }
      number += countOf(next.to, allRoutes);
    }
    prefix = taken?.to ?? null;
  }
  return { weight: most(root), number };
}

/** The number in a graph of the route with these items (`name#pass` in a repeat) and ending; null where it has none. */
export function numberIn(plan: Plan, root: Node, items: readonly string[], ending: string): bigint | null {
  return numberMatching(root, [...items, `> ${ending}`], ({ planItem, pass, ending: e }) =>
    planItem === null ? `> ${plan.endings[e]?.ending.id ?? ''}` : passKey(planItem.item.name, pass),
  );
}

/** What is presented, and where it ends. */
export function seenOn(plan: Plan, observations: readonly Observation[]): Pick<Route, 'items' | 'ending'> {
  const items = observations.flatMap(({ planItem, pass }) =>
    planItem === null ? [] : [passKey(planItem.item.name, pass)],
  );
  return { items, ending: plan.endings[observations.at(-1)?.ending ?? 0]?.ending.id ?? '' };
}
