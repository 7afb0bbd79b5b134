/**
 * The analysis of a plan: counts its routes once; the result then answers questions about single routes, and about lists
 * of them, without counting again.
 */
import { passKey } from '../document/addresses';
import type { Plan } from '../routing/plan';
import type { Ahead, Analysis, ContentMarkOf, PassAsked } from './analysis';
import type { Via } from './answers/via';
import { encodedWithin } from './conditions/encoded-within';
import type { AnalysisCache } from './counting/analysis-cache';
import { Beliefs } from './counting/belief';
import { countRoutes } from './counting/count';
import { presentedItems, routesByEnding, routesByItem, waysTo, type RoutesOfItems } from './counting/counts';
import type { Graph } from './counting/graph';
import type { Observation } from './counting/observations';
import { allRoutes, countOf } from './counting/prefix';
import {
  firstHeaviest,
  firstOfLength,
  numberIn,
  numberMatching,
  observationsOf,
  prefixOf,
  seenOn,
  type Route,
} from './counting/routes';
import { BY_QUESTIONS, Tally, type QuestionSpan } from './counting/tally';
import { witnessOf } from './counting/witness';
import { coverRoutes, pairRoutes, type CoverResult, type PairsResult } from './cover/covering';
import { DEFAULT_CAPS, withinMemory, type Caps } from './diagrams/limits';
import { filterRoutes, type RouteFilter } from './lists/filters';
import { TooEntangled } from './lists/part-graphs';
import type { RouteVersion } from './lists/route-difference';
import { selectRoutes, type Numbering, type Selection } from './lists/selection';
import {
  filteredViaRoutes,
  numbered,
  viaRoutesOf,
  type FilteredRoutes,
  type ViaRoutes,
} from './lists/via-routes';
import { askedAmong, askedOf, type WhoIsAsked } from './reach/reach';

/**
 * Counts the routes of a plan, within the caps. With a cache, what an edit has not touched is found again; an analysis
 * made there before is not to be asked any more.
 */
export function analyse(plan: Plan, caps: Caps = DEFAULT_CAPS, cache: AnalysisCache | null = null): Analysis {
  return new CountedPlan(plan, caps, cache);
}

class CountedPlan implements Analysis {
  readonly routes: bigint;
  readonly exact: boolean;
  readonly limits: Analysis['limits'];
  readonly shortest: Analysis['shortest'];
  readonly longest: Analysis['longest'];
  /** Null where even the conditions by themselves are too much. */
  private beliefs: Beliefs | null;
  private readonly root: Graph['root'];
  private readonly graph: Graph;
  /** By edges of the graph; worked out with what is first asked of items or endings. */
  private presentedFound: ReadonlySet<string> | null = null;
  private waysFound: ReturnType<typeof waysTo> | null = null;
  private byItemFound: RoutesOfItems | null = null;
  private endingsFound: Analysis['endings'] | null = null;
  private readonly numbering: Numbering;
  private reached: WhoIsAsked | null = null;
  private coverFound: CoverResult | null = null;
  private pairsFound: PairsResult | null = null;
  private questions: Tally<QuestionSpan> | null = null;
  private readonly viaRoutes = new Map<string, ViaRoutes>();

  constructor(
    private readonly plan: Plan,
    private readonly caps: Caps,
    private readonly cache: AnalysisCache | null,
  ) {
    const { beliefs, graph, limits } = countRoutes(plan, caps, cache);
    const { root } = graph;
    this.beliefs = beliefs;
    this.graph = graph;
    this.root = root;
    this.routes = root.routes;
    this.exact = limits.length === 0;
    this.limits = limits;
    const some = root.routes > 0n;
    this.shortest = some ? { items: root.shortest, number: firstOfLength(root, 'shortest') } : null;
    this.longest = some ? { items: root.longest, number: firstOfLength(root, 'longest') } : null;
    this.numbering = {
      numberOf: (items, ending) => this.numberOf(items, ending),
      outline: (number) => this.outline(number),
    };
  }

  private get ways(): ReturnType<typeof waysTo> {
    return (this.waysFound ??= waysTo(this.graph));
  }

  private get byItem(): RoutesOfItems {
    return (this.byItemFound ??= routesByItem(this.plan, this.graph, this.ways));
  }

  get endings(): Analysis['endings'] {
    return (this.endingsFound ??= routesByEnding(this.plan, this.ways));
  }

  get items(): ReadonlyMap<string, bigint> {
    return this.byItem.items;
  }

  get asked(): ReadonlyMap<string, string> {
    return this.askedIn(this.reach);
  }

  get passes(): ReadonlyMap<string, readonly PassAsked[]> {
    return passesIn(this.plan, this.reach, this.byItem.inPass);
  }

  askedAmong(names: ReadonlySet<string> | null): ReturnType<Analysis['askedAmong']> {
    const reach = names === null ? this.reach : (this.reached ?? askedAmong(this.plan, this.caps, names));
    return { asked: this.askedIn(reach), passes: reach.passes };
  }

  private askedIn({ items }: WhoIsAsked): ReadonlyMap<string, string> {
    // What no route presents is asked of nobody, for whatever reason.
    const isNever = (name: string) => this.exact && !this.isPresented(name);
    return new Map([...items].map(([name, text]) => [name, isNever(name) ? 'never' : text]));
  }

  /** On some route; told by the counts where they are there already. */
  private isPresented(name: string): boolean {
    if (this.byItemFound !== null) return this.byItemFound.items.get(name) !== 0n;
    this.presentedFound ??= presentedItems(this.graph);
    return this.presentedFound.has(name);
  }

  get unsaid(): Analysis['unsaid'] {
    return this.reach.limits;
  }

  get cover(): CoverResult {
    return (this.coverFound ??= coverRoutes(this.plan, this.caps, this.numbering.numberOf));
  }

  get pairs(): PairsResult {
    return (this.pairsFound ??= pairRoutes(this.plan, this.caps, this.numbering.numberOf));
  }

  slowest(seconds: (name: string) => number): { seconds: number; number: bigint } | null {
    if (this.routes === 0n) return null;
    const { weight, number } = firstHeaviest(this.root, ({ planItem }) =>
      planItem === null ? 0 : Math.round(seconds(planItem.item.name) * 1000),
    );
    return { seconds: weight / 1000, number };
  }

  route(number: bigint): Route | null {
    const observations = observationsOf(this.root, number);
    if (observations === null) return null;
    const witness = this.witness(observations);
    return witness && { number, ...seenOn(this.plan, observations), ...witness };
  }

  outline(number: bigint): Pick<Route, 'number' | 'items' | 'ending'> | null {
    const observations = observationsOf(this.root, number);
    return observations && { number, ...seenOn(this.plan, observations) };
  }

  numberOf(items: readonly string[], ending: string): bigint | null {
    return numberIn(this.plan, this.root, items, ending);
  }

  filtered({ via = [], ...filter }: RouteFilter): FilteredRoutes {
    if (via.length > 0) return filteredViaRoutes(this.plan, this.viaRoutesOf(via), filter, this.numbering);
    const left = filterRoutes(this.root, this.plan.endings, filter);
    return { ...left, exact: this.exact, route: numbered(left, (number) => this.route(number)) };
  }

  select({ via = [], ...selection }: Selection): ReturnType<Analysis['select']> {
    const of = via.length === 0 ? { root: this.root, exact: this.exact } : this.viaRoutesOf(via);
    try {
      return { ...selectRoutes(this.plan, of.root, this.numbering, selection), exact: of.exact };
    } catch (error) {
      if (error instanceof TooEntangled) return null;
      throw error;
    }
  }

  version({ item, ending }: ContentMarkOf): RouteVersion {
    return {
      root: this.root,
      order: this.plan.sections.flatMap(({ items }) => items.map((each) => item(each.item.name, null))),
      markOf: (observation) => this.mark(observation, { item, ending }),
    };
  }

  ahead(items: readonly string[]): Ahead | null {
    const prefix = prefixOf(
      this.root,
      items,
      ({ planItem, pass }) => planItem && passKey(planItem.item.name, pass),
    );
    this.questions ??= new Tally(
      BY_QUESTIONS,
      () => true,
      () => BY_QUESTIONS.one,
    );
    return prefix && { routes: countOf(prefix, allRoutes), ...this.questions.ahead(prefix) };
  }

  numberShowing(marks: readonly string[], markOf: ContentMarkOf): bigint | null {
    return numberMatching(this.root, marks, (observation) => this.mark(observation, markOf));
  }

  private mark({ planItem, pass, ending }: Observation, markOf: ContentMarkOf): string {
    return planItem === null
      ? markOf.ending(this.plan.endings[ending]?.ending.id ?? '')
      : markOf.item(planItem.item.name, pass);
  }

  private get reach(): WhoIsAsked {
    return (this.reached ??= askedOf(this.plan, this.caps, this.cache));
  }

  private viaRoutesOf(via: readonly Via[]): ViaRoutes {
    const key = JSON.stringify(via);
    const of = this.viaRoutes.get(key) ?? viaRoutesOf(this.plan, this.caps, via);
    this.viaRoutes.set(key, of);
    return of;
  }

  private witness(observations: readonly Observation[]) {
    const witness = withinMemory(() => {
      this.beliefs?.encoded.diagrams.rest();
      return this.beliefs && witnessOf(this.beliefs, observations);
    });
    if (witness !== null) return witness;
    // Counting has filled the memory for diagrams: one route by itself needs little of it.
    return withinMemory(() => {
      this.beliefs = new Beliefs(encodedWithin(this.plan, this.caps));
      return witnessOf(this.beliefs, observations);
    });
  }
}

function passesIn(
  { sections }: Plan,
  { passes }: WhoIsAsked,
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
