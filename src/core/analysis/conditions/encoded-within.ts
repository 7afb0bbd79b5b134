/** Work within its limits: what is too entangled gives nothing, or is looked at with fewer values. */
import type { Plan } from '../../routing/plan';
import { Diagrams } from '../diagrams/diagram';
import { TooManyNodes, type Caps } from '../diagrams/limits';
import { EncodedPlan, type EncodingScope } from './encoded-plan';
import { TooManyCases } from './operand-cases';

/** Values of an answer compared with another one that are tried, from all to few. */
const VALUES_TRIED = [Infinity, 60, 12, 4] as const;

/**
 * Where comparisons of answers with each other are too many to tell apart, fewer of their values are tried, and
 * said so: what is counted then are real routes, though not all.
 */
export function encodedWithin(plan: Plan, caps: Caps, scope: EncodingScope = {}): EncodedPlan {
  for (const mostValues of VALUES_TRIED) {
    try {
      return new EncodedPlan(plan, new Diagrams(caps.nodes, caps.steps), { ...scope, mostValues });
    } catch (error) {
      if (!(error instanceof TooManyCases || error instanceof TooManyNodes)) throw error;
    }
  }
  throw new TooManyCases('the conditions are too entangled to be worked out');
}
