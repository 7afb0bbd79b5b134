/** Shares as tables hold them: exact percent, rounded only where they are shown. */

/** Percent; null where there is nothing to take a share of. */
export function percentOf(count: number, of: number): number | null {
  return of === 0 ? null : (100 * count) / of;
}

/** As it is printed: one digit after the point; each rounded by itself, so that equal counts look equal. */
export function percentWords(percent: number | null): string {
  return percent === null ? '' : (Math.round(percent * 10) / 10).toFixed(1);
}
