/** When a quota will be full, if it goes on filling as it did of late. */

const DAY = 86_400_000;
/** How far back the pace is taken from. */
const LATELY = 7 * DAY;

export interface QuotaPace {
  /** Places taken. */
  readonly count: number;
  /** How many a day were taken of late. */
  readonly perDay: number;
  /** When it was, or will be, full; null: not at this pace. Milliseconds since 1970. */
  readonly fullAt: number | null;
}

/** `taken`: when each place was taken, in any order; `since`: when it could first be. The pace is that of the last seven days. */
export function quotaPace(
  target: number,
  taken: readonly number[],
  { since, now }: { readonly since: number; readonly now: number },
): QuotaPace {
  const sorted = taken.toSorted((a, b) => a - b);
  const from = Math.max(since, now - LATELY);
  // Of the first hours no pace for days can be told: they count as one day.
  const days = Math.max(1, (now - from) / DAY);
  const perDay = sorted.filter((at) => at >= from).length / days;
  const count = sorted.length;
  const last = sorted[target - 1];
  if (last !== undefined) return { count, perDay, fullAt: last };
  return { count, perDay, fullAt: perDay === 0 ? null : now + ((target - count) / perDay) * DAY };
}

/** How many places will be free, at this pace, when the link closes; whole, and none where it fills before. */
export function freeAt(target: number, { count, perDay }: QuotaPace, now: number, closesAt: number): number {
  return Math.max(0, Math.ceil(target - count - perDay * Math.max(0, (closesAt - now) / DAY)));
}
