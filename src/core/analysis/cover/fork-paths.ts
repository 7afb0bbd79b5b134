/**
 * Paths through the graph of forks that meet much: the heaviest of all, under weights of what happens on them.
 *
 * Where the graph has forgotten something, its heaviest path may be one that nobody takes. It then only says where
 * much may lie ahead, and a path that somebody takes is looked for by it, with nothing forgotten and the best few
 * kept at every place.
 */
import type { EncodedPlan } from '../conditions/encoded-plan';
import { FALSE, type Diagram } from '../diagrams/diagram';
import { waysFrom } from '../reach/fork-events';
import type { ForkEdge, ForkEvents, ForkGraph, ForkNode } from './fork-graph';

/** One way on: from a place, with what happens. */
export interface ForkStep {
  readonly at: number;
  readonly events: readonly number[];
  /** Number of the place it leads to; null past an ending. */
  readonly place: number | null;
}

type WayOn = Pick<ForkStep, 'events' | 'place'>;

/** Whether two ways on from one place are the same. */
export function isSameWay(a: WayOn, b: WayOn): boolean {
  return (
    a.place === b.place &&
    a.events.length === b.events.length &&
    a.events.every((event, n) => event === b.events[n])
  );
}

/** From the first gate to an ending. */
export type ForkPath = readonly ForkStep[];

const eventsBefore = new WeakMap<ForkPath, ReadonlySet<number>>();

/** The events on a path; one that is met in several passes is counted once. */
export function eventsOf(path: ForkPath): ReadonlySet<number> {
  let events = eventsBefore.get(path);
  if (events === undefined) {
    events = new Set(path.flatMap((step) => step.events));
    eventsBefore.set(path, events);
  }
  return events;
}

export interface PathFinder {
  /** Edges looked at to find a path, as a measure of the time it takes. */
  readonly cost: number;
  /** A heavy path that somebody takes; the heaviest, if nothing was forgotten. Null where none was found. */
  heavy(weights: Float64Array): ForkPath | null;
  /** No path that somebody takes weighs more. What is met in several passes counts as often. */
  bound(weights: Float64Array): number;
  /** The heaviest path as far as the graph tells, and its weight. */
  heaviest(weights: Float64Array): { readonly weight: number; readonly path: ForkPath };
}

/** What a node of a graph leads to, where it leads past an ending. */
const NOWHERE = -1;

/** Over a graph that has forgotten nothing. Weighed again and again, so all of it lies in arrays of numbers. */
export class ExactPaths implements PathFinder {
  readonly cost: number;
  /** By node, its first edge; those of the next follow. */
  private readonly edgesFrom: Int32Array;
  /** By edge, the node it leads to. */
  private readonly to: Int32Array;
  /** By edge, its first event in `happens`; those of the next follow. */
  private readonly eventsFrom: Int32Array;
  private readonly happens: Int32Array;
  private readonly weightOf: Float64Array;
  /** By node, the edge taken. */
  private readonly choice: Int32Array;
  private readonly root: number;
  protected readonly indexOf: ReadonlyMap<ForkNode, number>;

  constructor(protected readonly graph: ForkGraph) {
    const { nodes } = graph;
    this.indexOf = new Map(nodes.map((node, n) => [node, n]));
    const edgesFrom = [0];
    const eventsFrom = [0];
    const to: number[] = [];
    const happens: number[] = [];
    for (const { edges } of nodes) {
      for (const edge of edges) {
        to.push(edge.to === null ? NOWHERE : (this.indexOf.get(edge.to) ?? NOWHERE));
        for (const event of edge.events) happens.push(event);
        eventsFrom.push(happens.length);
      }
      edgesFrom.push(to.length);
    }
    this.edgesFrom = Int32Array.from(edgesFrom);
    this.to = Int32Array.from(to);
    this.eventsFrom = Int32Array.from(eventsFrom);
    this.happens = Int32Array.from(happens);
    this.cost = to.length;
    this.weightOf = new Float64Array(nodes.length);
    this.choice = new Int32Array(nodes.length);
    this.root = nodes.length - 1;
  }

  heavy(weights: Float64Array): ForkPath | null {
    return this.heaviest(weights).path;
  }

  bound(weights: Float64Array): number {
    this.weigh(weights);
    return this.weightOf[this.root] as number;
  }

  heaviest(weights: Float64Array): { weight: number; path: ForkPath } {
    this.weigh(weights);
    const path: ForkStep[] = [];
    for (let n = this.root; n >= 0;) {
      const node = this.graph.nodes[n] as ForkNode;
      const edge = this.choice[n] as number;
      const { events, place } = node.edges[edge - (this.edgesFrom[n] as number)] as ForkEdge;
      path.push({ at: node.at, events, place });
      n = this.to[edge] as number;
    }
    return { weight: this.weightOf[this.root] as number, path };
  }

  /** The most that can be met from a node on; after `weigh`. */
  protected ahead(node: ForkNode): number {
    return this.weightOf[this.indexOf.get(node) ?? -1] ?? 0;
  }

  /** Children stand before parents, so one pass does it. */
  protected weigh(weights: Float64Array): void {
    const { edgesFrom, to, eventsFrom, happens, weightOf, choice } = this;
    for (let node = 0; node < weightOf.length; node += 1) {
      let best = -1;
      let chosen = 0;
      const end = edgesFrom[node + 1] as number;
      for (let edge = edgesFrom[node] as number; edge < end; edge += 1) {
        const next = to[edge] as number;
        let weight = next < 0 ? 0 : (weightOf[next] as number);
        const last = eventsFrom[edge + 1] as number;
        for (let n = eventsFrom[edge] as number; n < last; n += 1)
          weight += weights[happens[n] as number] as number;
        if (weight > best) {
          best = weight;
          chosen = edge;
        }
      }
      weightOf[node] = best;
      choice[node] = chosen;
    }
  }
}

/** Somebody under way: exactly what is true of them, and the node of the graph that they are in. */
interface Walker {
  readonly known: Diagram;
  readonly node: ForkNode;
  /** Weight of what was met, what is met anew only. */
  readonly gained: number;
  readonly last: { readonly step: ForkStep; readonly before: Walker['last'] } | null;
}

/** Kept at every place. */
const WALKERS = 6;

/** Over a graph that has forgotten something. */
export class GuidedPaths extends ExactPaths {
  constructor(
    graph: ForkGraph,
    private readonly encoded: EncodedPlan,
    private readonly events: ForkEvents,
  ) {
    super(graph);
  }

  override heavy(weights: Float64Array): ForkPath | null {
    return this.onward([], weights);
  }

  /** A heavy path that begins with these steps; null where nobody who takes them was found to come to an ending. */
  onward(begun: ForkPath, weights: Float64Array): ForkPath | null {
    const { encoded } = this;
    const { course } = encoded;
    this.weigh(weights);
    if (this.graph.root === null) return null;
    const waiting: Walker[][] = [];
    let done: { gained: number; last: Walker['last'] } | null = null;
    const put = (place: number, walker: Walker) => {
      const here = (waiting[place] ??= []);
      const same = here.findIndex(({ known, node }) => known === walker.known && node === walker.node);
      if (same < 0) here.push(walker);
      else if ((here[same] as Walker).gained < walker.gained) here[same] = walker;
    };
    const start = course.gate(0);
    put(start, { known: encoded.given, node: this.graph.root, gained: 0, last: null });
    const wanted = new Map(begun.map((step) => [step.at, step]));
    for (let at = start; at < course.places.length; at += 1) {
      const best = (waiting[at] ?? [])
        .map((walker) => ({ walker, promise: walker.gained + this.ahead(walker.node) }))
        .sort((a, b) => b.promise - a.promise)
        .slice(0, WALKERS);
      for (const { walker } of best) {
        const must = wanted.get(at);
        for (const { step, known, node } of this.steps(at, walker)) {
          if (must !== undefined && !isSameWay(must, step)) continue;
          const gained = step.events.reduce((sum, event) => sum + (weights[event] ?? 0), walker.gained);
          const last = { step, before: walker.last };
          if (step.place !== null && node !== null) put(step.place, { known, node, gained, last });
          else if (step.place === null && (done === null || done.gained < gained)) done = { gained, last };
        }
      }
      waiting[at] = [];
    }
    if (done === null) return null;
    const path: ForkStep[] = [];
    for (let last = done.last; last !== null; last = last.before) path.unshift(last.step);
    return path;
  }

  private *steps(at: number, { known, node }: Walker) {
    const { diagrams } = this.encoded;
    for (const branch of waysFrom(this.encoded, at, known)) {
      const step: ForkStep = { at, events: this.events.numbersOf(branch), place: branch.to };
      const edge = node.edges.find((way) => isSameWay(way, step));
      // Without an edge nobody who goes this way comes to an ending.
      if (edge === undefined) continue;
      const next =
        branch.to === null ? FALSE : diagrams.forget(branch.mass, this.encoded.isPastAt(branch.to));
      yield { step, known: next, node: edge.to };
    }
  }
}
