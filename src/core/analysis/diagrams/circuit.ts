/**
 * Arithmetic circuits: sums of products of weights, put together once and worked out again whenever weights change, with the
 * slope of any of them in every weight.
 *
 * After Darwiche, "A differential approach to inference in Bayesian networks" (2003): values go up from the leaves in one
 * sweep, slopes come down from a root in another. Knows nothing of questionnaires.
 */

/** A node of a circuit; only the circuit that made it can read it. */
export type Term = number;

export const ZERO: Term = 0;
export const ONE: Term = 1;

/** The number of a weight; what stands under it can be changed at any time. */
export type Weight = number;

/** The weight that is always 1. */
export const UNWEIGHTED: Weight = 0;

export type Weighted = readonly [weight: Weight, of: Term];

const SUM = 0;
/** The first of two fractions with a positive denominator; 0 where neither has one. */
const RATIO = 1;

export class Circuit {
  private values: number[] = [0, 1];
  private readonly kinds: number[] = [SUM, SUM];
  /** Of every node: where its parts begin. They end where those of the next begin. */
  private readonly begin: number[] = [0, 0, 0];
  /** Of a sum the weight of each part; of a ratio nothing. */
  private readonly weighedBy: Weight[] = [];
  private readonly partOf: Term[] = [];
  private readonly weights: number[] = [1];

  /** Nodes made so far. */
  get size(): number {
    return this.values.length;
  }

  weight(value = 0): Weight {
    return this.weights.push(value) - 1;
  }

  weightOf(weight: Weight): number {
    return this.weights[weight] as number;
  }

  /** Values of nodes follow with the next `sweep`. */
  setWeight(weight: Weight, value: number): void {
    this.weights[weight] = value;
  }

  /** What the parts come to, each times its weight. */
  sum(parts: readonly Weighted[]): Term {
    const some = parts.filter(([, of]) => of !== ZERO);
    const [first] = some;
    if (first === undefined) return ZERO;
    if (some.length === 1 && first[0] === UNWEIGHTED) return first[1];
    return this.make(
      SUM,
      some.map(([weight]) => weight),
      some.map(([, of]) => of),
    );
  }

  /** A fraction, or the other one where the denominator of the first is 0; 0 where both are. */
  ratio(of: Term, by: Term, orElse: Term, orBy: Term): Term {
    return of === ZERO && orElse === ZERO ? ZERO : this.make(RATIO, [0, 0, 0, 0], [of, by, orElse, orBy]);
  }

  valueOf(term: Term): number {
    return this.values[term] as number;
  }

  /** Works out every node, with the weights as they are now. */
  sweep(): void {
    for (let term = ONE + 1; term < this.values.length; term += 1) this.values[term] = this.worked(term);
  }

  /** By how much the value of a node goes up with each weight, for one unit of it; weights that it does not hang on are left out. */
  slopes(root: Term): ReadonlyMap<Weight, number> {
    const slopes = new Map<Weight, number>();
    const down = new Map<Term, number>([[root, 1]]);
    // Parts are made before what they are parts of: in falling order everything above a node is done before it.
    for (const term of this.under(root)) {
      const slope = down.get(term) ?? 0;
      if (slope === 0) continue;
      const [from, to] = [this.begin[term] as number, this.begin[term + 1] as number];
      const pass = (part: Term, more: number) => down.set(part, (down.get(part) ?? 0) + more);
      if (this.kinds[term] === RATIO) {
        const chosen = this.chosen(from);
        if (chosen === null) continue;
        const [of, by] = [this.partOf[chosen] as Term, this.partOf[chosen + 1] as Term];
        const below = this.valueOf(by);
        pass(of, slope / below);
        pass(by, (-slope * this.valueOf(of)) / below ** 2);
        continue;
      }
      for (let n = from; n < to; n += 1) {
        const [weight, part] = [this.weighedBy[n] as Weight, this.partOf[n] as Term];
        pass(part, slope * (this.weights[weight] as number));
        if (weight !== UNWEIGHTED) slopes.set(weight, (slopes.get(weight) ?? 0) + slope * this.valueOf(part));
      }
    }
    return slopes;
  }

  /** The weights that the value of a node can hang on, whatever all of them are. */
  weightsUnder(root: Term): ReadonlySet<Weight> {
    const weights = new Set<Weight>();
    for (const term of this.under(root)) {
      if (this.kinds[term] === RATIO) continue;
      for (let n = this.begin[term] as number; n < (this.begin[term + 1] as number); n += 1)
        weights.add(this.weighedBy[n] as Weight);
    }
    weights.delete(UNWEIGHTED);
    return weights;
  }

  /** All that a node is made of, the last made first. */
  private under(root: Term): Term[] {
    const seen = new Set<Term>([root]);
    const open = [root];
    for (let term = open.pop(); term !== undefined; term = open.pop()) {
      for (let n = this.begin[term] as number; n < (this.begin[term + 1] as number); n += 1) {
        const part = this.partOf[n] as Term;
        if (part <= ONE || seen.has(part)) continue;
        seen.add(part);
        open.push(part);
      }
    }
    return [...seen].sort((a, b) => b - a);
  }

  private make(kind: number, weights: readonly Weight[], parts: readonly Term[]): Term {
    this.weighedBy.push(...weights);
    this.partOf.push(...parts);
    this.kinds.push(kind);
    const made = this.values.length;
    this.begin[made + 1] = this.partOf.length;
    this.values.push(0);
    this.values[made] = this.worked(made);
    return made;
  }

  private worked(term: Term): number {
    const [from, to] = [this.begin[term] as number, this.begin[term + 1] as number];
    if (this.kinds[term] === RATIO) {
      const chosen = this.chosen(from);
      return chosen === null
        ? 0
        : this.valueOf(this.partOf[chosen] as Term) / this.valueOf(this.partOf[chosen + 1] as Term);
    }
    let value = 0;
    for (let n = from; n < to; n += 1)
      value += (this.weights[this.weighedBy[n] as Weight] as number) * this.valueOf(this.partOf[n] as Term);
    return value;
  }

  private chosen(from: number): number | null {
    if (this.valueOf(this.partOf[from + 1] as Term) > 0) return from;
    return this.valueOf(this.partOf[from + 3] as Term) > 0 ? from + 2 : null;
  }
}
