/** Which fields of a section are shown on a form, and what stands for passes that do not run. */
import type { Answers } from '../../../core/document/types';
import type { KeyField } from '../../../core/keying/fields';
import type { FieldState } from '../../../core/keying/sheet';

export interface Away {
  readonly from: string;
  readonly code: number | '';
  readonly words: string;
}

/** `own`: indexes of the section's fields. Fields to be shown by index; passes that do not run, and texts that are not open, are one line or none. */
export function rowsOf(
  own: readonly number[],
  fields: readonly KeyField[],
  states: readonly FieldState[],
  answers: Answers,
): (number | Away)[] {
  const rows: (number | Away)[] = [];
  const passes = new Map<number, number[]>();
  for (const at of own) {
    const field = fields[at];
    if (field === undefined) continue;
    const state = states[at];
    const filled = field.key in answers && answers[field.key] !== null;
    if (state?.is === 'passed-over' && !filled && field.kind !== 'answer') continue;
    if (field.pass === null) rows.push(at);
    else passes.set(field.pass, [...(passes.get(field.pass) ?? []), at]);
  }
  for (const [pass, list] of passes) {
    const some = list.some((at) => states[at]?.is === 'asked' || (fields[at]?.key ?? '') in answers);
    const state = states[list[0] ?? -1];
    if (some) rows.push(...list);
    else
      rows.push({
        from: `pass ${pass}`,
        code: state?.is === 'passed-over' ? state.code : '',
        words: `No pass ${pass}`,
      });
  }
  return rows;
}
