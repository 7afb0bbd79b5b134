/**
 * What quotas do to a sample that comes one by one: when each is full, and who is turned away from then on. Each by itself, the others
 * open; whoever comes is like whoever came before.
 *
 * The number of people it takes to fill a quota has a negative binomial distribution; how many of so many come after that is its
 * mean excess, which two binomial tails give: n P(B(n) ≥ t) − t/c P(B(n+1) ≥ t+1), where c counts of everybody, t is the target
 * and B(n) is binomial of n and c.
 */
import { chanceOfAtLeast, peopleFor } from './binomial';

export interface QuotaEffect {
  readonly id: string;
  readonly target: number;
  /** Of all who start: who meet it, and who count towards it; null where it cannot be told. */
  readonly met: number | null;
  readonly counted: number | null;
  /** By certainty, how many have to start for it to be full; null where no number is enough. */
  readonly fullAt: { readonly 50: number | null; readonly 95: number | null };
  /** Of those who start, the chance that it is full once all have come. */
  readonly chanceFull: number;
  /** People who start once it is full, on average. */
  readonly after: number;
  /** Of those, who meet it and are turned away. */
  readonly turnedAway: number;
  /** Complete interviews that it costs. */
  readonly completesLost: number;
}

export function quotaEffect(
  { id, target }: { readonly id: string; readonly target: number },
  { met, counted }: { readonly met: number | null; readonly counted: number | null },
  starts: number,
): QuotaEffect {
  const after = counted === null ? 0 : startsAfterFull(target, counted, starts);
  return {
    id,
    target,
    met,
    counted,
    fullAt: {
      50: counted === null ? null : peopleFor(target, counted, 0.5),
      95: counted === null ? null : peopleFor(target, counted, 0.95),
    },
    chanceFull: counted === null ? 0 : chanceOfAtLeast(target, starts, counted),
    after,
    turnedAway: after * (met ?? 0),
    completesLost: after * (counted ?? 0),
  };
}

/** Of so many who start, how many do so after the one who fills a quota, on average; `counted`: the share that counts towards it. */
export function startsAfterFull(target: number, counted: number, starts: number): number {
  if (target <= 0) return starts;
  if (!(counted > 0)) return 0;
  const full = starts * chanceOfAtLeast(target, starts, counted);
  const until = (target / counted) * chanceOfAtLeast(target + 1, starts + 1, counted);
  return Math.max(0, full - until);
}
