/**
 * The order of variables, kept from one edit to the next: what means the same as before keeps its rank, and new things
 * take ranks in the gaps between, so that diagrams made before an edit still say what they said.
 *
 * A rank is never given to anything else, so a diagram can be stale but never wrong.
 */
import { longestAscending } from '../../editing/ascending';
import { VARIABLES_EACH, type AnswerSymbol } from '../answers/answer-symbol';
import { TooMuch } from '../diagrams/limits';

/** Ranks left free after each one at first. */
const GAP = 256;
/** Levels are 32-bit numbers. */
const MOST_RANKS = Math.floor(0x7ffffffe / VARIABLES_EACH);

/** Thrown where no rank is left to give: the book has to be begun anew. */
export class NoRankLeft extends TooMuch {}

/** A variable's rank, or an answer's, is asked for by what it means; equal texts mean the same. */
export class VariableOrder {
  /** Answers with their tests, by what they mean. */
  readonly symbols = new Map<string, AnswerSymbol>();
  private readonly known = new Map<string, number>();
  private readonly taken = new Set<number>();
  private last = 0;

  /** Ranks in ascending order for these things, as many as can be being those they had. */
  assign(meanings: readonly string[]): number[] {
    const before = meanings.map((meaning) => this.known.get(meaning) ?? null);
    const kept = longestAscending(before);
    const most = Math.floor(MOST_RANKS / (2 * meanings.length + 2));
    const gap = this.taken.size === 0 ? Math.max(1, Math.min(GAP, most)) : 1;
    this.last = 0;
    return meanings.map((meaning, n) => this.give(meaning, kept.has(n) ? (before[n] ?? null) : null, gap));
  }

  /** A rank after all that were given since `assign` began. */
  next(meaning: string): number {
    const before = this.known.get(meaning);
    return this.give(meaning, before !== undefined && before > this.last ? before : null, 1);
  }

  private give(meaning: string, before: number | null, gap: number): number {
    let rank = before ?? this.last + gap;
    if (before === null) while (this.taken.has(rank)) rank += 1;
    // Those before may have used up the gap.
    if (rank <= this.last || rank > MOST_RANKS) throw new NoRankLeft();
    this.known.set(meaning, rank);
    this.taken.add(rank);
    this.last = rank;
    return rank;
  }
}
