/** Percentages as they are printed. */

/**
 * Percent of `of`, in tenths, so that what adds up to all of it is printed as 100.0: rounded down, with the tenths left
 * over given to the largest remainders (Hamilton's method). Null where there is nothing to take a share of.
 */
export function sharesAddingUp(counts: readonly number[], of: number): (number | null)[] {
  if (of === 0) return counts.map(() => null);
  const exact = counts.map((count) => (1000 * count) / of);
  const floors = exact.map((share) => Math.floor(share + 1e-9));
  const total = Math.round(counts.reduce((sum, count) => sum + (1000 * count) / of, 0));
  let left = total - floors.reduce((sum, floor) => sum + floor, 0);
  const order = exact
    .map((share, n) => ({ n, remainder: share - (floors[n] ?? 0) }))
    .sort((a, b) => b.remainder - a.remainder || a.n - b.n);
  for (const { n } of order) {
    if (left <= 0) break;
    floors[n] = (floors[n] ?? 0) + 1;
    left -= 1;
  }
  return floors.map((tenths) => tenths / 10);
}

/** Percent in tenths, rounded by itself. */
export function shareOf(count: number, of: number): number | null {
  return of === 0 ? null : Math.round((1000 * count) / of) / 10;
}
