/**
 * The analysis of a plan: counts its routes once; the result then answers questions about single routes, and about lists
 * of them, without counting again.
 */
import { passKey } from '../document/addresses';
import type { Plan } from '../routing/plan';
import type { Ahead, Analysis, ContentMarkOf, PassAsked } from './analysis';
import type { WayTaken } from './answers/via';
import { terrainWithin } from './conditions/within';
import { Beliefs } from './counting/belief';
import { countRoutes } from './counting/count';
import { routesByEnding, routesByItem, waysTo, type RoutesOfItems } from './counting/counts';
import type { Graph } from './counting/graph';
import { allRoutes, countOf } from './counting/prefix';
import {
  firstHeaviest,
  firstOfLength,
  numberIn,
  numberMatching,
  prefixOf,
  seenOn,
  sightsOf,
  type Route,
} from './counting/routes';
import type { Sight } from './counting/sights';
import { BY_QUESTIONS, Tally, type QuestionSpan } from './counting/tally';
import { witnessOf } from './counting/witness';
import type { Workshop } from './counting/workshop';
import { coverRoutes, pairRoutes, type CoverResult, type PairsResult } from './cover/covering';
import { DEFAULT_CAPS, withinMemory, type Caps } from './diagrams/limits';
import { filterRoutes, type RouteFilter } from './lists/filters';
import { selectRoutes, type Numbering, type Selection } from './lists/selection';
import { TooEntangled } from './lists/steps';
import { filteredTakers, numbered, takersOf, type FilteredRoutes, type Takers } from './lists/takers';
import type { Version } from './lists/touched';
import { askedOf, type Reach } from './reach/reach';

/**
 * Counts the routes of a plan, within the caps. With a workshop, what an edit has not touched is found again; an analysis
 * made there before is not to be asked any more.
 */
export function analyse(plan: Plan, caps: Caps = DEFAULT_CAPS, workshop: Workshop | null = null): Analysis {
  return new CountedPlan(plan, caps, workshop);
}

class CountedPlan implements Analysis {
  readonly routes: bigint;
  readonly exact: boolean;
  readonly limits: Analysis['limits'];
  readonly endings: Analysis['endings'];
  readonly shortest: Analysis['shortest'];
  readonly longest: Analysis['longest'];
  /** Null where even the conditions by themselves are too much. */
  private beliefs: Beliefs | null;
  private readonly root: Graph['root'];
  private readonly byItem: RoutesOfItems;
  private readonly numbering: Numbering;
  private reached: Reach | null = null;
  private coverFound: CoverResult | null = null;
  private pairsFound: PairsResult | null = null;
  private questions: Tally<QuestionSpan> | null = null;
  private readonly takers = new Map<string, Takers>();

  constructor(
    private readonly plan: Plan,
    private readonly caps: Caps,
    private readonly workshop: Workshop | null,
  ) {
    const { beliefs, graph, limits } = countRoutes(plan, caps, workshop);
    const { root } = graph;
    const ways = waysTo(graph);
    this.beliefs = beliefs;
    this.root = root;
    this.routes = root.routes;
    this.exact = limits.length === 0;
    this.limits = limits;
    this.endings = routesByEnding(plan, ways);
    this.byItem = routesByItem(plan, graph, ways);
    const some = root.routes > 0n;
    this.shortest = some ? { items: root.shortest, number: firstOfLength(root, 'shortest') } : null;
    this.longest = some ? { items: root.longest, number: firstOfLength(root, 'longest') } : null;
    this.numbering = {
      numberOf: (items, ending) => this.numberOf(items, ending),
      outline: (number) => this.outline(number),
    };
  }

  get items(): ReadonlyMap<string, bigint> {
    return this.byItem.items;
  }

  get asked(): ReadonlyMap<string, string> {
    // What no route presents is asked of nobody, for whatever reason.
    const isNever = (name: string) => this.exact && this.items.get(name) === 0n;
    return new Map([...this.reach.items].map(([name, text]) => [name, isNever(name) ? 'never' : text]));
  }

  get passes(): ReadonlyMap<string, readonly PassAsked[]> {
    return passesIn(this.plan, this.reach, this.byItem.inPass);
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
    const sights = sightsOf(this.root, number);
    if (sights === null) return null;
    const witness = this.witness(sights);
    return witness && { number, ...seenOn(this.plan, sights), ...witness };
  }

  outline(number: bigint): Pick<Route, 'number' | 'items' | 'ending'> | null {
    const sights = sightsOf(this.root, number);
    return sights && { number, ...seenOn(this.plan, sights) };
  }

  numberOf(items: readonly string[], ending: string): bigint | null {
    return numberIn(this.plan, this.root, items, ending);
  }

  filtered({ taking = [], ...filter }: RouteFilter): FilteredRoutes {
    if (taking.length > 0) return filteredTakers(this.plan, this.takersOf(taking), filter, this.numbering);
    const left = filterRoutes(this.root, this.plan.endings, filter);
    return { ...left, exact: this.exact, route: numbered(left, (number) => this.route(number)) };
  }

  select({ taking = [], ...selection }: Selection): ReturnType<Analysis['select']> {
    const of = taking.length === 0 ? { root: this.root, exact: this.exact } : this.takersOf(taking);
    try {
      return { ...selectRoutes(this.plan, of.root, this.numbering, selection), exact: of.exact };
    } catch (error) {
      if (error instanceof TooEntangled) return null;
      throw error;
    }
  }

  version({ item, ending }: ContentMarkOf): Version {
    return {
      root: this.root,
      order: this.plan.sections.flatMap(({ items }) => items.map((each) => item(each.item.name, null))),
      markOf: (sight) => this.mark(sight, { item, ending }),
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
    return numberMatching(this.root, marks, (sight) => this.mark(sight, markOf));
  }

  private mark({ planItem, pass, ending }: Sight, markOf: ContentMarkOf): string {
    return planItem === null
      ? markOf.ending(this.plan.endings[ending]?.ending.id ?? '')
      : markOf.item(planItem.item.name, pass);
  }

  private get reach(): Reach {
    return (this.reached ??= askedOf(this.plan, this.caps, this.workshop));
  }

  private takersOf(taking: readonly WayTaken[]): Takers {
    const key = JSON.stringify(taking);
    const of = this.takers.get(key) ?? takersOf(this.plan, this.caps, taking);
    this.takers.set(key, of);
    return of;
  }

  private witness(sights: readonly Sight[]) {
    const witness = withinMemory(() => {
      this.beliefs?.terrain.diagrams.rest();
      return this.beliefs && witnessOf(this.beliefs, sights);
    });
    if (witness !== null) return witness;
    // Counting has filled the memory for diagrams: one route by itself needs little of it.
    return withinMemory(() => {
      this.beliefs = new Beliefs(terrainWithin(this.plan, this.caps));
      return witnessOf(this.beliefs, sights);
    });
  }
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
