/** Single routes out of the graph: the route with a number, and the number of a route. */
import type { Sight } from './belief';
import type { Edge, Node } from './graph';
import type { Witness } from './witness';

/** A route with one respondent who takes it: walking them gives exactly `items` and `ending`. */
export interface Route extends Witness {
  readonly number: bigint;
  /** `name`, or `name#pass`. */
  readonly items: readonly string[];
  readonly ending: string;
}

/** The sights of route `number`, counted from 1; null where there is none. */
export function sightsOf(root: Node, number: bigint): Sight[] | null {
  if (number < 1n || number > root.routes) return null;
  const sights: Sight[] = [];
  let rest = number - 1n;
  let node: Node | null = root;
  while (node !== null) {
    let taken: Edge | null = null;
    for (const edge of node.edges) {
      const here: bigint = edge.to?.routes ?? 1n;
      if (rest < here) {
        taken = edge;
        break;
      }
      rest -= here;
    }
    if (taken === null) return null; // An unopened node: its one counted route is not spelt out.
    sights.push(taken.sight);
    node = taken.to;
  }
  return sights;
}

/**
 * The number of the first route on which every sight has the mark given for its place in order; null where
 * there is none, or its region was not opened. Marks may be names, or what is shown.
 */
export function numberMatching(
  root: Node,
  marks: readonly string[],
  markOf: (sight: Sight) => string,
): bigint | null {
  const search = (node: Node, at: number, before: bigint): bigint | null => {
    let number = before;
    for (const { sight, to } of node.edges) {
      if (markOf(sight) === marks[at]) {
        const last = at === marks.length - 1;
        if (to === null && last) return number;
        const found = to === null || last ? null : search(to, at + 1, number);
        if (found !== null) return found;
      }
      number += to?.routes ?? 1n;
    }
    return null;
  };
  return search(root, 0, 1n);
}

/** The node reached by sights with these marks, one after the other; null where there is none. */
export function nodeAfter(
  root: Node,
  marks: readonly string[],
  markOf: (sight: Sight) => string | null,
): Node | null {
  let node: Node | null = root;
  for (const mark of marks) {
    node = node?.edges.find(({ sight }) => markOf(sight) === mark)?.to ?? null;
  }
  return node;
}

/** The number of the first route with `length` items, which must be the root's shortest or longest. */
export function firstOfLength(root: Node, which: 'shortest' | 'longest'): bigint {
  let number = 1n;
  let node: Node | null = root;
  while (node !== null && node.opened) {
    const wanted: number = node[which];
    let next: Node | null = null;
    for (const { to } of node.edges) {
      if ((to === null ? 0 : to[which] + 1) === wanted) {
        next = to;
        break;
      }
      number += to?.routes ?? 1n;
    }
    node = next;
  }
  return number;
}
