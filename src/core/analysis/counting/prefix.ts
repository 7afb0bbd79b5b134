/**
 * A route as far as it has been gone: the nodes of the graph that lie ahead, each a part of its own, in the order
 * in which they are gone through.
 */
import type { ForkNode, Node } from './graph';
import type { Observation } from './observations';

/** What lies ahead; null where nothing does. */
export interface Prefix {
  readonly fork: ForkNode;
  readonly then: Prefix | null;
}

/** Something that can be seen next. */
export interface Next {
  readonly observation: Observation;
  /** Null at an ending. */
  readonly to: Prefix | null;
}

/** A number for every node that multiplies over parts: routes, or those that a filter leaves. */
export type Count = (node: Node) => bigint;

export const allRoutes: Count = ({ routes }) => routes;

/** Before anything is seen; null where nothing lies ahead at all. */
export function beginning(root: Node): Prefix | null {
  return inserted(null, root);
}

/** The product of what `count` says of each part ahead; 1 where nothing is. */
export function countOf(prefix: Prefix | null, count: Count): bigint {
  let product = 1n;
  for (let at = prefix; at !== null; at = at.then) product *= count(at.fork);
  return product;
}

/** Something seen next; `observation` null: nothing more, all is over. */
export type NextOrOver = Next | { readonly observation: null };

/** What can be seen next, in canonical order. */
export function* nextOf(prefix: Prefix): Generator<Next> {
  for (const step of stepsThrough(prefix)) if (step.observation !== null) yield step;
}

/** The same of a part, which may also be over without anything seen. */
export function stepsOf(prefix: Prefix | null): Iterable<NextOrOver> {
  if (prefix === null) return [{ observation: null }];
  // As of most places, of which there are many.
  if (prefix.fork.edges.every(({ observation }) => observation !== null))
    return prefix.fork.edges.map(({ observation, to }) => ({
      observation,
      to: to === null ? null : inserted(prefix.then, to),
    })) as NextOrOver[];
  return stepsThrough(prefix);
}

function* stepsThrough(prefix: Prefix): Generator<NextOrOver> {
  const open = [{ prefix, next: 0 }];
  for (let top = open.at(-1); top !== undefined; top = open.at(-1)) {
    const edge = top.prefix.fork.edges[top.next];
    if (edge === undefined) {
      open.pop();
      continue;
    }
    top.next += 1;
    const rest = edge.to === null ? null : inserted(top.prefix.then, edge.to);
    if (edge.observation !== null) yield { observation: edge.observation, to: rest };
    else if (rest === null) yield { observation: null };
    else open.push({ prefix: rest, next: 0 });
  }
}

/** Whether a cap kept something that lies ahead from being spelt out. */
export function isOpened(prefix: Prefix | null): boolean {
  for (let at = prefix; at !== null; at = at.then) if (!at.fork.opened) return false;
  return true;
}

/** What lies ahead, and a node as well. */
export function inserted(prefix: Prefix | null, node: Node): Prefix | null {
  // The last first, since parts come in order and each then goes in at the front.
  if (node.kind === 'parts') return node.parts.reduceRight<Prefix | null>(inserted, prefix);
  if (prefix === null || prefix.fork.at.rank >= node.at.rank) return { fork: node, then: prefix };
  const before: ForkNode[] = [];
  let then: Prefix | null = prefix;
  for (; then !== null && then.fork.at.rank < node.at.rank; then = then.then) before.push(then.fork);
  return before.reduceRight<Prefix>((rest, fork) => ({ fork, then: rest }), { fork: node, then });
}
