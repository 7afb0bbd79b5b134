/** Going along a graph that stands for just some parts of what lies ahead: then they can be over without an ending. */
import type { ForkNode, Node, PartsNode } from '../counting/graph';
import type { Prefix } from '../counting/prefix';
import { Numbering } from '../diagrams/numbering';

/** The parts that lie ahead, in the order in which they are gone through. */
export function forksOf(prefix: Prefix | null): ForkNode[] {
  const forks: ForkNode[] = [];
  for (let at = prefix; at !== null; at = at.then) forks.push(at.fork);
  return forks;
}

/** What `forksOf` gives, put together again. */
export function prefixOfForks(forks: readonly ForkNode[]): Prefix | null {
  return [...forks].reverse().reduce<Prefix | null>((then, fork) => ({ fork, then }), null);
}

export const NOTHING_AHEAD: PartsNode = { kind: 'parts', parts: [], routes: 1n, shortest: 0, longest: 0 };

/** A fork with its counts. */
export function newFork(spot: ForkNode['at'], edges: ForkNode['edges']): ForkNode {
  const fork: ForkNode = {
    kind: 'fork',
    at: spot,
    edges,
    opened: true,
    routes: 0n,
    shortest: Infinity,
    longest: 0,
  };
  for (const { observation, to } of edges) {
    const own = observation?.planItem ? 1 : 0;
    fork.routes += to?.routes ?? 1n;
    fork.shortest = Math.min(fork.shortest, own + (to?.shortest ?? 0));
    fork.longest = Math.max(fork.longest, own + (to?.longest ?? 0));
  }
  return fork;
}

/** Parts that have nothing to do with each other, as one node. */
export function together(parts: readonly Node[]): Node {
  if (parts.length === 1 && parts[0] !== undefined) return parts[0];
  return {
    kind: 'parts',
    parts,
    routes: parts.reduce((product, { routes }) => product * routes, 1n),
    shortest: parts.reduce((sum, { shortest }) => sum + shortest, 0),
    longest: parts.reduce((sum, { longest }) => sum + longest, 0),
  };
}

/** Numbers for nodes, by which what has been met before is known again. */
export class NodeNames {
  private readonly names = new Numbering<Node>();

  along(prefix: Prefix | null): string {
    if (prefix?.then === null) return String(this.names.of(prefix.fork));
    return forksOf(prefix)
      .map((fork) => this.names.of(fork))
      .join('.');
  }
}

/** Thrown where more would have to be told apart than is sensible. */
export class TooEntangled extends Error {}

export const MOST_STATES = 60_000;
