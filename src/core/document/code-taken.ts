/** Whether a code is already a possible answer to a variable, so that it cannot stand for a lack of one. */
import { stepsOf, type NumericAnswer } from './answer-types';
import { optionsOf } from './shape';
import type { Answer } from './types';

/** The answer that a code would be taken for, in words; null where it is none. */
export function codeTaken(answer: Answer, code: number): string | null {
  const option = optionsOf(answer).find((each) => each.code === code);
  switch (answer.type) {
    case 'single':
    case 'rank':
      return option === undefined ? null : `the answer “${option.label}”`;
    case 'multiple':
      if (code === 0 || code === 1) return picksWord(code);
      return option?.missing === undefined ? null : `the answer “${option.label}”`;
    case 'grid':
      if (answer.pick === 'many' && (code === 0 || code === 1)) return picksWord(code);
      return option === undefined || (answer.pick === 'many' && option.missing === undefined)
        ? null
        : `the answer “${option.label}”`;
    case 'number':
    case 'scale':
      if (option !== undefined) return `the answer “${option.label}”`;
      return isInLimits(answer, code) ? `a possible answer, within ${answer.min} to ${answer.max}` : null;
    case 'date':
    case 'time':
    case 'datetime':
      return option === undefined ? null : `the answer “${option.label}”`;
    case 'text':
      return null;
    default:
      return answer satisfies never;
  }
}

/** What a column of picks holds already. */
export function picksWord(code: number): string {
  return code === 1 ? 'what its columns hold for a pick' : 'what its columns hold for no pick';
}

/** Whether a number could be answered: within the limits, and on a step. */
export function isInLimits(answer: NumericAnswer, code: number): boolean {
  if (code < answer.min || code > answer.max) return false;
  const { from, step } = stepsOf(answer);
  return holdsIn(code - from, step);
}

/** Whether a number is a whole multiple of a step, but for rounding. */
export function holdsIn(value: number, step: number): boolean {
  const steps = value / step;
  return Math.abs(steps - Math.round(steps)) < 1e-6;
}
