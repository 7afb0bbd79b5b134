/**
 * What share of the sample is expected everywhere, by the assumed answers, with all quotas open: exact, not simulated.
 * Answers to different questions are independent of each other, given that they are asked.
 */
import { secondsByName } from '../../routing/burden';
import type { Plan, PlanSection } from '../../routing/plan';
import { EncodedPlan } from '../conditions/encoded-plan';
import type { Exit } from '../conditions/exits';
import { Beliefs } from '../counting/belief';
import { emissionsTo } from '../counting/witness';
import { Diagrams, TRUE } from '../diagrams/diagram';
import { DEFAULT_CAPS, TooMuch, type Caps } from '../diagrams/limits';
import { likeliestRoutes, type Likeliest } from './likeliest';
import { transitionsIn, type Transition } from './transitions';
import { WEIGHED_SCOPE, Weighing } from './weighing';

/** A way on that is taken: a quota, skip or onward by its index, or, with `by` null, none of them. */
export interface WayShare {
  readonly from: { readonly item: string } | { readonly section: string };
  readonly by: Exit['by'];
  readonly share: number;
}

export interface ItemShare {
  readonly share: number;
  /** How often on average. */
  readonly times: number;
  /** By pass, from the first; empty outside repeated sections. */
  readonly byPass: readonly number[];
}

/** Shares are from 0 to 1, of all who start. */
export interface Shares {
  /** Presented in any pass, and how often on average, by name. */
  readonly items: ReadonlyMap<string, ItemShare>;
  /** In the document's order. */
  readonly endings: readonly { readonly id: string; readonly share: number }[];
  /** Of items and ends of sections that have a choice of ways. */
  readonly ways: readonly WayShare[];
  /** What an interview takes on average. */
  readonly minutes: number;
  /**
   * The share that takes a route; 0 where there is no such route. Throws a `TooMuch` where that is too entangled, or where
   * the nodes that are allowed have been used up by what was asked before: shares made anew may tell.
   */
  ofRoute(route: { readonly items: readonly string[]; readonly ending: string }): number;
  /** Who is presented what next. */
  transitions(): Transition[];
  /** The likeliest routes, at most so many. */
  likeliest(count: number): Likeliest;
}

/** The encoded plan must be fresh and exact. */
export function sharesIn(plan: Plan, encoded: EncodedPlan): Shares {
  const { course, diagrams } = encoded;
  const weighing = new Weighing(encoded);
  const { coming } = weighing;
  const items = new Map<string, ItemShare>();
  const ways: WayShare[] = [];
  const secondsIn = secondsByName(plan);
  let seconds = 0;
  for (const section of plan.sections) {
    const passes = passesOf(section);
    for (const { item, index } of section.items) {
      const places = passes.map((pass) => course.item(section.index, pass, index));
      const share = itemShare(weighing, section, places);
      items.set(item.name, share);
      seconds += share.times * secondsIn(item.name);
      ways.push(...waysAt(weighing, places, { item: item.name }));
    }
    const ends = passes.map((pass) => course.end(section.index, pass)).slice(-1);
    ways.push(...waysAt(weighing, ends, { section: section.section.id }));
  }
  const beliefs = new Beliefs(encoded);
  return {
    items,
    ways,
    minutes: seconds / 60,
    endings: plan.endings.map(({ ending }, index) => ({
      id: ending.id,
      share: weighing.shareOf(coming.at(course.ending(index))),
    })),
    // However much was asked before, each question may take as many steps.
    transitions() {
      diagrams.rest();
      return transitionsIn(encoded, weighing);
    },
    likeliest(count) {
      diagrams.rest();
      return likeliestRoutes(beliefs, weighing, count);
    },
    ofRoute(route) {
      diagrams.rest();
      const along = emissionsTo(beliefs, route);
      if (along === null) return 0;
      return weighing.shareOf(along.reduce((all, { mass }) => diagrams.and(all, mass), TRUE));
    },
  };
}

const passesOf = ({ repeat }: PlanSection): readonly number[] =>
  Array.from({ length: repeat?.max ?? 1 }, (_, n) => n + 1);

/** Of an item that stands in one place for each pass of its section. */
function itemShare(weighing: Weighing, { repeat }: PlanSection, places: readonly number[]): ItemShare {
  const { coming, encoded } = weighing;
  const masses = places.map((at) => coming.presentedAt(at));
  const shares = masses.map((mass) => weighing.shareOf(mass));
  const times = shares.reduce((sum, share) => sum + share, 0);
  const any = masses.reduce((some, mass) => encoded.diagrams.or(some, mass));
  return {
    share: places.length === 1 ? times : weighing.shareOf(any),
    times,
    byPass: repeat === null ? [] : shares,
  };
}

/** In how many ways on a place divides, added up over its passes; none where there is but one. */
function waysAt(weighing: Weighing, places: readonly number[], from: WayShare['from']): WayShare[] {
  const found = places.map((at) => weighing.coming.takingAt(at));
  const [first = []] = found;
  if (!first.some(({ by }) => by !== null)) return [];
  return first.map(({ by }, index) => ({
    from,
    by,
    share: found.reduce((sum, taking) => {
      const mass = taking[index]?.mass;
      return mass === undefined ? sum : sum + weighing.shareOf(mass);
    }, 0),
  }));
}

/** Shares of the sample; null where they could not be exact, or the conditions are too entangled. */
export function sharesOf(plan: Plan, caps: Caps = DEFAULT_CAPS): Shares | null {
  return ofExact(plan, caps, (encoded) => sharesIn(plan, encoded));
}

/** The same of some items alone, by name. */
export function itemSharesOf(
  plan: Plan,
  names: ReadonlySet<string>,
  caps: Caps = DEFAULT_CAPS,
): ReadonlyMap<string, ItemShare> | null {
  return ofExact(plan, caps, (encoded) => {
    const weighing = new Weighing(encoded);
    return new Map(
      plan.sections.flatMap((section) =>
        section.items
          .filter(({ item }) => names.has(item.name))
          .map(({ item, index }) => {
            const places = passesOf(section).map((pass) => encoded.course.item(section.index, pass, index));
            return [item.name, itemShare(weighing, section, places)] as const;
          }),
      ),
    );
  });
}

function ofExact<Found>(plan: Plan, caps: Caps, found: (encoded: EncodedPlan) => Found): Found | null {
  try {
    const encoded = new EncodedPlan(plan, new Diagrams(caps.nodes, caps.steps), WEIGHED_SCOPE);
    return encoded.limits.length > 0 ? null : found(encoded);
  } catch (error) {
    if (error instanceof TooMuch) return null;
    throw error;
  }
}
