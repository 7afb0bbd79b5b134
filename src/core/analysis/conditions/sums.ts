/**
 * A sum of answers compared with nothing: one diagram, built from its last answer up. What is known of a sum on the
 * way is just how much it has come to, so it stays as small as there are sums to come to.
 */
import { compareValues, exactDecimal, type Reading } from '../../condition/evaluate';
import type { CompareOperator } from '../../condition/syntax';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';

export interface SumTerm {
  readonly symbol: AnswerSymbol;
  /** What its answer is multiplied by. */
  readonly by: number;
}

/** That all answers have a value, and their sum and the constant compare so with 0. */
export function compareSum(
  diagrams: Diagrams,
  terms: readonly SumTerm[],
  constant: number,
  operator: CompareOperator,
): Diagram {
  const sorted = [...terms].sort((a, b) => a.symbol.level - b.symbol.level);
  const values = sorted.map(({ symbol }) => valuesOf(symbol));
  if (values.some(({ length }) => length === 0)) return FALSE;
  /** The least and the most that the terms from here on can add. */
  const least: number[] = [0];
  const most: number[] = [0];
  const valued: Diagram[] = [TRUE];
  for (let n = sorted.length - 1; n >= 0; n -= 1) {
    const { symbol, by } = sorted[n] as SumTerm;
    const ends = [values[n]?.[0] ?? 0, values[n]?.at(-1) ?? 0].map((value) => value * by);
    least.unshift((least[0] ?? 0) + Math.min(...ends));
    most.unshift((most[0] ?? 0) + Math.max(...ends));
    const has = symbol.predicate((reading) => numberIn(reading) !== null);
    valued.unshift(diagrams.and(has, valued[0] ?? TRUE));
  }
  const known = sorted.map(() => new Map<number, Diagram>());
  const from = (n: number, so: number): Diagram => {
    const decided = decidedBetween(so + (least[n] ?? 0), so + (most[n] ?? 0), operator);
    if (decided !== null) return decided ? (valued[n] ?? TRUE) : FALSE;
    const before = known[n]?.get(so);
    if (before !== undefined) return before;
    const { symbol, by } = sorted[n] as SumTerm;
    let result: Diagram;
    if (n === sorted.length - 1) {
      result = symbol.predicate((reading) => {
        const value = numberIn(reading);
        return value !== null && compareValues(exactDecimal(so + by * value), operator, 0);
      });
    } else {
      const has = symbol.predicate((reading) => numberIn(reading) !== null);
      let chosen: Diagram | null = null;
      let last: Diagram | null = null;
      for (const value of values[n] ?? []) {
        const here = from(n + 1, exactDecimal(so + by * value));
        if (chosen === null) chosen = here;
        else if (here !== last) chosen = diagrams.choose(atLeast(symbol, value), here, chosen);
        last = here;
      }
      result = diagrams.and(has, chosen ?? FALSE);
    }
    known[n]?.set(so, result);
    return result;
  };
  return from(0, constant);
}

/** Whether all sums between two compare the same with 0; null where they do not. */
function decidedBetween(low: number, high: number, operator: CompareOperator): boolean | null {
  const [a, b] = [exactDecimal(low), exactDecimal(high)];
  if (a === b) return compareValues(a, operator, 0);
  if (operator === '=' || operator === '<>') return a > 0 || b < 0 ? operator === '<>' : null;
  const [atLow, atHigh] = [compareValues(a, operator, 0), compareValues(b, operator, 0)];
  return atLow === atHigh ? atLow : null;
}

function atLeast(symbol: AnswerSymbol, bound: number): Diagram {
  return symbol.predicate((reading) => {
    const value = numberIn(reading);
    return value !== null && value >= bound;
  });
}

function numberIn({ value, missing }: Reading): number | null {
  return typeof value === 'number' && !missing ? value : null;
}

/** Smallest first. */
function valuesOf({ readings }: AnswerSymbol): number[] {
  const values = new Set(readings.flatMap((reading) => numberIn(reading) ?? []));
  return [...values].sort((a, b) => a - b);
}
