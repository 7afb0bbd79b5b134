/**
 * Reduced ordered binary decision diagrams: Boolean functions as numbers, equal functions as equal numbers.
 *
 * After Bryant, "Graph-based algorithms for Boolean function manipulation" (1986): nodes are hash-consed in typed
 * arrays, operations remember their results. Variables are any whole numbers from 0; smaller ones are tested
 * first. Knows nothing of questionnaires.
 */

import { TooManyNodes } from './limits';

/** A Boolean function; only the store that made it can read it. */
export type Diagram = number;

export const FALSE: Diagram = 0;
export const TRUE: Diagram = 1;

/**
 * Steps of work at most, a step being two nodes put together or one looked at: some seconds. Counted, rather than timed,
 * so that an answer does not depend on the machine.
 */
export const MOST_STEPS = 25_000_000;
/** Looking at a node costs more than putting two together, since what was seen is kept by name. */
const STEPS_TO_FORGET = 4;
/** Variables tested one after the other at most: each is a call within a call. */
const MOST_DEEP = 2_000;

/** Level of the two constants: below every variable. */
const BOTTOM = 0x7fffffff;
/** Results that are remembered: fewer at first, more as there are more diagrams to remember results of. */
const LEAST_CACHE_BITS = 16;
const MOST_CACHE_BITS = 20;
/** Nodes that there is room for at first. */
const FIRST_NODES = 8192;
/** Variables of so many diagrams are kept. */
const MOST_SUPPORTS = 50_000;

const AND = 0;
const OR = 1;
const NOT = 2;

export class Diagrams {
  private level = new Int32Array(FIRST_NODES);
  private low = new Int32Array(FIRST_NODES);
  private high = new Int32Array(FIRST_NODES);
  private count = 2;
  /** Open addressing; 0 stands for an empty place. */
  private table = new Int32Array(4 * FIRST_NODES);
  private cacheMask = (1 << LEAST_CACHE_BITS) - 1;
  private cacheKeyA = new Int32Array(1 << LEAST_CACHE_BITS).fill(-1);
  private cacheKeyB = new Int32Array(1 << LEAST_CACHE_BITS);
  private cacheResult = new Int32Array(1 << LEAST_CACHE_BITS);
  /** By node, in which visit it was seen last, and what came of it then: nothing is to be emptied between visits. */
  private seenIn = new Int32Array(FIRST_NODES);
  private cameOf = new Int32Array(FIRST_NODES);
  private visits = 0;
  private readonly supports = new Map<Diagram, readonly number[]>();

  private steps = 0;

  constructor(
    private readonly mostNodes = 4_000_000,
    private readonly mostSteps = MOST_STEPS,
  ) {
    this.level[FALSE] = BOTTOM;
    this.level[TRUE] = BOTTOM;
  }

  /** Nodes made so far. */
  get nodes(): number {
    return this.count;
  }

  /** Begins the count of steps anew: for the next piece of work, which is to have its own. */
  rest(): void {
    this.steps = 0;
  }

  /** Counts work that is done beside the diagrams and grows with what is looked into. */
  spend(steps: number): void {
    this.work(steps);
  }

  /** Says at once, rather than after seconds, that some work would take more steps than are left. */
  foresee(steps: number): void {
    if (this.steps + steps > this.mostSteps)
      throw new TooManyNodes('the work would take more steps than allowed');
  }

  private work(steps: number): void {
    this.steps += steps;
    if (this.steps > this.mostSteps) throw new TooManyNodes('the work takes more steps than allowed');
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

  not(a: Diagram, depth = 0): Diagram {
    if (a <= TRUE) return 1 - a;
    const slot = this.slotOf(NOT, a, 0);
    if (this.cacheKeyA[slot] === a && this.cacheKeyB[slot] === -NOT) return this.cacheResult[slot] as number;
    if (depth > MOST_DEEP) throw new TooManyNodes('one diagram tests more variables than allowed');
    const result = this.node(
      this.level[a] as number,
      this.not(this.low[a] as number, depth + 1),
      this.not(this.high[a] as number, depth + 1),
    );
    this.remember(this.slotOf(NOT, a, 0), a, -NOT, result);
    return result;
  }

  and(a: Diagram, b: Diagram, depth = 0): Diagram {
    if (a === b || b === TRUE) return a;
    if (a === TRUE) return b;
    if (a === FALSE || b === FALSE) return FALSE;
    return a > b ? this.apply(AND, b, a, depth) : this.apply(AND, a, b, depth);
  }

  or(a: Diagram, b: Diagram, depth = 0): Diagram {
    if (a === b || b === FALSE) return a;
    if (a === FALSE) return b;
    if (a === TRUE || b === TRUE) return TRUE;
    return a > b ? this.apply(OR, b, a, depth) : this.apply(OR, a, b, depth);
  }

  /** `a` where `condition` holds, `b` elsewhere. */
  choose(condition: Diagram, a: Diagram, b: Diagram): Diagram {
    return this.or(this.and(condition, a), this.and(this.not(condition), b));
  }

  /** Whether some assignment makes `a` true and `b` true. */
  meets(a: Diagram, b: Diagram): boolean {
    return this.and(a, b) !== FALSE;
  }

  private apply(operation: typeof AND | typeof OR, a: Diagram, b: Diagram, depth: number): Diagram {
    const slot = this.slotOf(operation, a, b);
    const key = operation === AND ? b : -b - 3;
    if (this.cacheKeyA[slot] === a && this.cacheKeyB[slot] === key) return this.cacheResult[slot] as number;
    this.work(1);
    if (depth > MOST_DEEP) throw new TooManyNodes('one diagram tests more variables than allowed');
    const levelA = this.level[a] as number;
    const levelB = this.level[b] as number;
    const top = levelA < levelB ? levelA : levelB;
    const aLow = levelA === top ? (this.low[a] as number) : a;
    const aHigh = levelA === top ? (this.high[a] as number) : a;
    const bLow = levelB === top ? (this.low[b] as number) : b;
    const bHigh = levelB === top ? (this.high[b] as number) : b;
    const result =
      operation === AND
        ? this.node(top, this.and(aLow, bLow, depth + 1), this.and(aHigh, bHigh, depth + 1))
        : this.node(top, this.or(aLow, bLow, depth + 1), this.or(aHigh, bHigh, depth + 1));
    // The place may be another by now, where there is room for more.
    this.remember(this.slotOf(operation, a, b), a, key, result);
    return result;
  }

  /** Forgets variables: true where some value of those with `isDead` makes `a` true. */
  forget(a: Diagram, isDead: (level: number) => boolean): Diagram {
    const visited = this.nextVisit();
    const visit = (at: Diagram, depth: number): Diagram => {
      if (at <= TRUE) return at;
      if (this.seenIn[at] === visited) return this.cameOf[at] as number;
      if (depth > MOST_DEEP) throw new TooManyNodes('one diagram tests more variables than allowed');
      this.work(STEPS_TO_FORGET);
      const level = this.level[at] as number;
      const low = visit(this.low[at] as number, depth + 1);
      const result = isDead(level)
        ? low === TRUE
          ? TRUE
          : this.or(low, visit(this.high[at] as number, depth + 1))
        : this.node(level, low, visit(this.high[at] as number, depth + 1));
      this.seenIn[at] = visited;
      this.cameOf[at] = result;
      return result;
    };
    return visit(a, 0);
  }

  /** What is left of `a` once some of its variables have these values. */
  restrict(a: Diagram, values: ReadonlyMap<number, boolean>): Diagram {
    const visited = this.nextVisit();
    const visit = (at: Diagram, depth: number): Diagram => {
      if (at <= TRUE) return at;
      if (this.seenIn[at] === visited) return this.cameOf[at] as number;
      if (depth > MOST_DEEP) throw new TooManyNodes('one diagram tests more variables than allowed');
      this.work(1);
      const level = this.level[at] as number;
      const value = values.get(level);
      const result =
        value === undefined
          ? this.node(
              level,
              visit(this.low[at] as number, depth + 1),
              visit(this.high[at] as number, depth + 1),
            )
          : visit((value ? this.high[at] : this.low[at]) as number, depth + 1);
      this.seenIn[at] = visited;
      this.cameOf[at] = result;
      return result;
    };
    return visit(a, 0);
  }

  /** The variables that `a` depends on, smallest first. */
  support(a: Diagram): readonly number[] {
    const known = this.supports.get(a);
    if (known !== undefined) return known;
    const visited = this.nextVisit();
    const levels = new Set<number>();
    const open = [a];
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      if (at <= TRUE || this.seenIn[at] === visited) continue;
      this.seenIn[at] = visited;
      levels.add(this.level[at] as number);
      open.push(this.high[at] as number, this.low[at] as number);
    }
    const support = [...levels].sort((x, y) => x - y);
    if (this.supports.size >= MOST_SUPPORTS) this.supports.clear();
    this.supports.set(a, support);
    return support;
  }

  private nextVisit(): number {
    this.visits += 1;
    return this.visits;
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
    if (this.count >= this.mostNodes) throw new TooManyNodes('the work takes more memory than allowed');
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
    this.seenIn = larger(this.seenIn);
    this.cameOf = larger(this.cameOf);
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
    if (this.cacheMask < this.table.length >> 2 && this.cacheMask + 1 < 1 << MOST_CACHE_BITS)
      this.growCache();
  }

  private growCache(): void {
    const size = 2 * (this.cacheMask + 1);
    this.cacheMask = size - 1;
    // What was remembered is worked out again: it is less than what has come since.
    this.cacheKeyA = new Int32Array(size).fill(-1);
    this.cacheKeyB = new Int32Array(size);
    this.cacheResult = new Int32Array(size);
  }

  private slotOf(operation: number, a: Diagram, b: Diagram): number {
    return hash3(operation, a, b) & this.cacheMask;
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
