/**
 * The graph of forks: a node is a place with what is true of those who come to it, an edge a way on with what
 * happens on it. Every path from the root is a sequence of outcomes that somebody meets.
 */
import type { Diagram } from './diagram';
import type { Terrain } from './terrain';
import { waysFrom, type ForkEvent } from './ways';

export interface ForkNode {
  readonly at: number;
  /** Over variables that still matter. */
  readonly known: Diagram;
  /** Those that lead on to an ending. */
  edges: readonly ForkEdge[];
}

export interface ForkEdge {
  /** Ids of events, as `ForkGraph.events` numbers them. */
  readonly events: readonly number[];
  /** Null past an ending. */
  readonly to: ForkNode | null;
  /** Which of the node's ways it is, in the order of `waysFrom`. */
  readonly way: number;
}

export interface ForkGraph {
  /** Null where nobody comes to an ending. */
  readonly root: ForkNode | null;
  /** Children before parents. */
  readonly nodes: readonly ForkNode[];
  /** Events that somebody meets who comes to an ending. */
  readonly events: readonly ForkEvent[];
}

/** Thrown where more nodes would have to be told apart than allowed. */
export class TooManyForks extends Error {}

export function forkGraphOf(terrain: Terrain, mostNodes: number): ForkGraph {
  const { diagrams, layout } = terrain;
  const numbers = new Map<string, number>();
  const events: ForkEvent[] = [];
  const numberOf = (event: ForkEvent) => {
    const key = JSON.stringify(event);
    let number = numbers.get(key);
    if (number === undefined) {
      number = events.push(event) - 1;
      numbers.set(key, number);
    }
    return number;
  };
  const known = new Map<number, Map<Diagram, ForkNode>>();
  const nodes: ForkNode[] = [];
  let count = 0;

  interface Frame {
    readonly node: ForkNode;
    readonly ways: readonly {
      readonly to: number | null;
      readonly mass: Diagram;
      readonly events: number[];
    }[];
    next: number;
    readonly edges: ForkEdge[];
  }
  const frameAt = (at: number, what: Diagram): Frame => {
    count += 1;
    if (count > mostNodes) throw new TooManyForks();
    const ways = waysFrom(terrain, at, what).map(({ to, mass, events: met }) => ({
      to,
      mass,
      events: met.map(numberOf),
    }));
    const node: ForkNode = { at, known: what, edges: [] };
    const here = known.get(at);
    if (here === undefined) known.set(at, new Map([[what, node]]));
    else here.set(what, node);
    return { node, ways, next: 0, edges: [] };
  };

  const start = layout.gate(0);
  const stack = [frameAt(start, terrain.given)];
  const root = (stack[0] as Frame).node;
  for (let frame = stack.at(-1); frame !== undefined; frame = stack.at(-1)) {
    const way = frame.ways[frame.next];
    if (way === undefined) {
      frame.node.edges = frame.edges;
      if (frame.edges.length > 0) nodes.push(frame.node);
      stack.pop();
      continue;
    }
    if (way.to === null) {
      frame.edges.push({ events: way.events, to: null, way: frame.next });
      frame.next += 1;
      continue;
    }
    const what = diagrams.forget(way.mass, terrain.isPastAt(way.to));
    const child = known.get(way.to)?.get(what);
    if (child === undefined) {
      // Comes back to this way once the child is finished.
      stack.push(frameAt(way.to, what));
      continue;
    }
    if (child.edges.length > 0) frame.edges.push({ events: way.events, to: child, way: frame.next });
    frame.next += 1;
  }
  const met = new Set<number>();
  for (const { edges } of nodes) for (const edge of edges) for (const event of edge.events) met.add(event);
  return withEvents(root.edges.length > 0 ? root : null, nodes, events, met);
}

/** Numbers the events anew, leaving out those that only the stuck would meet, and all but the last pass of a section. */
function withEvents(
  root: ForkNode | null,
  nodes: readonly ForkNode[],
  events: readonly ForkEvent[],
  met: ReadonlySet<number>,
): ForkGraph {
  const lastPass = new Map<string, number>();
  for (const number of met) {
    const event = events[number];
    if (event?.kind === 'pass')
      lastPass.set(event.section, Math.max(event.pass, lastPass.get(event.section) ?? 0));
  }
  const kept = events.flatMap((event, number) => {
    const counts = event.kind !== 'pass' || lastPass.get(event.section) === event.pass;
    return met.has(number) && counts ? [number] : [];
  });
  if (kept.length === events.length) return { root, nodes, events };
  const renumbered = new Map(kept.map((number, index) => [number, index]));
  for (const node of nodes) {
    node.edges = node.edges.map((edge) => ({
      ...edge,
      events: edge.events.flatMap((number) => renumbered.get(number) ?? []),
    }));
  }
  return { root, nodes, events: kept.map((number) => events[number] as ForkEvent) };
}
