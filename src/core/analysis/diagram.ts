/**
 * Reduced ordered binary decision diagrams: Boolean functions as numbers, equal functions as equal numbers.
 *
 * After Bryant, "Graph-based algorithms for Boolean function manipulation" (1986): nodes are hash-consed in typed
 * arrays, operations remember their results. Variables are any whole numbers from 0; smaller ones are tested
 * first. Knows nothing of questionnaires.
 */

/** A Boolean function; only the store that made it can read it. */
export type Diagram = number;

export const FALSE: Diagram = 0;
export const TRUE: Diagram = 1;

/** Thrown where a function would take more nodes than allowed. */
export class TooManyNodes extends Error {}

/** Level of the two constants: below every variable. */
const BOTTOM = 0x7fffffff;
const CACHE_BITS = 16;

const AND = 0;
const OR = 1;
const NOT = 2;

export class Diagrams {
  private level = new Int32Array(1024);
  private low = new Int32Array(1024);
  private high = new Int32Array(1024);
  private count = 2;
  /** Open addressing; 0 stands for an empty place. */
  private table = new Int32Array(4096);
  private readonly cacheKeyA = new Int32Array(1 << CACHE_BITS).fill(-1);
  private readonly cacheKeyB = new Int32Array(1 << CACHE_BITS);
  private readonly cacheResult = new Int32Array(1 << CACHE_BITS);

  constructor(private readonly mostNodes = 4_000_000) {
    this.level[FALSE] = BOTTOM;
    this.level[TRUE] = BOTTOM;
  }

  /** Nodes made so far. */
  get nodes(): number {
    return this.count;
  }

  variable(level: number): Diagram {
    return this.node(level, FALSE, TRUE);
  }

  /** The variable tested first; Infinity for a constant. */
  topOf(a: Diagram): number {
    const level = this.level[a] as number;
    return level === BOTTOM ? Infinity : level;
  }

  lowOf(a: Diagram): Diagram {
    return this.low[a] as number;
  }

  highOf(a: Diagram): Diagram {
    return this.high[a] as number;
  }

  not(a: Diagram): Diagram {
    if (a <= TRUE) return 1 - a;
    const slot = this.slotOf(NOT, a, 0);
    if (this.cacheKeyA[slot] === a && this.cacheKeyB[slot] === -NOT) return this.cacheResult[slot] as number;
    const result = this.node(
      this.level[a] as number,
      this.not(this.low[a] as number),
      this.not(this.high[a] as number),
    );
    this.remember(slot, a, -NOT, result);
    return result;
  }

  and(a: Diagram, b: Diagram): Diagram {
    if (a === b) return a;
    if (a > b) return this.and(b, a);
    if (a === FALSE) return FALSE;
    if (a === TRUE) return b;
    return this.apply(AND, a, b);
  }

  or(a: Diagram, b: Diagram): Diagram {
    if (a === b) return a;
    if (a > b) return this.or(b, a);
    if (a === FALSE) return b;
    if (a === TRUE) return TRUE;
    return this.apply(OR, a, b);
  }

  /** `a` where `condition` holds, `b` elsewhere. */
  choose(condition: Diagram, a: Diagram, b: Diagram): Diagram {
    return this.or(this.and(condition, a), this.and(this.not(condition), b));
  }

  /** Whether some assignment makes `a` true and `b` true. */
  meets(a: Diagram, b: Diagram): boolean {
    return this.and(a, b) !== FALSE;
  }

  private apply(operation: typeof AND | typeof OR, a: Diagram, b: Diagram): Diagram {
    const slot = this.slotOf(operation, a, b);
    const key = operation === AND ? b : -b - 3;
    if (this.cacheKeyA[slot] === a && this.cacheKeyB[slot] === key) return this.cacheResult[slot] as number;
    const levelA = this.level[a] as number;
    const levelB = this.level[b] as number;
    const top = levelA < levelB ? levelA : levelB;
    const [aLow, aHigh] = levelA === top ? [this.low[a] as number, this.high[a] as number] : [a, a];
    const [bLow, bHigh] = levelB === top ? [this.low[b] as number, this.high[b] as number] : [b, b];
    const result =
      operation === AND
        ? this.node(top, this.and(aLow, bLow), this.and(aHigh, bHigh))
        : this.node(top, this.or(aLow, bLow), this.or(aHigh, bHigh));
    this.remember(slot, a, key, result);
    return result;
  }

  /** Forgets variables: true where some value of those with `isDead` makes `a` true. */
  forget(a: Diagram, isDead: (level: number) => boolean): Diagram {
    const known = new Map<Diagram, Diagram>();
    const visit = (at: Diagram): Diagram => {
      if (at <= TRUE) return at;
      const before = known.get(at);
      if (before !== undefined) return before;
      const level = this.level[at] as number;
      const low = visit(this.low[at] as number);
      const result = isDead(level)
        ? low === TRUE
          ? TRUE
          : this.or(low, visit(this.high[at] as number))
        : this.node(level, low, visit(this.high[at] as number));
      known.set(at, result);
      return result;
    };
    return visit(a);
  }

  /** The variables that `a` depends on, smallest first. */
  support(a: Diagram): number[] {
    const seen = new Set<Diagram>();
    const levels = new Set<number>();
    const visit = (at: Diagram) => {
      if (at <= TRUE || seen.has(at)) return;
      seen.add(at);
      levels.add(this.level[at] as number);
      visit(this.low[at] as number);
      visit(this.high[at] as number);
    };
    visit(a);
    return [...levels].sort((x, y) => x - y);
  }

  /** How many nodes a diagram has, counted up to a number. */
  size(a: Diagram, most = Infinity): number {
    const seen = new Set<Diagram>();
    const open = [a];
    for (let at = open.pop(); at !== undefined && seen.size < most; at = open.pop()) {
      if (at <= TRUE || seen.has(at)) continue;
      seen.add(at);
      open.push(this.low[at] as number, this.high[at] as number);
    }
    return seen.size;
  }

  /** A conjunction of literals as a diagram: true variables and false ones. */
  cube(literals: Iterable<readonly [level: number, value: boolean]>): Diagram {
    let result = TRUE;
    for (const [level, value] of [...literals].sort((x, y) => y[0] - x[0])) {
      result = value ? this.node(level, FALSE, result) : this.node(level, result, FALSE);
    }
    return result;
  }

  /** Values that make `a` true, false ones preferred; variables left out do not matter. Null for FALSE. */
  satisfy(a: Diagram): Map<number, boolean> | null {
    if (a === FALSE) return null;
    const values = new Map<number, boolean>();
    for (let at = a; at !== TRUE;) {
      const low = this.low[at] as number;
      values.set(this.level[at] as number, low === FALSE);
      at = low === FALSE ? (this.high[at] as number) : low;
    }
    return values;
  }

  private node(level: number, low: Diagram, high: Diagram): Diagram {
    if (low === high) return low;
    let place = hash3(level, low, high) & (this.table.length - 1);
    for (;;) {
      const found = this.table[place] as number;
      if (found === 0) break;
      if (this.level[found] === level && this.low[found] === low && this.high[found] === high) return found;
      place = (place + 1) & (this.table.length - 1);
    }
    if (this.count >= this.mostNodes) throw new TooManyNodes();
    if (this.count === this.level.length) this.grow();
    const made = this.count;
    this.count += 1;
    this.level[made] = level;
    this.low[made] = low;
    this.high[made] = high;
    this.table[place] = made;
    if (this.count * 2 > this.table.length) this.rehash();
    return made;
  }

  private grow(): void {
    const larger = (from: Int32Array) => {
      const to = new Int32Array(from.length * 2);
      to.set(from);
      return to;
    };
    this.level = larger(this.level);
    this.low = larger(this.low);
    this.high = larger(this.high);
  }

  private rehash(): void {
    const table = new Int32Array(this.table.length * 2);
    const mask = table.length - 1;
    for (let n = 2; n < this.count; n += 1) {
      let place = hash3(this.level[n] as number, this.low[n] as number, this.high[n] as number) & mask;
      while (table[place] !== 0) place = (place + 1) & mask;
      table[place] = n;
    }
    this.table = table;
  }

  private slotOf(operation: number, a: Diagram, b: Diagram): number {
    return hash3(operation, a, b) & ((1 << CACHE_BITS) - 1);
  }

  private remember(slot: number, a: Diagram, b: number, result: Diagram): void {
    this.cacheKeyA[slot] = a;
    this.cacheKeyB[slot] = b;
    this.cacheResult[slot] = result;
  }
}

function hash3(a: number, b: number, c: number): number {
  let h = Math.imul(a, 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b) ^ Math.imul(c, 0xc2b2ae35);
  h ^= h >>> 15;
  h = Math.imul(h, 0x2c1b3c6d);
  h ^= h >>> 13;
  return h >>> 0;
}
