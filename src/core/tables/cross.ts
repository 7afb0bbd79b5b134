/** Two variables against each other, on those who answered both. */
import { binsOf } from './bins';
import { caseOf, timesIn } from './cases';
import type { Dataset } from './dataset';
import type { TableVariable } from './variables';

export interface Cross {
  readonly rows: readonly string[];
  readonly columns: readonly string[];
  /** By row, then column. */
  readonly counts: readonly (readonly number[])[];
  /** Cases of each row and column, and in all; with several picks less than their counts add up to. */
  readonly rowCases: readonly number[];
  readonly columnCases: readonly number[];
  readonly cases: number;
  /** Left out: without an answer to the one, or to the other. */
  readonly without: { readonly row: number; readonly column: number };
}

/** Cases that say the same of both. */
interface Pair {
  readonly a: readonly (number | string)[];
  readonly b: readonly (number | string)[];
  readonly times: number;
}

/** Null where the two cannot be put together: passes of a section go only with passes of the same section. */
export function crossOf(
  data: Dataset,
  row: TableVariable,
  column: TableVariable,
  rows: ArrayLike<number>,
): Cross | null {
  if (row.over !== column.over || row.passes.length !== column.passes.length) return null;
  const pairs: Pair[] = [];
  const without = { row: 0, column: 0 };
  for (let pass = 0; pass < row.passes.length; pass += 1) {
    const both = [...(row.passes[pass] ?? []), ...(column.passes[pass] ?? [])].map(({ index }) => index);
    for (const { row: at, rows: times } of data.alikeIn(both, rows).groups) {
      const [a, b] = [caseOf(data, row, at, pass), caseOf(data, column, at, pass)];
      if (a.state !== 'answered') without.row += times;
      else if (b.state !== 'answered') without.column += times;
      else pairs.push({ a: a.values, b: b.values, times });
    }
  }
  const down = axisOf(
    row,
    pairs.flatMap(({ a }) => a),
  );
  const across = axisOf(
    column,
    pairs.flatMap(({ b }) => b),
  );
  const counts = down.map(() => across.map(() => 0));
  const rowCases = down.map(() => 0);
  const columnCases = across.map(() => 0);
  for (const { a, b, times } of pairs) {
    const own = down.flatMap(({ has }, n) => (a.some(has) ? [n] : []));
    const others = across.flatMap(({ has }, n) => (b.some(has) ? [n] : []));
    for (const n of own) rowCases[n] = (rowCases[n] ?? 0) + times;
    for (const n of others) columnCases[n] = (columnCases[n] ?? 0) + times;
    for (const n of own) for (const m of others) (counts[n] as number[])[m] = (counts[n]?.[m] ?? 0) + times;
  }
  return {
    rows: down.map(({ label }) => label),
    columns: across.map(({ label }) => label),
    counts,
    rowCases,
    columnCases,
    cases: timesIn(pairs),
    without,
  };
}

interface CrossLine {
  readonly label: string;
  readonly has: (value: number | string) => boolean;
}

function axisOf({ kind, categories }: TableVariable, values: readonly (number | string)[]): CrossLine[] {
  if (kind === 'numbers' || kind === 'moments') return binsOf(values, kind);
  if (kind === 'texts')
    return [...new Set(values)].sort().map((value) => ({ label: String(value), has: (of) => of === value }));
  return categories
    .filter(({ missing }) => missing === undefined)
    .map(({ value, label }) => ({ label, has: (of) => of === value }));
}
