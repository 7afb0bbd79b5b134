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
