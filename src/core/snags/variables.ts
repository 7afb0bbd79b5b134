/** Small questions about variables that several checks ask. */
import type { Answer } from '../document/types';

/** How many options give a pass each. */
export function ordinaryCount(answer: Answer | null): number {
  return answer?.type === 'multiple'
    ? answer.options.filter((option) => !option.exclusive && option.missing === undefined).length
    : 0;
}
