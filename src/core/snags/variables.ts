/** Small questions about variables that several checks ask. */
import type { Answer } from '../document/types';

/** Whether a number is a whole multiple of a step, but for rounding. */
export function holdsIn(value: number, step: number): boolean {
  const steps = value / step;
  return Math.abs(steps - Math.round(steps)) < 1e-6;
}

/** How many options give a pass each. */
export function ordinaryCount(answer: Answer | null): number {
  return answer?.type === 'multiple'
    ? answer.options.filter((option) => !option.exclusive && option.missing === undefined).length
    : 0;
}
