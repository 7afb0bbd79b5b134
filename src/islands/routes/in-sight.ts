/** Which row of the ledger comes first so that the current one is in sight. */

export interface InSight {
  /** The row that stands first, counted from 0, or is about to. */
  readonly first: bigint;
  readonly fits: number;
  /** The current row. */
  readonly place: bigint;
  readonly list: unknown;
}

/**
 * The row to scroll to; null where nothing is to be done. The current row comes into sight when it changes, or the list does;
 * it stays there when a line above the sheet, or the window, takes room from it. Where it was scrolled out by hand it may be.
 */
export function rowToShow(before: InSight, now: InSight): bigint | null {
  const { first, fits, place } = now;
  const isOther = place !== before.place || now.list !== before.list;
  const wasInSight = place >= before.first && place < before.first + BigInt(before.fits);
  if (!isOther && !(fits !== before.fits && wasInSight)) return null;
  const next = place < first ? place : place >= first + BigInt(fits) ? place - BigInt(fits) + 1n : first;
  return next === first ? null : next;
}
