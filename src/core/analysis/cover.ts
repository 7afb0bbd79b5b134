/**
 * A small set of routes that together meet everything that any fork can do, and how small such a set can be.
 *
 * Paths are chosen greedily, each with the most that is new (a dynamic program over the graph of forks), then
 * routes are dropped and merged. The lower bound is the dual of the covering problem: for weights of the events,
 * all weights over the heaviest path. The weights are improved by multiplicative updates (Plotkin, Shmoys and
 * Tardos, "Fast approximation algorithms for fractional packing and covering problems", 1995).
 */
import type { ForkEdge, ForkGraph } from './fork-graph';

/** A path from the root to an ending. */
export type ForkPath = readonly ForkEdge[];

export interface Cover {
  readonly paths: readonly ForkPath[];
  /** No set with fewer paths meets every event. */
  readonly atLeast: number;
}

/** Edges looked at in improving the bound, and so the time it takes. */
const EDGES_LOOKED_AT = 12_000_000;
const MOST_ROUNDS = 240;
/** How much an event on the heaviest path loses of its weight in a round. */
const STEP = 0.12;

export function coverOf(graph: ForkGraph): Cover {
  if (graph.root === null) return { paths: [], atLeast: 0 };
  const paths = new Paths(graph);
  const even = new Float64Array(graph.events.length).fill(1);
  let best = smaller(paths, greedy(paths, even));
  let atLeast = 1;
  const weights = Float64Array.from(even);
  const rounds = Math.min(MOST_ROUNDS, Math.ceil(EDGES_LOOKED_AT / Math.max(1, paths.edgeCount)));
  for (let round = 0; round < rounds && best.length > atLeast; round += 1) {
    const { weight, path } = paths.heaviest(weights);
    const total = weights.reduce((sum, each) => sum + each, 0);
    // A hair less than the quotient, so that rounding never claims too much.
    atLeast = Math.max(atLeast, Math.ceil((total / weight) * (1 - 1e-9)));
    for (const event of paths.eventsOf(path)) weights[event] = (weights[event] as number) * (1 - STEP);
    const scale = graph.events.length / weights.reduce((sum, each) => sum + each, 0);
    weights.forEach((each, event) => (weights[event] = each * scale));
    // The weights tell which events are hard to meet together with others: worth another try now and then.
    if (round % 24 === 23) {
      const other = smaller(paths, greedy(paths, weights));
      if (other.length < best.length) best = other;
    }
  }
  return { paths: best, atLeast };
}

/** Paths until every event is met, each as heavy as can be in what is new. */
function greedy(paths: Paths, weights: Float64Array): ForkPath[] {
  const left = Float64Array.from(weights);
  const chosen: ForkPath[] = [];
  for (let open = left.length; open > 0;) {
    const { path } = paths.heaviest(left);
    let news = 0;
    for (const event of paths.eventsOf(path)) {
      if (left[event] !== 0) news += 1;
      left[event] = 0;
    }
    if (news === 0) throw new RangeError('an event of the graph is on none of its paths');
    open -= news;
    chosen.push(path);
  }
  return chosen;
}

/** The same events with fewer paths, where dropping one or putting two into one does it. */
function smaller(paths: Paths, from: readonly ForkPath[]): ForkPath[] {
  const left = [...from];
  const met = new Int32Array(paths.eventCount);
  const count = (path: ForkPath, by: number) => {
    for (const event of paths.eventsOf(path)) met[event] = (met[event] as number) + by;
  };
  for (const path of left) count(path, 1);
  /** What only these paths meet. */
  const ownOf = (...some: readonly ForkPath[]) => {
    for (const path of some) count(path, -1);
    const own = new Set(
      some.flatMap((path) => [...paths.eventsOf(path)].filter((event) => met[event] === 0)),
    );
    for (const path of some) count(path, 1);
    return own;
  };
  const replace = (gone: readonly ForkPath[], by: readonly ForkPath[]) => {
    for (const path of gone) {
      count(path, -1);
      left.splice(left.indexOf(path), 1);
    }
    for (const path of by) {
      count(path, 1);
      left.push(path);
    }
  };
  for (const path of [...left].reverse()) if (ownOf(path).size === 0) replace([path], []);
  // Those that add least are the likeliest to go into another.
  for (;;) {
    const bySize = left.map((path) => ({ path, own: ownOf(path) })).sort((a, b) => a.own.size - b.own.size);
    const merged = firstMerge(
      paths,
      bySize.slice(0, 12).map(({ path }) => path),
      ownOf,
    );
    if (merged === null) return left;
    replace(merged.gone, [merged.by]);
  }
}

function firstMerge(
  paths: Paths,
  some: readonly ForkPath[],
  ownOf: (...of: readonly ForkPath[]) => ReadonlySet<number>,
): { gone: readonly ForkPath[]; by: ForkPath } | null {
  for (let a = 0; a < some.length; a += 1) {
    for (let b = a + 1; b < some.length; b += 1) {
      const gone = [some[a] as ForkPath, some[b] as ForkPath];
      const own = ownOf(...gone);
      const weights = new Float64Array(paths.eventCount);
      for (const event of own) weights[event] = 1;
      const { path } = paths.heaviest(weights);
      const met = new Set(paths.eventsOf(path));
      if ([...own].every((event) => met.has(event))) return { gone, by: path };
    }
  }
  return null;
}

/** The graph as arrays, for finding heaviest paths. */
class Paths {
  readonly eventCount: number;
  readonly edgeCount: number;
  private readonly edges: readonly (readonly { readonly to: number; readonly edge: ForkEdge }[])[];
  private readonly weightOf: Float64Array;
  private readonly choice: Int32Array;
  private readonly root: number;

  constructor(graph: ForkGraph) {
    const index = new Map(graph.nodes.map((node, n) => [node, n]));
    this.edges = graph.nodes.map((node) =>
      node.edges.map((edge) => ({ to: edge.to === null ? -1 : (index.get(edge.to) ?? -1), edge })),
    );
    this.eventCount = graph.events.length;
    this.edgeCount = this.edges.reduce((sum, each) => sum + each.length, 0);
    this.weightOf = new Float64Array(graph.nodes.length);
    this.choice = new Int32Array(graph.nodes.length);
    this.root = graph.nodes.length - 1;
  }

  /** The events on a path; one that is met in several passes is counted once. */
  eventsOf(path: ForkPath): ReadonlySet<number> {
    return new Set(path.flatMap(({ events }) => events));
  }

  /** The heaviest path; its weight counts what is met in several passes as often, so it is never too small. */
  heaviest(weights: Float64Array): { weight: number; path: ForkPath } {
    const { edges, weightOf, choice } = this;
    for (let node = 0; node < edges.length; node += 1) {
      let best = -1;
      let chosen = 0;
      const ways = edges[node] ?? [];
      for (let way = 0; way < ways.length; way += 1) {
        const { to, edge } = ways[way] as { to: number; edge: ForkEdge };
        let weight = to < 0 ? 0 : (weightOf[to] as number);
        for (const event of edge.events) weight += weights[event] as number;
        if (weight > best) {
          best = weight;
          chosen = way;
        }
      }
      weightOf[node] = best;
      choice[node] = chosen;
    }
    const path: ForkEdge[] = [];
    for (let node = this.root; node >= 0;) {
      const taken = (edges[node] ?? [])[choice[node] as number] as { to: number; edge: ForkEdge };
      path.push(taken.edge);
      node = taken.to;
    }
    return { weight: weightOf[this.root] as number, path };
  }
}
