/**
 * Counting begun: the graph of routes over what a questionnaire leaves of an earlier count, over nothing, or, where even
 * that is too much, over little of it, with why.
 */
import type { Plan } from '../../routing/plan';
import type { Limit } from '../answers/drivers';
import { EncodedPlan } from '../conditions/encoded-plan';
import { encodedWithin } from '../conditions/encoded-within';
import { withinMemory, type Caps } from '../diagrams/limits';
import type { AnalysisCache } from './analysis-cache';
import { Beliefs } from './belief';
import { buildGraph } from './build-graph';
import type { Graph } from './graph';

export interface Count {
  /** Null where even the conditions by themselves are too much. */
  readonly beliefs: Beliefs | null;
  readonly graph: Graph;
  /** Why there may be more routes than were counted; none where the count is exact. */
  readonly limits: readonly Limit[];
}

type Begun = Omit<Count, 'limits'>;

/** With a cache, what an edit has not touched is found again. */
export function countRoutes(plan: Plan, caps: Caps, cache: AnalysisCache | null): Count {
  const { beliefs, graph } = beginning(plan, caps, cache);
  const limits = beliefs === null ? [TOO_ENTANGLED] : [...beliefs.encoded.limits, ...capLimit(graph, caps)];
  return { beliefs, graph, limits };
}

const TOO_ENTANGLED: Limit = {
  at: {},
  message: 'the conditions are too entangled to be worked out, so no route was counted',
};

/** Of which nothing is known. */
const NOTHING_SEEN: Graph = {
  root: {
    kind: 'fork',
    at: { rank: 0 },
    edges: [],
    opened: false,
    routes: 0n,
    shortest: Infinity,
    longest: -Infinity,
  },
  nodes: [],
  beliefs: 0,
  stoppedAt: null,
};

/** Beliefs told apart where telling more of them apart took all the memory before one way to an ending was found. */
const FEW_BELIEFS = 50;

function beginning(plan: Plan, caps: Caps, cache: AnalysisCache | null): Begun {
  const work = cache?.work('routes', caps);
  if (work !== undefined) {
    const { diagrams, ranks, graph: memory } = work;
    const again = withinMemory((): Begun => {
      const beliefs = new Beliefs(new EncodedPlan(plan, diagrams, { ranks }), memory.observations);
      return { beliefs, graph: buildGraph(beliefs, caps, memory) };
    });
    if (again?.graph.stoppedAt === null) return again;
    // What was kept takes room: where there is not enough of it, everything is begun anew.
    cache?.clear('routes');
  }
  return (
    withinMemory(() => {
      const begun = fromNothing(plan, caps);
      const { root, stoppedAt } = begun.graph;
      if (stoppedAt === null || root.routes > 0n) return begun;
      return fromNothing(plan, { ...caps, beliefs: FEW_BELIEFS });
    }) ?? { beliefs: null, graph: NOTHING_SEEN }
  );
}

function fromNothing(plan: Plan, caps: Caps): Begun {
  const beliefs = new Beliefs(encodedWithin(plan, caps));
  return { beliefs, graph: buildGraph(beliefs, caps) };
}

function capLimit({ stoppedAt, beliefs }: Graph, caps: Caps): Limit[] {
  if (stoppedAt === null) return [];
  const what =
    beliefs >= caps.beliefs
      ? `${caps.beliefs} combinations of what was seen`
      : 'what fits in memory and in the time allowed';
  return [
    {
      at: { item: stoppedAt },
      message: `more than ${what} would have to be told apart from here on; of each way further on just one route was counted`,
    },
  ];
}
