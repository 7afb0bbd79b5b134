/** Small questions about variables that several checks ask. */
import { picksMany } from '../document/answer-types';
import type { Answer } from '../document/types';

/** How many options give a pass each. */
export function ordinaryCount(answer: Answer | null): number {
  return picksMany(answer)
    ? answer.options.filter((option) => !option.exclusive && option.missing === undefined).length
    : 0;
}
