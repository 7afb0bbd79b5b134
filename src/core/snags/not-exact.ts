/** Places where the analysis had to stop short of exactness. */
import type { Analysis } from '../analysis';
import type { Snag } from './types';

export function notExact({ limits }: Analysis): Snag[] {
  return limits.map(({ at, message }) => ({
    rule: 'not-exact',
    severity: 'warning',
    at,
    message: `here the analysis had to stop short: ${message}`,
  }));
}

/** Where who is asked could not be said. Works it out where nobody has asked before. */
export function unsaidSnags({ unsaid }: Analysis): Snag[] {
  return unsaid.map(({ at, message }) => ({ rule: 'not-exact', severity: 'warning', at, message }));
}
