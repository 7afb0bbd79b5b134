/**
 * A forecast held against what came: whether as many were asked each question as chance allows, if the shares that were assumed
 * are right.
 *
 * Each base by itself: the exact binomial test, two-sided by the method of small p-values (all outcomes that are no likelier than
 * what was seen). Of many bases some part by chance alone: p-values are adjusted by Holm's step-down procedure (Holm, "A simple
 * sequentially rejective multiple test procedure", 1979), which holds however the bases hang together.
 */
import { chanceOfAtLeast, chanceOfExactly, least } from '../binomial';
import type { Expected } from '../forecast';
import { groupKey } from '../groups';
import type { SeenSample } from './sample';

export interface Came {
  readonly of: Expected;
  /** Of all who started, as many as the forecast has them among so many people. */
  readonly expected: number;
  readonly seen: number;
  /** The chance of what was seen, or of anything as unlikely; after the adjustment. From 0 to 1. */
  readonly adjusted: number;
  /** They part by more than chance. */
  readonly parts: boolean;
}

/** Bases part where the adjusted chance is less than this. */
export const LEVEL = 0.05;

/** Outcomes as likely as what was seen, but for rounding, count with it. */
const AS_LIKELY = 1 + 1e-7;

/** Parallel to `expected`. */
export function againstWhatCame(
  expected: readonly Expected[],
  { people, bases }: Pick<SeenSample, 'people' | 'bases'>,
): Came[] {
  const seen = expected.map(({ group }) => bases.get(groupKey(group)) ?? 0);
  const adjusted = holm(expected.map(({ share }, n) => chanceOf(seen[n] ?? 0, people, share)));
  return expected.map((of, n) => ({
    of,
    expected: of.share * people,
    seen: seen[n] ?? 0,
    adjusted: adjusted[n] ?? 1,
    parts: (adjusted[n] ?? 1) < LEVEL,
  }));
}

/** The two-sided p-value of so many among so many people. */
export function chanceOf(count: number, people: number, share: number): number {
  if (people === 0) return 1;
  // What can come out in one way only either did or did not.
  if (share <= 0 || share >= 1) return count === (share <= 0 ? 0 : people) ? 1 : 0;
  const most = chanceOfExactly(count, people, share) * AS_LIKELY;
  const isAsUnlikely = (other: number) => chanceOfExactly(other, people, share) <= most;
  const mode = Math.floor((people + 1) * share);
  if (count === mode || isAsUnlikely(mode)) return 1;
  const below = 1 - chanceOfAtLeast(count + 1, people, share);
  const above = chanceOfAtLeast(count, people, share);
  // On the other side of the likeliest number chances fall steadily: where they get as small is found by halving.
  if (count < mode)
    return Math.min(1, below + chanceOfAtLeast(least(mode, people + 1, isAsUnlikely), people, share));
  const last = mode - least(0, mode + 1, (back) => isAsUnlikely(mode - back));
  return Math.min(1, above + 1 - chanceOfAtLeast(last + 1, people, share));
}

/** Adjusted p-values, parallel to those that are given. */
export function holm(chances: readonly number[]): number[] {
  const order = chances.map((_, n) => n).sort((a, b) => (chances[a] ?? 0) - (chances[b] ?? 0));
  const adjusted: number[] = [];
  let so = 0;
  order.forEach((n, rank) => {
    so = Math.max(so, Math.min(1, (chances.length - rank) * (chances[n] ?? 1)));
    adjusted[n] = so;
  });
  return adjusted;
}
