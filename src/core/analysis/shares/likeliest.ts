/**
 * The routes that most of the sample take, likeliest first. Beginnings of routes are gone on with in order of their
 * share, which no route that begins so can exceed: so what comes to its end first is the likeliest (best-first search;
 * Dechter and Pearl, "Generalized best-first search strategies and the optimality of A*", 1985).
 */
import TinyQueue from 'tinyqueue';
import { passKey } from '../../document/addresses';
import type { Beliefs, Emission } from '../counting/belief';
import { TRUE, type Diagram } from '../diagrams/diagram';
import type { Weighing } from './weighing';

export interface LikelyRoute {
  readonly items: readonly string[];
  readonly ending: string;
  /** Of the sample, from 0 to 1. */
  readonly share: number;
}

export interface Likeliest {
  /** Likeliest first: no other route is taken by more than the last of them. */
  readonly routes: readonly LikelyRoute[];
  /** No other route has a larger share. */
  readonly othersAtMost: number;
}

/** Beginnings that are weighed at most. */
const MOST_WEIGHED = 100_000;

interface Beginning {
  readonly share: number;
  readonly mass: Diagram;
  /** The last thing seen; null at the start. */
  readonly last: Emission | null;
  readonly before: Beginning | null;
}

/** Likeliest first: at most `count`, and no more once the shares of `mostWeighed` beginnings were worked out. Best-first search: the share of what was seen so far never grows. */
export function likeliestRoutes(
  beliefs: Beliefs,
  weighing: Weighing,
  count: number,
  mostWeighed = MOST_WEIGHED,
): Likeliest {
  const { diagrams } = beliefs.encoded;
  const open = new TinyQueue<Beginning>([], (a, b) => b.share - a.share);
  open.push({ share: 1, mass: TRUE, last: null, before: null });
  const found: LikelyRoute[] = [];
  let weighed = 0;
  for (let begun = open.pop(); begun !== undefined; begun = open.pop()) {
    if (found.length === count || weighed >= mostWeighed) return { routes: found, othersAtMost: begun.share };
    const { last } = begun;
    if (last !== null && last.observation.planItem === null) {
      found.push(routeOf(beliefs, begun));
      continue;
    }
    const offered = last === null ? beliefs.start() : beliefs.after(beliefs.settle(last));
    for (const emission of offered) {
      const mass = diagrams.and(begun.mass, emission.mass);
      // Where there is but one way on, all take it.
      const share = offered.length === 1 ? begun.share : weighing.shareOf(mass);
      if (offered.length > 1) weighed += 1;
      if (share > 0) open.push({ share, mass, last: emission, before: begun });
    }
  }
  return { routes: found, othersAtMost: 0 };
}

function routeOf({ encoded }: Beliefs, ended: Beginning): LikelyRoute {
  const items: string[] = [];
  for (let at: Beginning | null = ended; at !== null; at = at.before) {
    const observation = at.last?.observation;
    if (observation?.planItem) items.unshift(passKey(observation.planItem.item.name, observation.pass));
  }
  const ending = encoded.plan.endings[ended.last?.observation.ending ?? 0]?.ending.id ?? '';
  return { items, ending, share: ended.share };
}
