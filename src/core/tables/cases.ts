/** What one case (a respondent, or a pass of theirs) says of a variable. */
import { isUnasked } from '../document/vocabularies';
import type { Dataset } from './dataset';
import type { TableVariable } from './variables';

export type TableCase =
  /** Values as they are tabulated: one, or several picks. */
  | { readonly state: 'answered'; readonly values: readonly (number | string)[] }
  /** Don't know and the like. */
  | { readonly state: 'no-answer'; readonly option: number | string }
  /** A reason of the missing plan; `blank` where nothing says why, `unreadable` where no code is known. */
  | { readonly state: 'missing'; readonly reason: string; readonly asked: boolean };

/** `row` and `pass` count from 0; a pass that the variable has not says nothing. */
export function caseOf(data: Dataset, variable: TableVariable, row: number, pass: number): TableCase {
  const columns = variable.passes[pass] ?? [];
  const missing = (reason: string): TableCase => ({ state: 'missing', reason, asked: !isUnasked(reason) });
  const values: (number | string)[] = [];
  let reason: string | null = null;
  for (const { index, code } of columns) {
    const reading = data.reading(row, index);
    if (reading.kind === 'blank') reason ??= 'blank';
    else if (reading.kind === 'reason') reason = reading.reason;
    else if (reading.kind === 'wrong') reason = 'unreadable';
    else if (variable.kind !== 'picks') values.push(reading.value);
    else if (reading.value === 1) values.push(code);
  }
  const [first] = values;
  if (first === undefined) return missing(reason ?? 'no_answer');
  const option = variable.categories.find(({ value }) => value === first);
  if (option?.missing !== undefined && values.length === 1) return { state: 'no-answer', option: first };
  return { state: 'answered', values };
}

/** Something, and how many times it is there. */
export interface Counted<Of> {
  readonly of: Of;
  readonly times: number;
}

/** What the cases of some rows say, those that say the same put together. */
export function casesOf(
  data: Dataset,
  variable: TableVariable,
  rows: ArrayLike<number>,
): Counted<TableCase>[] {
  return variable.passes.flatMap((columns, pass) =>
    data
      .alikeIn(
        columns.map(({ index }) => index),
        rows,
      )
      .groups.map(({ row, rows: times }) => ({ of: caseOf(data, variable, row, pass), times })),
  );
}

export function timesIn(counted: readonly Pick<Counted<unknown>, 'times'>[]): number {
  return counted.reduce((sum, { times }) => sum + times, 0);
}
