/** How few routes could meet every two outcomes of forks that somebody meets together: proven lower bounds. */
import type { ForkEvents } from './fork-graph';
import type { BitRelation, Pair } from './relation';

/** No set with fewer paths meets every pair. */
export function leastForPairs(
  together: BitRelation,
  events: ForkEvents,
  outcomes: ReadonlySet<number>,
): number {
  const forks = sidedForks(together, events, outcomes);
  return Math.max(1, apart(together, forks, outcomes).length, rowsFor(independent(together, forks)));
}

/** Forks of which no path meets two sides; in a repeat one might. */
function sidedForks(
  together: BitRelation,
  events: ForkEvents,
  outcomes: ReadonlySet<number>,
): readonly (readonly number[])[] {
  const forks = new Map<string, number[]>();
  for (const outcome of outcomes) {
    const fork = events.forkOf(outcome);
    forks.set(fork, [...(forks.get(fork) ?? []), outcome]);
  }
  return [...forks.values()].filter((sides) =>
    sides.every((a, n) => sides.slice(n + 1).every((b) => !together.has(a, b))),
  );
}

/** How many forks are found of which every two can come out in all four ways, taking two sides of each. */
function independent(together: BitRelation, forks: readonly (readonly number[])[]): number {
  const twoSided = forks.flatMap((sides): Pair[] => {
    const [a, b] = [...sides].sort((x, y) => together.degree(y) - together.degree(x));
    return a === undefined || b === undefined ? [] : [[a, b]];
  });
  const free = ([a, b]: Pair, [c, d]: Pair) =>
    together.has(a, c) && together.has(a, d) && together.has(b, c) && together.has(b, d);
  const freedom = new Map(twoSided.map((one) => [one, twoSided.filter((other) => free(one, other)).length]));
  const found: Pair[] = [];
  for (const fork of twoSided.sort((x, y) => (freedom.get(y) ?? 0) - (freedom.get(x) ?? 0)))
    if (found.every((other) => free(fork, other))) found.push(fork);
  return found.length;
}

/**
 * Routes that it takes at least for so many independent forks: with n routes, no more than C(n - 1, floor(n / 2) - 1)
 * two-sided forks can come out in all four ways with each other (Kleitman and Spencer, "Families of k-independent sets",
 * 1973; Katona, "Two applications of Sperner type theorems", 1973).
 */
function rowsFor(forks: number): number {
  if (forks < 2) return 1;
  let rows = 4;
  while (choose(rows - 1, Math.floor(rows / 2) - 1) < forks) rows += 1;
  return rows;
}

function choose(n: number, k: number): number {
  let ways = 1;
  for (let i = 1; i <= k; i += 1) ways = (ways * (n - k + i)) / i;
  return ways;
}

/** Pairs of which no path meets two, as many as are found: first those of the two forks with most of them. */
function apart(
  together: BitRelation,
  sided: readonly (readonly number[])[],
  outcomes: ReadonlySet<number>,
): Pair[] {
  let first: Pair[] = [];
  sided.forEach((one, n) => {
    for (const other of sided.slice(n + 1)) {
      if (one.length * other.length <= first.length) continue;
      const both = one.flatMap((a) => other.flatMap((b): Pair[] => (together.has(a, b) ? [[a, b]] : [])));
      if (both.length > first.length) first = both;
    }
  });
  const compatible = (a: number, b: number) => a === b || together.has(a, b);
  const meet = ([a, b]: Pair, [c, d]: Pair) =>
    compatible(a, c) && compatible(a, d) && compatible(b, c) && compatible(b, d);
  const found = [...first];
  const scarce = [...outcomes].sort((a, b) => together.degree(a) - together.degree(b));
  for (const a of scarce) {
    for (const b of scarce) {
      if (a >= b || !together.has(a, b)) continue;
      if (found.every((pair) => !meet(pair, [a, b]))) found.push([a, b]);
    }
  }
  return found;
}
