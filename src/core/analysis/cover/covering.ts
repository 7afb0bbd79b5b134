/** Few routes that take every fork, and every two of them together: the paths that were chosen, as routes. */
import type { Plan } from '../../routing/plan';
import type { EncodedPlan } from '../conditions/encoded-plan';
import { encodedWithin } from '../conditions/encoded-within';
import type { Route } from '../counting/routes';
import { MOST_STEPS } from '../diagrams/diagram';
import { withinMemory, type Caps } from '../diagrams/limits';
import type { ForkEvent } from '../reach/fork-events';
import { coverWithin, pairsWithin, type ForkCover } from './cover-routes';
import { alongPath, type PathRoute } from './fork-path';
import type { ForkEvents } from './fork-graph';
import { eventsOf, type ForkPath } from './fork-paths';

type NumberOf = (items: readonly string[], ending: string) => bigint | null;

/** A route with what only it meets, of those chosen with it. */
export interface ChosenRoute extends Route {
  readonly alone: readonly ForkEvent[];
}

export interface CoverResult {
  /** In canonical order. */
  readonly routes: readonly ChosenRoute[];
  /** No set of fewer routes takes every fork. */
  readonly atLeast: number;
  /** Outcomes of forks, items, endings and messages that the routes take between them. */
  readonly outcomes: number;
  /** Those that anybody can meet: as many, but for what no route was found for among very many forks. */
  readonly of: number;
  /** False where the conditions are too entangled to find such routes; then there are none here. */
  readonly complete: boolean;
}

export interface PairsResult {
  /** In canonical order. */
  readonly routes: readonly ChosenRoute[];
  /** No set of fewer routes takes every pair. */
  readonly atLeast: number;
  /** Pairs of outcomes that anybody meets. */
  readonly pairs: number;
  /** False where there are too many forks to tell every way through them apart; then there are no routes here. */
  readonly complete: boolean;
}

/** Routes found before the best are known: at first some, which take a part of the outcomes, then ever fewer that take all. */
export type CoverSoFar = Omit<CoverResult, 'complete'>;

/** The first level: every outcome of a fork, item, ending and message that somebody meets. */
export function coverRoutes(
  plan: Plan,
  caps: Caps,
  numberOf: NumberOf,
  /** Told whenever there is something better, which is worked out only where it is called for. */
  improved: (soFar: () => CoverSoFar) => void = () => undefined,
): CoverResult {
  const found = withinMemory(() => {
    const { steps = MOST_STEPS } = caps;
    const cover = coverWithin(
      (work) => encodedWithin(plan, { ...caps, steps: work * steps }, { messages: true }),
      undefined,
      (soFar) => improved(() => told(soFar, numberOf)),
    );
    return told(cover, numberOf);
  });
  return found === null
    ? { routes: [], atLeast: 0, outcomes: 0, of: 0, complete: false }
    : { ...found, complete: true };
}

/** Counted are only outcomes on routes that somebody takes. */
function told(cover: ForkCover, numberOf: NumberOf): CoverSoFar {
  const { paths, encoded, events, atLeast, wanted } = cover;
  const taken = paths.filter((path) => routeAlong(encoded, events, path) !== null);
  const met = new Set(taken.flatMap((path) => [...eventsOf(path)]));
  const outcomes = [...met].filter((event) => wanted.has(event)).length;
  const routes = routesAlong({ paths: taken, encoded, events }, numberOf);
  return { routes, atLeast, outcomes, of: wanted.size };
}

/** The second level: every two outcomes that somebody meets together. */
export function pairRoutes(plan: Plan, caps: Caps, numberOf: NumberOf): PairsResult {
  const found = withinMemory(() => {
    const cover = pairsWithin(() => encodedWithin(plan, caps, { messages: true }));
    return { routes: routesAlong(cover, numberOf), atLeast: cover.atLeast, pairs: cover.pairs };
  });
  return found === null
    ? { routes: [], atLeast: 0, pairs: 0, complete: false }
    : { ...found, complete: true };
}

/** Paths through the forks as routes, in canonical order. */
function routesAlong(
  { paths, encoded, events }: Pick<ForkCover, 'paths' | 'encoded' | 'events'>,
  numberOf: NumberOf,
): ChosenRoute[] {
  const met = paths.map((path) => [...events.counting(eventsOf(path))]);
  const times = new Map<number, number>();
  for (const event of met.flat()) times.set(event, (times.get(event) ?? 0) + 1);
  const routes = paths.flatMap((path, n): ChosenRoute[] => {
    const along = routeAlong(encoded, events, path);
    if (along === null) return [];
    const { items, ending, witness } = along;
    const alone = (met[n] ?? []).flatMap((event) => {
      const of = events.all[event];
      return times.get(event) === 1 && of !== undefined ? [of] : [];
    });
    return [{ number: numberOf(items, ending) ?? 0n, items, ending, ...witness, alone }];
  });
  return routes.sort((a, b) => (a.number < b.number ? -1 : a.number > b.number ? 1 : 0));
}

const routesBefore = new WeakMap<ForkPath, PathRoute | null>();

/** A path that stays, while others are improved, is the same route. */
function routeAlong(encoded: EncodedPlan, events: ForkEvents, path: ForkPath): PathRoute | null {
  const known = routesBefore.get(path);
  if (known !== undefined) return known;
  const route = alongPath(encoded, events, path);
  routesBefore.set(path, route);
  return route;
}
