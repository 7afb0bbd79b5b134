/** Two keyings of one form, field by field. */
import equal from 'fast-deep-equal';
import { picksMany } from '../document/answer-types';
import type { Answers, Value } from '../document/types';
import { isBlank } from '../routing/answers';
import type { KeyField } from './fields';
import type { Keying } from './sheet';

export interface Difference {
  readonly field: KeyField;
  readonly first: Value | null;
  readonly second: Value | null;
}

/** Fields in which two keyings differ, in the order of the form; picks in another order are the same picks. */
export function differences({ fields }: Keying, first: Answers, second: Answers): Difference[] {
  return fields.flatMap((field) => {
    const [a, b] = [plain(field, first[field.key]), plain(field, second[field.key])];
    return equal(a, b) ? [] : [{ field, first: a, second: b }];
  });
}

function plain({ answer }: KeyField, value: Value | null | undefined): Value | null {
  if (value === undefined || isBlank(value)) return null;
  if (picksMany(answer) && Array.isArray(value))
    return [...(value as readonly number[])].sort((a, b) => a - b);
  return value;
}
