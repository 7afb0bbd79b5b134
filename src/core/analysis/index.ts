/**
 * The analysis of a plan: how many routes, which, and who takes them.
 *
 * `analyse` counts once; the result then answers questions about single routes without counting again.
 */
import { passKey } from '../document/addresses';
import type { Plan } from '../routing/plan';
import type { Place } from '../routing/problems';
import { Beliefs } from './belief';
import { coverRoutes, pairRoutes, type CoverResult, type PairsResult } from './covering';
import { Diagrams } from './diagram';
import type { Limit } from './drivers';
import { filterRoutes, type RouteFilter } from './filters';
import { Entangled, Flow } from './flow';
import { buildGraph, DEFAULT_CAPS, type Caps, type Graph, type Node } from './graph';
import { allRoutes, countOf } from './prefix';
import { reachOf, type Reach } from './reach';
import {
  firstHeaviest,
  firstOfLength,
  numberIn,
  numberMatching,
  prefixOf,
  seenOn,
  sightsOf,
  type Route,
} from './routes';
import { isSameRouting } from './same-routing';
import { selectRoutes, type Selected, type Selection } from './selection';
import { sharesIn, type Shares } from './shares';
import { TooEntangled } from './steps';
import { filteredTakers, numbered, takersOf, type FilteredRoutes, type Takers } from './takers';
import type { WayTaken } from './taking';
import { BY_QUESTIONS, HOW_MANY, Tally, type QuestionSpan } from './tally';
import { Terrain } from './terrain';
import type { Version } from './touched';
import { transitionsIn, type Transition } from './transitions';
import { isTooMuch, terrainWithin, withinMemory } from './within';
import { witnessOf } from './witness';
import { Bench, type Workshop } from './workshop';

export type { Limit } from './drivers';
export type { ChosenRoute, CoverResult, PairsResult } from './covering';
export { MOST_THROUGH, type RouteFilter, type RoutesLeft } from './filters';
export { listed, withFront, without } from './lists';
export type { FilteredRoutes } from './takers';
export type { ForkEvent } from './ways';
export { isTooMuch, withinMemory } from './within';
export type { Selected, Selection } from './selection';
export type { WayTaken } from './taking';
export type { Version } from './touched';
export { Workshop } from './workshop';
export type { Route } from './routes';
export { whoFlows, type Flowing } from './flow-words';
export type { Transition } from './transitions';
export type { Likeliest, LikelyRoute } from './likeliest';
export type { Shares, WayShare } from './shares';
export { DEFAULT_CAPS, type Caps } from './graph';

export interface RouteLength {
  /** Questions and statements presented. */
  readonly items: number;
  /** Number of the first route of this length. */
  readonly number: bigint;
}

/** An item in one pass of its section. */
export interface PassAsked {
  readonly pass: number;
  /** Routes on which it is presented in this pass. */
  readonly routes: bigint;
  /** Who has the pass, as from outside the section; see `Reach.passes`. */
  readonly if: string;
}

export interface Analysis {
  /** How many routes; a proven lower bound unless `exact`. */
  readonly routes: bigint;
  readonly exact: boolean;
  readonly limits: readonly Limit[];
  /** Routes by ending, in the document's order. */
  readonly endings: readonly { readonly id: string; readonly routes: bigint }[];
  /** Routes on which an item is presented, in any pass, by name. */
  readonly items: ReadonlyMap<string, bigint>;
  /** Who is asked each item, by name: a condition, `always` or `never`; see `reach.ts`. Worked out when first read. */
  readonly asked: ReadonlyMap<string, string>;
  /** The same by pass, for the items of repeated sections. Worked out when first read. */
  readonly passes: ReadonlyMap<string, readonly PassAsked[]>;
  /** Where it was too much to say who is asked, so that `asked` and `passes` lack it; none where all is said. */
  readonly unsaid: readonly Limit[];
  readonly shortest: RouteLength | null;
  readonly longest: RouteLength | null;
  /** The route on which the seconds of its items, by name, add up to most; null where there is none. */
  slowest(seconds: (name: string) => number): { readonly seconds: number; readonly number: bigint } | null;
  /** Few routes that take every fork. Worked out when first read. */
  readonly cover: CoverResult;
  /** Few routes that take every two outcomes of forks that somebody meets together. Worked out when first read. */
  readonly pairs: PairsResult;
  /**
   * Route `number`, from 1, in canonical order; null where there is none, its region was not opened, or nobody could be
   * found who takes it.
   */
  route(number: bigint): Route | null;
  /** What is presented on route `number` and where it ends, without working out a respondent. */
  outline(number: bigint): Pick<Route, 'number' | 'items' | 'ending'> | null;
  /** The number of the route with these items (`name#pass` in a repeat) and ending; null where there is none. */
  numberOf(items: readonly string[], ending: string): bigint | null;
  /** The routes that a filter leaves. */
  filtered(filter: RouteFilter): FilteredRoutes;
  /** Chosen by everything at once; null where that is too entangled to tell. */
  select(selection: Selection): (Selected & { readonly exact: boolean }) | null;
  /** The routes by what they show, to compare with those of another version. */
  version(markOf: ContentMarkOf): Version;
  /** What still lies ahead of a respondent who was presented these items so far; null where no route begins so. */
  ahead(items: readonly string[]): Ahead | null;
  /** The number of the first route whose items and ending, in order, carry these marks. */
  numberShowing(marks: readonly string[], markOf: ContentMarkOf): bigint | null;
}

/** Marks of what is shown: equal marks, equal words and answers. */
export interface ContentMarkOf {
  item(name: string, pass: number | null): string;
  ending(id: string): string;
}

export interface Ahead {
  /** Routes that begin like this. */
  readonly routes: bigint;
  /** Fewest and most questions still to come. */
  readonly least: number;
  readonly most: number;
}

/** With a workshop, what an edit has not touched is found again; an analysis made there before is not to be asked any more. */
export function analyse(plan: Plan, caps: Caps = DEFAULT_CAPS, workshop: Workshop | null = null): Analysis {
  const begun = beginning(plan, caps, workshop);
  const { graph } = begun;
  let { beliefs } = begun;
  const { root } = graph;
  const limits = beliefs === null ? [TOO_ENTANGLED] : [...beliefs.terrain.limits, ...capLimit(graph, caps)];
  const some = root.routes > 0n;
  const ways = waysTo(graph);
  const { items, inPass } = routesByItem(plan, graph, ways);
  let reached: Reach | null = null;
  const reach = () => (reached ??= askedOf(plan, caps, workshop));
  let cover: CoverResult | null = null;
  let pairs: PairsResult | null = null;
  const numberOf = (items: readonly string[], ending: string) => numberIn(plan, root, items, ending);
  const outline = (number: bigint) => {
    const sights = sightsOf(root, number);
    return sights === null ? null : { number, ...seenOn(plan, sights) };
  };
  const numbering = { numberOf, outline };
  let questions: Tally<QuestionSpan> | null = null;
  const takers = new Map<string, Takers>();
  const takersTaking = (taking: readonly WayTaken[]) => {
    const key = JSON.stringify(taking);
    const of = takers.get(key) ?? takersOf(plan, caps, taking);
    takers.set(key, of);
    return of;
  };
  const route = (number: bigint): Route | null => {
    const sights = sightsOf(root, number);
    if (sights === null) return null;
    const seen = { number, ...seenOn(plan, sights) };
    const witness = withinMemory(() => {
      beliefs?.terrain.diagrams.rest();
      return beliefs && witnessOf(beliefs, sights);
    });
    if (witness !== null) return { ...seen, ...witness };
    // Counting has filled the memory for diagrams: one route by itself needs little of it.
    const again = withinMemory(() => {
      beliefs = new Beliefs(terrainWithin(plan, caps));
      return witnessOf(beliefs, sights);
    });
    return again && { ...seen, ...again };
  };
  return {
    routes: root.routes,
    exact: limits.length === 0,
    limits,
    endings: routesByEnding(plan, ways),
    items,
    get asked() {
      // What no route presents is asked of nobody, for whatever reason.
      const isNever = (name: string) => limits.length === 0 && items.get(name) === 0n;
      return new Map([...reach().items].map(([name, text]) => [name, isNever(name) ? 'never' : text]));
    },
    get passes() {
      return passesIn(plan, reach(), inPass);
    },
    get unsaid() {
      return reach().limits;
    },
    slowest(seconds) {
      if (!some) return null;
      const { weight, number } = firstHeaviest(root, ({ planItem }) =>
        planItem === null ? 0 : Math.round(seconds(planItem.item.name) * 1000),
      );
      return { seconds: weight / 1000, number };
    },
    get cover() {
      cover ??= coverRoutes(plan, caps, numberOf);
      return cover;
    },
    get pairs() {
      pairs ??= pairRoutes(plan, caps, numberOf);
      return pairs;
    },
    shortest: some ? { items: root.shortest, number: firstOfLength(root, 'shortest') } : null,
    longest: some ? { items: root.longest, number: firstOfLength(root, 'longest') } : null,
    route,
    outline,
    filtered({ taking = [], ...filter }) {
      if (taking.length === 0) {
        const left = filterRoutes(root, plan.endings, filter);
        return { ...left, exact: limits.length === 0, route: numbered(left, route) };
      }
      return filteredTakers(plan, takersTaking(taking), filter, numbering);
    },
    select({ taking = [], ...selection }) {
      const of = taking.length === 0 ? { root, exact: limits.length === 0 } : takersTaking(taking);
      const selected = refusing(TooEntangled, () => selectRoutes(plan, of.root, numbering, selection));
      return selected && { ...selected, exact: of.exact };
    },
    version: ({ item, ending }) => ({
      root,
      order: plan.sections.flatMap(({ items }) => items.map((each) => item(each.item.name, null))),
      markOf: ({ planItem, pass, ending: e }) =>
        planItem === null ? ending(plan.endings[e]?.ending.id ?? '') : item(planItem.item.name, pass),
    }),
    ahead(items) {
      const prefix = prefixOf(
        root,
        items,
        ({ planItem, pass }) => planItem && passKey(planItem.item.name, pass),
      );
      questions ??= new Tally(
        BY_QUESTIONS,
        () => true,
        () => BY_QUESTIONS.one,
      );
      return prefix && { routes: countOf(prefix, allRoutes), ...questions.ahead(prefix) };
    },
    numberOf,
    numberShowing: (marks, markOf) =>
      numberMatching(root, marks, ({ planItem, pass, ending }) =>
        planItem === null
          ? markOf.ending(plan.endings[ending]?.ending.id ?? '')
          : markOf.item(planItem.item.name, pass),
      ),
  };
}

interface Begun {
  /** Null where even the conditions by themselves are too much. */
  readonly beliefs: Beliefs | null;
  readonly graph: Graph;
}

const TOO_ENTANGLED: Limit = {
  at: {},
  message: 'the conditions are too entangled to be worked out, so no route was counted',
};

/** Of which nothing is known. */
const NOTHING_SEEN: Graph = {
  root: {
    kind: 'fork',
    spot: { rank: 0 },
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

function beginning(plan: Plan, caps: Caps, workshop: Workshop | null): Begun {
  const bench = workshop?.bench('routes', caps);
  if (bench !== undefined) {
    const { diagrams, ranks, graph: memory } = bench;
    const again = withinMemory((): Begun => {
      const beliefs = new Beliefs(new Terrain(plan, diagrams, { ranks }), memory.sights);
      return { beliefs, graph: buildGraph(beliefs, caps, memory) };
    });
    if (again?.graph.stoppedAt === null) return again;
    // What was kept takes room: where there is not enough of it, everything is begun anew.
    workshop?.clear('routes');
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
  const beliefs = new Beliefs(terrainWithin(plan, caps));
  return { beliefs, graph: buildGraph(beliefs, caps) };
}

/** Null where it throws the refusal given. */
function refusing<Result>(refusal: new () => Error, work: () => Result): Result | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof refusal) return null;
    throw error;
  }
}

function askedOf(plan: Plan, caps: Caps, workshop: Workshop | null): Reach {
  const bench = workshop?.bench('asked', caps);
  const again = bench && reachOf(plan, bench);
  if (again?.limits.length === 0) return again;
  workshop?.clear('asked');
  return reachOf(plan, new Bench(caps));
}

/** Shares of the sample; null where they could not be exact, or the conditions are too entangled. */
export function sharesOf(plan: Plan, caps: Caps = DEFAULT_CAPS): Shares | null {
  try {
    const terrain = new Terrain(plan, new Diagrams(caps.nodes, caps.steps), { everyValue: true });
    return terrain.limits.length > 0 ? null : sharesIn(plan, terrain);
  } catch (error) {
    if (isTooMuch(error)) return null;
    throw error;
  }
}

/** Who is presented what next; shares are null where they could not be exact. Null where it is too entangled. */
export function transitionsOf(
  plan: Plan,
  shares: Shares | null,
  caps: Caps = DEFAULT_CAPS,
): Transition[] | null {
  const weighed = shares && withinMemory(() => shares.transitions());
  return weighed ?? withinMemory(() => transitionsIn(terrainWithin(plan, caps), null));
}

/**
 * Who comes to each place, for the checks: every part of every condition can be asked about. Where the conditions are too
 * entangled, from which place on.
 */
export function flowOf(
  plan: Plan,
  caps: Caps = DEFAULT_CAPS,
  workshop: Workshop | null = null,
): Flow | { readonly entangledAt: Place } {
  const bench = workshop?.bench('checks', caps);
  if (bench !== undefined) {
    const { diagrams, ranks } = bench;
    const again = withinMemory(() => new Flow(new Terrain(plan, diagrams, { parts: true, ranks })));
    if (again !== null) return again;
    workshop?.clear('checks');
  }
  try {
    return new Flow(terrainWithin(plan, caps, { parts: true }));
  } catch (error) {
    if (!isTooMuch(error)) throw error;
    return { entangledAt: error instanceof Entangled ? error.at : {} };
  }
}

/**
 * Whether two versions of a questionnaire lead everybody the same way; null where that cannot be told exactly, or the
 * conditions are too entangled.
 */
export function sameRouting(one: Plan, other: Plan, caps: Caps = DEFAULT_CAPS): boolean | null {
  return withinMemory(() => isSameRouting(one, other, new Bench(caps)));
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

/** How many routes there are for each way on from a node: routes to it, times those through the parts beside it. */
function waysTo({ root, nodes }: Graph): Map<Node, bigint> {
  const ways = new Map<Node, bigint>([[root, 1n]]);
  const add = (node: Node, more: bigint) => ways.set(node, (ways.get(node) ?? 0n) + more);
  for (const node of [...nodes].reverse()) {
    const here = ways.get(node);
    if (here === undefined) continue;
    if (node.kind === 'fork') {
      for (const { to } of node.edges) if (to !== null) add(to, here);
    } else {
      const others = productsOfOthers(node.parts.map(({ routes }) => routes));
      node.parts.forEach((part, n) => add(part, here * (others[n] ?? 0n)));
    }
  }
  return ways;
}

/** For each factor the product of all others. */
function productsOfOthers(factors: readonly bigint[]): bigint[] {
  const after: bigint[] = [1n];
  for (const factor of [...factors].reverse()) after.unshift((after[0] as bigint) * factor);
  let before = 1n;
  return factors.map((factor, n) => {
    const others = before * (after[n + 1] as bigint);
    before *= factor;
    return others;
  });
}

function routesByEnding(plan: Plan, ways: ReadonlyMap<Node, bigint>): Analysis['endings'] {
  const counts = plan.endings.map(() => 0n);
  for (const [node, here] of ways) {
    if (node.kind === 'parts') continue;
    for (const { sight, to } of node.edges)
      if (to === null && sight !== null) counts[sight.ending] = (counts[sight.ending] ?? 0n) + here;
  }
  return plan.endings.map(({ ending }, index) => ({ id: ending.id, routes: counts[index] ?? 0n }));
}

interface RoutesOfItems {
  readonly items: Map<string, bigint>;
  /** By `name#pass`, of the items of repeated sections. */
  readonly inPass: ReadonlyMap<string, bigint>;
}

/**
 * Ways to an item times routes onward from it. An item of a repeated section may be passed several times on one
 * route, so there the routes that avoid it are counted and taken off the total.
 */
function routesByItem(plan: Plan, { root }: Graph, ways: ReadonlyMap<Node, bigint>): RoutesOfItems {
  const counts = new Map<string, bigint>();
  const inPass = new Map<string, bigint>();
  const repeated = new Set<string>();
  for (const { repeat, items } of plan.sections) {
    for (const { item } of items) {
      counts.set(item.name, 0n);
      if (repeat !== null) repeated.add(item.name);
    }
  }
  for (const [node, here] of ways) {
    if (node.kind === 'parts') continue;
    for (const { sight, to } of node.edges) {
      const name = sight?.planItem?.item.name;
      if (name === undefined || to === null) continue;
      const by = repeated.has(name) ? inPass : counts;
      const key = repeated.has(name) ? passKey(name, sight?.pass ?? null) : name;
      by.set(key, (by.get(key) ?? 0n) + here * to.routes);
    }
  }
  for (const name of repeated) {
    const avoiding = new Tally(
      HOW_MANY,
      (sight) => sight.planItem?.item.name !== name,
      ({ routes }) => routes,
    );
    counts.set(name, root.routes - avoiding.from(root));
  }
  return { items: counts, inPass };
}

function passesIn(
  { sections }: Plan,
  { passes }: Reach,
  inPass: ReadonlyMap<string, bigint>,
): Map<string, readonly PassAsked[]> {
  const found = new Map<string, readonly PassAsked[]>();
  for (const { section, items } of sections) {
    const conditions = passes.get(section.id);
    if (conditions === undefined) continue;
    for (const { item } of items)
      found.set(
        item.name,
        conditions.map((text, n) => ({
          pass: n + 1,
          routes: inPass.get(passKey(item.name, n + 1)) ?? 0n,
          if: text,
        })),
      );
  }
  return found;
}
