/** Sending what must arrive once over a network that may be away: when to try again, and when to give up. */
import * as v from 'valibot';

export const SendingSchema = v.strictObject({
  /** Null until it was taken; milliseconds since 1970. */
  takenAt: v.nullable(v.number()),
  tries: v.pipe(v.number(), v.integer(), v.minValue(0)),
  /** Not before; null where it is not tried again by itself. */
  nextAt: v.nullable(v.number()),
  /** Why it was not taken the last time; null where nothing went wrong. */
  problem: v.nullable(v.string()),
});
export type Sending = v.InferOutput<typeof SendingSchema>;

export const NOT_SENT: Sending = { takenAt: null, tries: 0, nextAt: 0, problem: null };

/** How one try ended: by the status of the answer, or without one. */
export type Tried = { readonly status: number } | { readonly fault: string };

const FIRST_WAIT = 2_000;
const LONGEST_WAIT = 15 * 60_000;

/** Statuses that say: not now. */
const LATER = [408, 423, 425, 429];

/**
 * After a try. What was refused for what it is (4xx) is not sent again by itself; what met no answer or a fault of the
 * receiver is, after twice the time of the last wait. `chance`, from 0 to 1, spreads those that fail together.
 */
export function afterTry(sending: Sending, tried: Tried, now: number, chance: number): Sending {
  const tries = sending.tries + 1;
  if ('status' in tried && tried.status >= 200 && tried.status < 300)
    return { takenAt: now, tries, nextAt: null, problem: null };
  const refused =
    'status' in tried && tried.status >= 400 && tried.status < 500 && !LATER.includes(tried.status);
  const problem = 'status' in tried ? `the receiver answered ${tried.status}` : tried.fault;
  if (refused) return { takenAt: null, tries, nextAt: null, problem };
  const wait = Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** Math.min(tries - 1, 20));
  return { takenAt: null, tries, nextAt: now + Math.round(wait * (0.75 + chance / 2)), problem };
}

/** To be tried at once, whatever was before: somebody asked for it, or the network is back. */
export function triedAnew(sending: Sending): Sending {
  return sending.takenAt === null ? { ...sending, nextAt: 0 } : sending;
}
