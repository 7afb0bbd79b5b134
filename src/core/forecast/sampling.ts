/** How large a sample has to be for so many of several groups, which of them decides, and what a sample costs. */
import { ENDINGS } from '../document/vocabularies';
import type { Ending, Prices } from '../document/types';
import { chanceOfAtLeast, least, peopleFor } from './binomial';
import type { Expected } from './forecast';

export const CERTAINTIES = [0.5, 0.9, 0.95] as const;
export type Certainty = (typeof CERTAINTIES)[number];

export interface Wanted {
  /** Of all who start (or are invited), from 0 to 1. */
  readonly share: number;
  readonly n: number;
}

export interface SampleSize {
  readonly certainty: Certainty;
  /** Parallel to what is wanted: enough for each by itself; null where no number is. */
  readonly each: readonly (number | null)[];
  /** Index of the one that takes most; null where nothing is wanted. */
  readonly decides: number | null;
  /** Enough for all at once, with at least this certainty. */
  readonly all: number | null;
}

/**
 * For all at once: the chances of missing each add up to no more than is allowed (Bonferroni's inequality), which holds however
 * they hang together.
 */
export function sampleSizes(wanted: readonly Wanted[]): SampleSize[] {
  return CERTAINTIES.map((certainty) => {
    const each = wanted.map(({ share, n }) => peopleFor(n, share, certainty));
    const most = each.includes(null) ? Infinity : Math.max(0, ...each.map((of) => of ?? 0));
    const decides = each.indexOf(most === Infinity ? null : most);
    return {
      certainty,
      each,
      decides: decides < 0 ? null : decides,
      all: wanted.length === 0 ? null : forAll(wanted, certainty, most),
    };
  });
}

function forAll(wanted: readonly Wanted[], certainty: number, from: number): number | null {
  if (from === Infinity) return null;
  const missed = (people: number) =>
    wanted.reduce((sum, { share, n }) => sum + 1 - chanceOfAtLeast(n, people, share), 0);
  const isEnough = (people: number) => missed(people) <= 1 - certainty + 1e-12;
  let enough = Math.max(1, from);
  while (!isEnough(enough)) enough *= 2;
  return least(from, enough, isEnough);
}

export interface SampleCost {
  readonly starts: number;
  readonly screenOuts: number;
  readonly completes: number;
  readonly total: number;
  /** Null where nobody completes. */
  readonly perComplete: number | null;
}

/** Of so many who start; `endings` as a forecast has them. What has no price costs nothing. */
export function sampleCost(
  endings: readonly Ending[],
  expected: readonly Expected[],
  starts: number,
  { start = 0, screenOut = 0, complete = 0 }: Prices,
): SampleCost {
  const kinds = new Map(endings.map(({ id, kind }) => [id, kind]));
  let [screenOuts, completes] = [0, 0];
  for (const { group, share } of expected) {
    const kind = 'ending' in group ? kinds.get(group.ending) : undefined;
    if (kind === undefined) continue;
    if (kind === 'screened_out') screenOuts += share * starts;
    if (!ENDINGS[kind].early) completes += share * starts;
  }
  const total = starts * start + screenOuts * screenOut + completes * complete;
  return { starts, screenOuts, completes, total, perComplete: completes > 0 ? total / completes : null };
}
