/** A symmetric relation of small numbers, as rows of bits. */

export type Pair = readonly [number, number];

/** A symmetric relation of numbers, as rows of bits. */
export class BitRelation {
  private readonly words: number;
  private readonly rows: Uint32Array[];

  constructor(
    readonly size: number,
    rows?: readonly Uint32Array[],
  ) {
    this.words = Math.ceil(size / 32);
    this.rows = rows?.map((row) => row.slice()) ?? Array.from({ length: size }, () => this.none());
  }

  none(): Uint32Array {
    return new Uint32Array(this.words);
  }

  copy(): BitRelation {
    return new BitRelation(this.size, this.rows);
  }

  has(a: number, b: number): boolean {
    return bitOf(this.rows[a], b);
  }

  /** Relates a number to all that are in a row of bits. */
  addAll(a: number, others: Uint32Array): void {
    const row = this.rows[a] as Uint32Array;
    for (let word = 0; word < row.length; word += 1)
      row[word] = (row[word] as number) | (others[word] as number);
  }

  /** Makes it hold both ways; nothing is related to itself. */
  mirror(): void {
    for (let a = 0; a < this.size; a += 1) {
      for (let b = 0; b < a; b += 1) {
        if (!this.has(a, b) && !this.has(b, a)) continue;
        setBit(this.rows[a] as Uint32Array, b);
        setBit(this.rows[b] as Uint32Array, a);
      }
      clearBit(this.rows[a] as Uint32Array, a);
    }
  }

  takeOut(numbers: readonly number[]): void {
    for (const a of numbers) for (const b of numbers) clearBit(this.rows[a] as Uint32Array, b);
  }

  /** How many of some numbers one is related to; of all of them by default. */
  degree(a: number, of?: Uint32Array): number {
    const row = this.rows[a] as Uint32Array;
    let count = 0;
    for (let word = 0; word < row.length; word += 1)
      count += bitsIn((row[word] as number) & (of === undefined ? -1 : (of[word] as number)));
    return count;
  }

  count(numbers: ReadonlySet<number>): number {
    let twice = 0;
    for (const a of numbers) twice += this.degree(a);
    return twice / 2;
  }

  /** A pair of which both have few others; null where none is left. */
  hardest(numbers: ReadonlySet<number>): Pair | null {
    const scarcest = (among: (a: number) => boolean) => {
      let best = -1;
      let least = Infinity;
      for (const a of numbers) {
        const degree = among(a) ? this.degree(a) : 0;
        if (degree > 0 && degree < least) [best, least] = [a, degree];
      }
      return best;
    };
    const a = scarcest(() => true);
    return a < 0 ? null : [a, scarcest((b) => this.has(a, b))];
  }
}

function bitOf(row: Uint32Array | undefined, n: number): boolean {
  return (((row?.[n >> 5] ?? 0) >>> (n & 31)) & 1) === 1;
}

/** `n` counts from 0; the row must be long enough for it. */
export function setBit(row: Uint32Array, n: number): void {
  row[n >> 5] = (row[n >> 5] as number) | (1 << (n & 31));
}

function clearBit(row: Uint32Array, n: number): void {
  row[n >> 5] = (row[n >> 5] as number) & ~(1 << (n & 31));
}

function bitsIn(word: number): number {
  let left = word - ((word >>> 1) & 0x55555555);
  left = (left & 0x33333333) + ((left >>> 2) & 0x33333333);
  return Math.imul((left + (left >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}
