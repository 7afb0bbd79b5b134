/**
 * The second level of covering: few paths that between them meet every two outcomes of forks that somebody meets
 * together, and how few could do.
 *
 * Over a graph of forks that has forgotten nothing every path is somebody's, so two outcomes go together where one can
 * be met on the way to the other. Paths are chosen one by one: through the pair that is hardest to come by, and with as
 * many other new pairs as can be found. Pairs of which no two can be met on one path prove a lower bound.
 */
import type { ForkEvents, ForkGraph, ForkNode } from './fork-graph';
import { eventsOf, type ForkPath, type ForkStep } from './fork-paths';
import { leastForPairs } from './pair-bound';
import { BitRelation, setBit, type Pair } from './relation';

export interface PairCover {
  readonly paths: readonly ForkPath[];
  /** No set with fewer paths meets every pair. */
  readonly atLeast: number;
  /** How many pairs somebody meets. */
  readonly pairs: number;
}

/** `outcomes`: numbers of the events that are paired. */
export function coverPairs(graph: ForkGraph, events: ForkEvents, outcomes: ReadonlySet<number>): PairCover {
  if (graph.root === null) return { paths: [], atLeast: 0, pairs: 0 };
  const together = pairsIn(graph, events.all.length, outcomes);
  const finder = new PathsThrough(graph);
  const open = together.copy();
  const chosen: ForkPath[] = [];
  const starts = Math.max(3, Math.min(MOST_STARTS, Math.ceil(EDGES_A_PATH / finder.cost)));
  for (let pair = open.hardest(outcomes); pair !== null; pair = open.hardest(outcomes)) {
    const path = richPath(finder, open, pair, starts);
    open.takeOut(outcomesOn(path, outcomes));
    chosen.push(path);
  }
  const paths = withoutSpare(chosen, outcomes, events.all.length);
  // Without any pair there is still a route to walk.
  const some = paths.length > 0 ? paths : [finder.through([-1, -1], new Float64Array(events.all.length))];
  return { paths: some, atLeast: leastForPairs(together, events, outcomes), pairs: together.count(outcomes) };
}

function outcomesOn(path: ForkPath, outcomes: ReadonlySet<number>): number[] {
  return [...eventsOf(path)].filter((event) => outcomes.has(event));
}

/** Which outcomes somebody meets together. */
function pairsIn({ nodes }: ForkGraph, size: number, outcomes: ReadonlySet<number>): BitRelation {
  const together = new BitRelation(size);
  /** What was met on some path to a node. */
  const before = new Map<ForkNode, Uint32Array>();
  // Parents come after their children.
  for (const node of [...nodes].reverse()) {
    const here = before.get(node) ?? together.none();
    for (const { events, to } of node.edges) {
      const met = here.slice();
      const told = events.filter((event) => outcomes.has(event));
      for (const event of told) setBit(met, event);
      for (const event of told) together.addAll(event, met);
      if (to === null) continue;
      const known = before.get(to);
      if (known === undefined) before.set(to, met);
      else
        for (let word = 0; word < met.length; word += 1)
          known[word] = (known[word] as number) | (met[word] as number);
    }
    before.delete(node);
  }
  together.mirror();
  return together;
}

/** Edges looked at for one path, about, and so the time it takes. */
const EDGES_A_PATH = 60_000;
const MOST_STARTS = 40;
/** How often the weights follow the path they led to, at most. */
const ROUNDS = 8;

/**
 * A path through a pair with many other open pairs: each event weighs as many as it would add to the path so far. Where
 * that leads no further depends on where it began, so it begins at several weights.
 */
function richPath(finder: PathsThrough, open: BitRelation, pair: Pair, starts: number): ForkPath {
  const { size } = open;
  const even = Float64Array.from({ length: size }, (_, event) => open.degree(event));
  let best: ForkPath | null = null;
  let most = -1;
  for (let start = 0; start < starts; start += 1) {
    let path = finder.through(pair, start === 0 ? even : even.map((weight, n) => weight * shade(n, start)));
    for (let round = 0, before = -1; round < ROUNDS; round += 1) {
      const met = open.none();
      const events = [...eventsOf(path)];
      for (const event of events) setBit(met, event);
      const gain = events.reduce((sum, event) => sum + open.degree(event, met), 0);
      if (gain > most) [best, most] = [path, gain];
      if (gain <= before) break;
      before = gain;
      path = finder.through(
        pair,
        Float64Array.from({ length: size }, (_, event) => open.degree(event, met)),
      );
    }
  }
  return best ?? finder.through(pair, even);
}

/** Between a half and one and a half, without a pattern, the same every time. */
function shade(event: number, start: number): number {
  return 0.5 + (Math.imul(event + 1, 0x9e3779b1 ^ Math.imul(start, 0x85ebca6b)) >>> 8) / 0x1000000;
}

/** Heaviest paths that meet two events: a dynamic program that knows which of them are still to come. */
class PathsThrough {
  private readonly indexOf: ReadonlyMap<ForkNode, number>;
  private readonly weightOf: Float64Array;
  private readonly choice: Int32Array;
  /** How many edges there are. */
  readonly cost: number;

  constructor(private readonly graph: ForkGraph) {
    this.cost = graph.nodes.reduce((sum, { edges }) => sum + edges.length, 0);
    this.indexOf = new Map(graph.nodes.map((node, n) => [node, n]));
    this.weightOf = new Float64Array(graph.nodes.length * 4);
    this.choice = new Int32Array(graph.nodes.length * 4);
  }

  /** -1 for an event that need not be met. Throws where no path meets both. */
  through([a, b]: Pair, weights: Float64Array): ForkPath {
    const { nodes } = this.graph;
    const { weightOf, choice } = this;
    const ends: readonly number[] = [0, -Infinity, -Infinity, -Infinity];
    nodes.forEach(({ edges }, node) => {
      for (let needed = 0; needed < 4; needed += 1) {
        let best = -Infinity;
        let chosen = -1;
        for (let n = 0; n < edges.length; n += 1) {
          const { events, to } = edges[n] as ForkNode['edges'][number];
          let left = needed;
          let weight = 0;
          for (const event of events) {
            if (event === a) left &= ~1;
            if (event === b) left &= ~2;
            weight += weights[event] as number;
          }
          weight += (to === null ? ends[left] : weightOf[this.place(to, left)]) as number;
          if (weight > best) [best, chosen] = [weight, n];
        }
        weightOf[node * 4 + needed] = best;
        choice[node * 4 + needed] = chosen;
      }
    });
    const path: ForkStep[] = [];
    let needed = (a < 0 ? 0 : 1) | (b < 0 ? 0 : 2);
    for (let node: ForkNode | null = this.graph.root; node !== null;) {
      const edge: ForkNode['edges'][number] | undefined =
        node.edges[choice[this.place(node, needed)] as number];
      if (edge === undefined) throw new RangeError('no path meets both');
      path.push({ at: node.at, events: edge.events, place: edge.place });
      if (edge.events.includes(a)) needed &= ~1;
      if (edge.events.includes(b)) needed &= ~2;
      node = edge.to;
    }
    return path;
  }

  private place(node: ForkNode, needed: number): number {
    return (this.indexOf.get(node) ?? 0) * 4 + needed;
  }
}

/** Leaves out, latest first, every path of which others meet every pair. */
function withoutSpare(paths: readonly ForkPath[], outcomes: ReadonlySet<number>, size: number): ForkPath[] {
  const times = new Uint16Array(size * size);
  const met = paths.map((path) => outcomesOn(path, outcomes));
  const each = (numbers: readonly number[], visit: (pair: number) => void) => {
    for (const a of numbers) for (const b of numbers) if (a < b) visit(a * size + b);
  };
  const count = (pair: number) => (times[pair] = (times[pair] as number) + 1);
  for (const numbers of met) each(numbers, count);
  const kept: ForkPath[] = [];
  // The first ones were led through what is hard to come by, the last ones through what was left over.
  const bySize = paths
    .map((_, n) => n)
    .sort((a, b) => (met[a] as number[]).length - (met[b] as number[]).length);
  const spare = new Set<number>();
  for (const n of bySize) {
    let needed = false;
    each(met[n] as number[], (pair) => (needed ||= times[pair] === 1));
    if (needed) continue;
    spare.add(n);
    each(met[n] as number[], (pair) => (times[pair] = (times[pair] as number) - 1));
  }
  paths.forEach((path, n) => {
    if (!spare.has(n)) kept.push(path);
  });
  return kept;
}
