/**
 * The routes that go through items, avoid some, or end somewhere: how many, and which, by their numbers over the whole
 * graph; in canonical order, or by how many items they present.
 *
 * What is to be avoided is left out of the graph, and routes that go through an item are all but those that avoid it
 * (where several are to be gone through, by inclusion and exclusion): so counts still multiply over parts that have
 * nothing to do with each other.
 */
import { passKey } from '../../document/addresses';
import type { PlanEnding } from '../../routing/plan';
import type { Via } from '../answers/via';
import type { Node } from '../counting/graph';
import type { Observation } from '../counting/observations';
import { allRoutes, beginning, countOf, nextOf, type Next, type Prefix } from '../counting/prefix';
import { observationsOf } from '../counting/routes';
import { BY_LENGTH, HOW_MANY, lengthIn, Tally, type Algebra, type Lengths } from '../counting/tally';

export interface RouteFilter {
  /** Of each list at least one item is presented: `name` in any pass, `name#pass` in one. At most `MOST_THROUGH` lists. */
  readonly through?: readonly (readonly string[])[];
  /** None of them is presented; named in the same way. */
  readonly avoid?: readonly string[];
  /** Id of the ending. */
  readonly ending?: string;
  /** Somebody on the route takes each of these ways, all of them on one walk. */
  readonly via?: readonly Via[];
  /** Fewest and most items presented. */
  readonly least?: number;
  readonly most?: number;
  /** By the items presented, and canonical among those of one length; canonical where it is left out. */
  readonly order?: 'shortest' | 'longest';
}

/** Every further list doubles the counts that are made. */
export const MOST_THROUGH = 8;

/** Some of the routes, in an order of their own. */
export interface RoutesLeft {
  readonly total: bigint;
  /** The number, over all routes, of the k-th of them, from 1; null where there are fewer. */
  numberOf(k: bigint): bigint | null;
  /** Which of them, from 1, has a number over all routes; null where it is none of them. */
  positionOf(number: bigint): bigint | null;
}

/** Counted without listing them; in canonical order, or by length where the filter asks for it. */
export function filterRoutes(
  root: Node,
  endings: readonly PlanEnding[],
  filter: Omit<RouteFilter, 'via'>,
): RoutesLeft {
  const left = new Left(root, endings, filter);
  const strata = left.strata();
  const total = strata.reduce((sum, { routes }) => sum + routes, 0n);
  return {
    total,
    numberOf(k) {
      if (k < 1n) return null;
      let rest = k - 1n;
      for (const { lengths, routes } of strata) {
        if (rest < routes) return left.numberIn(lengths, rest);
        rest -= routes;
      }
      return null;
    },
    positionOf(number) {
      const observations = observationsOf(root, number);
      if (observations === null) return null;
      let before = 0n;
      for (const { lengths, routes } of strata) {
        if (holdsLength(lengths, observations.length - 1)) {
          const within = left.rankIn(lengths, observations);
          return within === null ? null : before + within + 1n;
        }
        before += routes;
      }
      return null;
    },
  };
}

/** Lengths that a route may have, both ends included; null: any. */
type LengthRange = readonly [least: number, most: number] | null;

const holdsLength = (span: LengthRange, length: number) =>
  span === null || (length >= span[0] && length <= span[1]);

class Left {
  private readonly lists: readonly ReadonlySet<string>[];
  private readonly avoid: ReadonlySet<string>;
  private readonly counts = new Map<number, Tally<bigint>>();
  private readonly lengths = new Map<number, Tally<Lengths>>();
  private readonly first: Prefix | null;

  constructor(
    private readonly root: Node,
    private readonly endings: readonly PlanEnding[],
    private readonly filter: Omit<RouteFilter, 'via'>,
  ) {
    const { through = [], avoid = [] } = filter;
    if (through.length > MOST_THROUGH) throw new RangeError(`more than ${MOST_THROUGH} lists to go through`);
    this.lists = through.map((names) => new Set(names));
    this.avoid = new Set(avoid);
    this.first = beginning(root);
  }

  /** The routes that are left, those of one place in the order after the other. */
  strata(): { lengths: LengthRange; routes: bigint }[] {
    const { least = 0, most = Infinity, order } = this.filter;
    const any = least === 0 && most === Infinity;
    const spans: LengthRange[] = [];
    if (order === undefined) spans.push(any ? null : [least, most]);
    else {
      for (let length = this.root.shortest; length <= this.root.longest; length += 1)
        if (length >= least && length <= most) spans.push([length, length]);
      if (order === 'longest') spans.reverse();
    }
    return spans.flatMap((lengths) => {
      const routes = this.first === null ? 0n : this.left(this.first, this.all, lengths, 0);
      return routes === 0n ? [] : [{ lengths, routes }];
    });
  }

  /** The number of one of them, by how many of them come before it. */
  numberIn(lengths: LengthRange, before: bigint): bigint {
    let rest = before;
    let number = 1n;
    let [prefix, waiting, items] = [this.first, this.all, 0];
    while (prefix !== null) {
      let taken: Next | null = null;
      for (const next of nextOf(prefix)) {
        const still = this.waitingAfter(next.observation, waiting);
        const here = this.through(next, still, lengths, items);
        if (rest < here) {
          taken = next;
          waiting = still;
          break;
        }
        rest -= here;
        number += countOf(next.to, allRoutes);
      }
      prefix = taken?.to ?? null;
      items += 1;
    }
    return number;
  }

  /** How many of them come before a route; null where it is none of them. */
  rankIn(lengths: LengthRange, observations: readonly Observation[]): bigint | null {
    let before = 0n;
    let [prefix, waiting] = [this.first, this.all];
    for (const [items, observation] of observations.entries()) {
      if (prefix === null) return null;
      let taken: Next | null = null;
      for (const next of nextOf(prefix)) {
        const still = this.waitingAfter(next.observation, waiting);
        const here = this.through(next, still, lengths, items);
        if (next.observation.rank === observation.rank) {
          if (here === 0n) return null;
          taken = next;
          waiting = still;
          break;
        }
        before += here;
      }
      prefix = taken?.to ?? null;
    }
    return before;
  }

  /** Whether nothing is asked for: then all counts are at hand. */
  private get isAll(): boolean {
    return this.lists.length === 0 && this.avoid.size === 0 && this.filter.ending === undefined;
  }

  /** All lists that are to be gone through, a bit for each. */
  private get all(): number {
    return (1 << this.lists.length) - 1;
  }

  private waitingAfter(observation: Observation, waiting: number): number {
    if (observation.planItem === null || waiting === 0) return waiting;
    return this.lists.reduce(
      (still, names, n) => (isNamed(observation, names) ? still & ~(1 << n) : still),
      waiting,
    );
  }

  /** Routes left that go on with something seen, after so many items. */
  private through({ observation, to }: Next, waiting: number, lengths: LengthRange, items: number): bigint {
    if (!this.allows(observation)) return 0n;
    if (to === null) return waiting === 0 && holdsLength(lengths, items) ? 1n : 0n;
    return this.left(to, waiting, lengths, items + 1);
  }

  private allows(observation: Observation): boolean {
    if (observation.planItem !== null) return !isNamed(observation, this.avoid);
    return (
      this.filter.ending === undefined || this.endings[observation.ending]?.ending.id === this.filter.ending
    );
  }

  /** Of the ways on, those that still go through all that is waited for. */
  private left(prefix: Prefix, waiting: number, lengths: LengthRange, items: number): bigint {
    if (this.isAll && lengths === null) return countOf(prefix, allRoutes);
    let sum = 0n;
    // Inclusion and exclusion over all subsets of the lists waited for, from the whole down to the empty one.
    for (let without = waiting; ; without = (without - 1) & waiting) {
      const ways =
        lengths === null
          ? this.without(without, HOW_MANY, this.counts).ahead(prefix)
          : within(this.without(without, BY_LENGTH, this.lengths).ahead(prefix), lengths, items);
      sum += isOdd(without) ? -ways : ways;
      if (without === 0) return sum;
    }
  }

  /** Of the routes that meet none of some lists, what is tallied; `known`: by the lists, as bits. */
  private without<Value>(lists: number, by: Algebra<Value>, known: Map<number, Tally<Value>>): Tally<Value> {
    const before = known.get(lists);
    if (before !== undefined) return before;
    const tally = new Tally(by, this.allowsWithout(lists));
    known.set(lists, tally);
    return tally;
  }

  private allowsWithout(lists: number): (observation: Observation) => boolean {
    const avoided = new Set(this.lists.flatMap((names, n) => ((lists >> n) & 1 ? [...names] : [])));
    return (observation) => this.allows(observation) && !isNamed(observation, avoided);
  }
}

/** Whether a list has the item, by its name or with its pass. */
export function isNamed({ planItem, pass }: Observation, names: ReadonlySet<string>): boolean {
  if (planItem === null || names.size === 0) return false;
  const { name } = planItem.item;
  return names.has(name) || (pass !== null && names.has(passKey(name, pass)));
}

function within(ways: Lengths, [least, most]: readonly [number, number], items: number): bigint {
  if (least === most) return lengthIn(ways, least - items);
  return ways.counts.reduce((sum, count, n) => {
    const length = items + ways.from + n;
    return length >= least && length <= most ? sum + count : sum;
  }, 0n);
}

function isOdd(bits: number): boolean {
  let odd = false;
  for (let rest = bits; rest !== 0; rest &= rest - 1) odd = !odd;
  return odd;
}
