/**
 * How fast the mean length of interviews changes with every weight, and with the seconds of every place: all at once, by going
 * through the interviews upwards and then down again (reverse accumulation; Linnainmaa, "Taylor expansion of the accumulated
 * rounding error", 1976).
 */
import type { Circuit, Weight } from '../diagrams/circuit';
import type { Interviews, Way } from './together';

export interface MeanLengthSlopes {
  readonly byWeight: ReadonlyMap<Weight, number>;
  /** By place: for every second that what is presented there takes longer. */
  readonly bySeconds: ReadonlyMap<number, number>;
}

const NONE: MeanLengthSlopes = { byWeight: new Map(), bySeconds: new Map() };

/** Of interviews for which `counts` holds at every place; lengths as `secondsAt` has them for each place. */
export function slopesOfMean(
  interviews: Interviews,
  circuit: Circuit,
  secondsAt: (place: number) => number,
  counts: (place: number) => boolean,
): MeanLengthSlopes {
  return new MeanLength(interviews, circuit, secondsAt, counts).slopes();
}

class MeanLength {
  /** By node: the share that counts from there on, and the seconds of all of them added up. */
  private readonly shares: Float64Array;
  private readonly seconds: Float64Array;
  /** How fast the mean changes with each of them. */
  private readonly byShares: Float64Array;
  private readonly bySecondsOf: Float64Array;
  private readonly byWeight = new Map<Weight, number>();
  private readonly bySeconds = new Map<number, number>();

  constructor(
    private readonly interviews: Interviews,
    private readonly circuit: Circuit,
    private readonly secondsAt: (place: number) => number,
    private readonly counts: (place: number) => boolean,
  ) {
    const { length } = interviews.nodes;
    this.shares = new Float64Array(length);
    this.seconds = new Float64Array(length);
    this.byShares = new Float64Array(length);
    this.bySecondsOf = new Float64Array(length);
  }

  slopes(): MeanLengthSlopes {
    const { nodes, start } = this.interviews;
    for (const { index, ways } of nodes) {
      let [share, seconds] = [0, 0];
      for (const way of ways) {
        const chance = this.circuit.weightOf(way.weight);
        const along = this.along(way);
        share += chance * along.share;
        seconds += chance * along.seconds;
      }
      this.shares[index] = share;
      this.seconds[index] = seconds;
    }
    const all = this.along(start);
    if (all.share === 0) return NONE;
    // Of a quotient.
    this.down(start, -all.seconds / all.share ** 2, 1 / all.share);
    for (const { index, ways } of nodes.toReversed()) {
      const [byShare, bySeconds] = [this.byShares[index] as number, this.bySecondsOf[index] as number];
      if (byShare === 0 && bySeconds === 0) continue;
      for (const way of ways) {
        const { share, seconds } = this.along(way);
        add(this.byWeight, way.weight, byShare * share + bySeconds * seconds);
        const chance = this.circuit.weightOf(way.weight);
        this.down(way, chance * byShare, chance * bySeconds);
      }
    }
    return { byWeight: this.byWeight, bySeconds: this.bySeconds };
  }

  /** What a way comes to once it is taken. */
  private along({ places, on }: Way): { readonly share: number; readonly seconds: number } {
    if (!places.every(this.counts)) return { share: 0, seconds: 0 };
    let [share, seconds] = [1, 0];
    for (const { index } of on) {
      const [own, taken] = [this.shares[index] as number, this.seconds[index] as number];
      seconds = seconds * own + share * taken;
      share *= own;
    }
    for (const place of places) seconds += this.secondsAt(place) * share;
    return { share, seconds };
  }

  /** Hands down how fast the mean changes with what a way comes to. */
  private down({ places, on }: Way, byShare: number, bySeconds: number): void {
    if ((byShare === 0 && bySeconds === 0) || !places.every(this.counts)) return;
    const more = places.reduce((sum, place) => sum + this.secondsAt(place), 0);
    on.forEach(({ index }, n) => {
      // Of the others together.
      let [share, seconds] = [1, 0];
      on.forEach((other, m) => {
        if (m === n) return;
        const [own, taken] = [this.shares[other.index] as number, this.seconds[other.index] as number];
        seconds = seconds * own + share * taken;
        share *= own;
      });
      this.byShares[index] =
        (this.byShares[index] as number) + byShare * share + bySeconds * (seconds + more * share);
      this.bySecondsOf[index] = (this.bySecondsOf[index] as number) + bySeconds * share;
    });
    if (bySeconds === 0) return;
    const share = on.reduce((product, { index }) => product * (this.shares[index] as number), 1);
    for (const place of places) add(this.bySeconds, place, bySeconds * share);
  }
}

function add<Key>(to: Map<Key, number>, key: Key, more: number): void {
  to.set(key, (to.get(key) ?? 0) + more);
}
