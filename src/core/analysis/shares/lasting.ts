/**
 * Who is still there when something is presented, where of whoever is presented a place some break off before the next.
 *
 * The share of interviews is worked out with a factor for every place: those that stay, where it lies before the one that is asked
 * about, and 1 behind it. With a factor of nought for what is asked about itself, those are left who are not presented it: the
 * difference is who is. From one place to the next a few factors change, and only what hangs on them is worked out again.
 */
import type { Circuit } from '../diagrams/circuit';
import type { Interviews, Way } from './together';

/** Shares of groups, each by the places of which it is presented one, in order. */
export function lastingTo(
  interviews: Interviews,
  circuit: Circuit,
  stay: (place: number) => number,
  groups: readonly (readonly number[])[],
): number[] {
  const left = new Left(interviews, circuit);
  const places = [...new Set(groups.flat())].sort((a, b) => a - b);
  const order = new Map(places.map((place, n) => [place, n]));
  const isBlock = (group: readonly number[]) =>
    (order.get(group.at(-1) ?? 0) ?? 0) - (order.get(group[0] ?? 0) ?? 0) === group.length - 1;
  const shares = groups.map(() => 0);
  const at = new Map<number, number[]>();
  groups.forEach((group, n) => {
    for (const place of isBlock(group) ? group.slice(0, 1) : group)
      at.set(place, [...(at.get(place) ?? []), n]);
  });
  for (const place of places) {
    for (const n of at.get(place) ?? []) {
      const group = groups[n] ?? [];
      const ahead = group.filter((other) => other >= place);
      // Who was presented one before is counted there.
      const before = group.filter((other) => other < place);
      left.set(before, () => 0);
      const all = left.share;
      const own = before.length === 0 && isBlock(group) ? ahead : [place];
      left.set(own, () => 0);
      shares[n] = (shares[n] ?? 0) + all - left.share;
      left.set(own, () => 1);
      left.set(before, stay);
    }
    left.set([place], stay);
  }
  return shares;
}

/** The share of interviews that is left, each place weighed with a factor that can be changed. */
class Left {
  /** Of every node, and last of the start. */
  private readonly values: Float64Array;
  private readonly ways: readonly (readonly Way[])[];
  private readonly factors = new Map<number, number>();
  private readonly parents: readonly number[][];
  private readonly presenting = new Map<number, number[]>();
  private readonly isStale: Uint8Array;

  constructor(
    { nodes, start }: Interviews,
    private readonly circuit: Circuit,
  ) {
    this.ways = [...nodes.map(({ ways }) => ways), [start]];
    this.values = new Float64Array(this.ways.length);
    this.isStale = new Uint8Array(this.ways.length);
    this.parents = this.ways.map(() => []);
    this.ways.forEach((ways, index) => {
      for (const { places, on } of ways) {
        for (const child of on) this.parents[child.index]?.push(index);
        for (const place of places) {
          const known = this.presenting.get(place);
          if (known === undefined) this.presenting.set(place, [index]);
          else known.push(index);
        }
      }
      this.values[index] = this.valueOf(index);
    });
  }

  get share(): number {
    return this.values.at(-1) ?? 0;
  }

  set(places: readonly number[], factorOf: (place: number) => number): void {
    let first = this.ways.length;
    for (const place of places) {
      const factor = factorOf(place);
      if ((this.factors.get(place) ?? 1) === factor) continue;
      this.factors.set(place, factor);
      for (const index of this.presenting.get(place) ?? []) {
        this.isStale[index] = 1;
        first = Math.min(first, index);
      }
    }
    // What a node leads to was made before it.
    for (let index = first; index < this.ways.length; index += 1) {
      if (this.isStale[index] === 0) continue;
      this.isStale[index] = 0;
      const value = this.valueOf(index);
      if (value === this.values[index]) continue;
      this.values[index] = value;
      for (const parent of this.parents[index] ?? []) this.isStale[parent] = 1;
    }
  }

  private valueOf(index: number): number {
    let sum = 0;
    for (const { weight, places, on } of this.ways[index] ?? []) {
      let product = index === this.ways.length - 1 ? 1 : this.circuit.weightOf(weight);
      for (const place of places) product *= this.factors.get(place) ?? 1;
      for (const child of on) product *= this.values[child.index] as number;
      sum += product;
    }
    return sum;
  }
}
