/** The covering set of a questionnaire: exact where its forks can all be told apart, and with a guide where not. */
import type { EncodedPlan } from '../conditions/encoded-plan';
import { FALSE } from '../diagrams/diagram';
import { TooManyNodes } from '../diagrams/limits';
import { Flow } from '../reach/flow';
import { waysFrom, type Branch } from '../reach/fork-events';
import { coverOf, type Cover } from './cover';
import { ForkEvents, forkGraphOf, TooManyForks, type ForkGraph } from './fork-graph';
import { ExactPaths, GuidedPaths, type ForkPath } from './fork-paths';
import { coverPairs, type PairCover } from './pairs';

export interface ForkCover extends Cover {
  /** What the paths lead through. */
  readonly encoded: EncodedPlan;
  readonly events: ForkEvents;
  /** Numbers of the outcomes that anybody can meet: of passes none at all and the last, of whoever comes furthest. */
  readonly wanted: ReadonlySet<number>;
}

/** What was found so far, before the best is known. */
export type CoverImproved = (soFar: ForkCover) => void;

/** Nodes of the graph of forks that are told apart at most, if nothing is forgotten; and if something is. */
const MOST_FORKS = 60_000;
const MOST_GUIDING = 40_000;
/** How far a variable is remembered by a graph that only guides, in places; tried one after the other. */
const REMEMBERED = [400, 120, 40, 0];

/** A path with a guide is followed by several at every place: its work is this many times what other work may be. */
const GUIDED_WORK = 4;

/**
 * The encoded plans must look into the messages of endings, and allow so many times the usual steps of work. Throws `TooManyNodes` where
 * even a guided search is too much.
 */
export function coverWithin(
  newlyEncoded: (work: number) => EncodedPlan,
  mostForks = MOST_FORKS,
  improved: CoverImproved = () => undefined,
): ForkCover {
  const encoded = newlyEncoded(1);
  const events = new ForkEvents();
  try {
    return exactly(encoded, events, forkGraphOf(encoded, events, { mostNodes: mostForks }), improved);
  } catch (error) {
    if (!(error instanceof TooManyForks || error instanceof TooManyNodes)) throw error;
  }
  return guided(newlyEncoded(GUIDED_WORK), new ForkEvents(), improved);
}

/** How the second level is covered; see `coverPairs`. */
export interface ForkPairs extends PairCover {
  readonly encoded: EncodedPlan;
  readonly events: ForkEvents;
}

/** The same for every two outcomes. Throws where the forks cannot all be told apart: `TooManyForks`, `TooManyNodes`. */
export function pairsWithin(newlyEncoded: () => EncodedPlan, mostForks = MOST_FORKS): ForkPairs {
  const encoded = newlyEncoded();
  const events = new ForkEvents();
  const graph = forkGraphOf(encoded, events, { mostNodes: mostForks });
  return { ...coverPairs(graph, events, events.outcomes(metIn(graph))), encoded, events };
}

function exactly(
  encoded: EncodedPlan,
  events: ForkEvents,
  graph: ForkGraph,
  improved: CoverImproved,
): ForkCover {
  const counting = events.counting(metIn(graph));
  if (graph.root === null) return { encoded, events, paths: [], atLeast: 0, wanted: new Set() };
  const cover = coverOf({
    finder: new ExactPaths(graph),
    events: counting,
    told: new Set([...counting].filter((event) => events.isTold(event))),
    numbers: events.all.length,
    through: () => null,
    dear: false,
    improved: (soFar) => improved({ ...soFar, encoded, events, wanted: counting }),
  });
  return { ...cover, encoded, events, wanted: counting };
}

function metIn({ nodes }: ForkGraph): Set<number> {
  const met = new Set<number>();
  for (const { edges } of nodes) for (const edge of edges) for (const event of edge.events) met.add(event);
  return met;
}

function guided(encoded: EncodedPlan, events: ForkEvents, improved: CoverImproved): ForkCover {
  const graph = guidingGraph(encoded, events);
  if (graph.root === null) return { encoded, events, paths: [], atLeast: 0, wanted: new Set() };
  const finder = new GuidedPaths(graph, encoded, events);
  const flow = new Flow(encoded);
  const occasions = occasionsOf(flow, events);
  const numbers = events.all.length;
  const none = new Float64Array(numbers);
  const through = (event: number): ForkPath | null => {
    for (const { at, branch } of occasions.get(event) ?? []) {
      const begun = flow.wayTo(at, [branch.mass])?.map(({ from, branch: taken }) => ({
        at: from,
        events: events.numbersOf(taken),
        place: taken.to,
      }));
      if (begun === undefined) continue;
      const path = finder.onward(
        [...begun, { at, events: events.numbersOf(branch), place: branch.to }],
        none,
      );
      if (path !== null) return path;
    }
    return null;
  };
  const counting = events.counting(new Set(occasions.keys()));
  const cover = coverOf({
    finder,
    events: counting,
    told: new Set([...counting].filter((event) => events.isTold(event))),
    numbers,
    through,
    dear: true,
    improved: (soFar) => improved({ ...soFar, encoded, events, wanted: counting }),
  });
  return { ...cover, encoded, events, wanted: counting };
}

function guidingGraph(encoded: EncodedPlan, events: ForkEvents): ForkGraph {
  for (const places of REMEMBERED) {
    try {
      const forgets = (level: number) => encoded.spanOf(level) > places;
      return forkGraphOf(encoded, events, { mostNodes: MOST_GUIDING, forgets });
    } catch (error) {
      if (!(error instanceof TooManyForks)) throw error;
    }
  }
  return forkGraphOf(encoded, events, { mostNodes: Infinity, forgets: () => true });
}

/** Where each event can be met by somebody who comes to an ending. */
function occasionsOf(flow: Flow, events: ForkEvents): Map<number, { at: number; branch: Branch }[]> {
  const { encoded } = flow;
  const occasions = new Map<number, { at: number; branch: Branch }[]>();
  encoded.course.places.forEach((_, at) => {
    const mass = flow.comesTo(at);
    if (mass === FALSE) return;
    for (const branch of waysFrom(encoded, at, mass)) {
      if (branch.to !== null && !flow.canEnd(branch.to, branch.mass)) continue;
      for (const event of events.numbersOf(branch)) {
        const known = occasions.get(event);
        if (known === undefined) occasions.set(event, [{ at, branch }]);
        else known.push({ at, branch });
      }
    }
  });
  return occasions;
}
