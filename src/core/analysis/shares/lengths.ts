/**
 * How long interviews are, as a distribution over the sample: worked out along whole interviews, not simulated.
 *
 * Lengths are told apart in bins of a fraction of a second. A bin knows the mean of what is in it, so that the mean of all
 * is exact, and what differs by more than a bin is told apart.
 */
import type { Circuit } from '../diagrams/circuit';
import type { Algebra, Interviews } from './together';

/** Bins at most, and the least width of one, in seconds. */
const MOST_BINS = 4096;
const LEAST_BIN = 0.05;

/** What is as good as impossible has a chance below this: places of a rank left open, say. */
const NEXT_TO_NOTHING = 1e-20;

/** Interviews of one length: their share of the sample, and their mean length in seconds. */
export interface Length {
  readonly seconds: number;
  readonly share: number;
}

/** Shares by bin from the first that is not empty, with the seconds of all in a bin added up. */
interface Spread {
  readonly first: number;
  readonly shares: Float64Array;
  readonly seconds: Float64Array;
}

const EMPTY: Spread = { first: 0, shares: new Float64Array(0), seconds: new Float64Array(0) };

/**
 * Of interviews for which `counts` holds at every place presented (of endings: those that are wanted), how long they are,
 * shortest first; lengths as `secondsAt` has them for each place.
 */
export function lengthsOf(
  interviews: Interviews,
  circuit: Circuit,
  secondsAt: (place: number) => number,
  counts: (place: number) => boolean,
): Length[] {
  const bin = Math.max(
    LEAST_BIN,
    (longestOf(interviews, circuit, secondsAt, counts)?.seconds ?? 0) / MOST_BINS,
  );
  const { shares, seconds } = interviews.work(spreading(circuit, bin, secondsAt, counts));
  const lengths: Length[] = [];
  for (let n = 0; n < shares.length; n += 1) {
    const share = shares[n] as number;
    if (share > 0) lengths.push({ seconds: (seconds[n] as number) / share, share });
  }
  return lengths;
}

/** The longest interview that anybody takes. */
export interface Longest {
  readonly seconds: number;
  /** Everything it presents, and its ending, in order. */
  readonly places: readonly number[];
}

/** What an interview that is put together presents. */
interface Trail {
  readonly places: readonly number[];
  readonly parts: readonly Trail[];
}

interface LongTrail extends Trail {
  /** -Infinity where nobody goes on so. */
  readonly seconds: number;
}

/** The longest of which `counts` holds everywhere; null where there is nobody. */
export function longestOf(
  interviews: Interviews,
  circuit: Circuit,
  secondsAt: (place: number) => number,
  counts: (place: number) => boolean,
): Longest | null {
  const nobody: LongTrail = { seconds: -Infinity, places: [], parts: [] };
  const longest = interviews.work<LongTrail>({
    done: { seconds: 0, places: [], parts: [] },
    presented: (places, after) =>
      places.every(counts)
        ? {
            seconds: places.reduce((sum, place) => sum + secondsAt(place), after.seconds),
            places,
            parts: [after],
          }
        : nobody,
    both: (a, b) => ({ seconds: a.seconds + b.seconds, places: [], parts: [a, b] }),
    either: (ways) =>
      ways.reduce(
        (most, { weight, value }) =>
          value.seconds > most.seconds && circuit.weightOf(weight) > NEXT_TO_NOTHING ? value : most,
        nobody,
      ),
  });
  return longest.seconds === -Infinity
    ? null
    : { seconds: longest.seconds, places: placesOn(longest).sort((a, b) => a - b) };
}

function placesOn(trail: Trail): number[] {
  const found: number[] = [];
  const open: Trail[] = [trail];
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    found.push(...next.places);
    open.push(...next.parts);
  }
  return found;
}

function spreading(
  circuit: Circuit,
  bin: number,
  secondsAt: (place: number) => number,
  counts: (place: number) => boolean,
): Algebra<Spread> {
  const binOf = (seconds: number) => Math.floor(seconds / bin + 1e-9);
  return {
    done: { first: 0, shares: Float64Array.of(1), seconds: Float64Array.of(0) },
    presented(places, spread) {
      if (!places.every(counts)) return EMPTY;
      const more = places.reduce((sum, place) => sum + secondsAt(place), 0);
      if (more === 0 || spread.shares.length === 0) return spread;
      const first = spread.first + binOf(more);
      const moved = room(first, spread.shares.length + 2);
      spread.shares.forEach((share, n) => {
        if (share > 0) put(moved, binOf, share, (spread.seconds[n] as number) + share * more);
      });
      return moved;
    },
    both(a, b) {
      if (a.shares.length === 0 || b.shares.length === 0) return EMPTY;
      if (isNothing(a)) return b;
      if (isNothing(b)) return a;
      const together = room(a.first + b.first, a.shares.length + b.shares.length + 1);
      a.shares.forEach((share, n) => {
        if (share === 0) return;
        const seconds = a.seconds[n] as number;
        for (let m = 0; m < b.shares.length; m += 1) {
          const other = b.shares[m] as number;
          if (other > 0)
            put(together, binOf, share * other, seconds * other + share * (b.seconds[m] as number));
        }
      });
      return together;
    },
    either(ways) {
      const some = ways
        .map(({ weight, value }) => ({ chance: circuit.weightOf(weight), value }))
        .filter(({ chance, value }) => chance > 0 && value.shares.length > 0);
      if (some.length === 0) return EMPTY;
      const first = Math.min(...some.map(({ value }) => value.first));
      const end = Math.max(...some.map(({ value }) => value.first + value.shares.length));
      const all = room(first, end - first);
      for (const { chance, value } of some) {
        const from = value.first - first;
        for (let n = 0; n < value.shares.length; n += 1) {
          all.shares[from + n] = (all.shares[from + n] as number) + chance * (value.shares[n] as number);
          all.seconds[from + n] = (all.seconds[from + n] as number) + chance * (value.seconds[n] as number);
        }
      }
      return all;
    },
  };
}

/** Nothing was added yet: everybody stands at the beginning. */
function isNothing({ first, shares, seconds }: Spread): boolean {
  return first === 0 && shares.length === 1 && shares[0] === 1 && seconds[0] === 0;
}

function room(first: number, bins: number): Spread {
  return { first, shares: new Float64Array(bins), seconds: new Float64Array(bins) };
}

/** Into the bin of its mean. */
function put(to: Spread, binOf: (seconds: number) => number, share: number, seconds: number): void {
  const at = Math.min(Math.max(0, binOf(seconds / share) - to.first), to.shares.length - 1);
  to.shares[at] = (to.shares[at] as number) + share;
  to.seconds[at] = (to.seconds[at] as number) + seconds;
}
