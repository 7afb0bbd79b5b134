/** What a derived variable comes to for answers that somebody tries. */
import type { Value } from '../document/types';
import { PlanEnvironment, readingOf } from '../routing/readings';
import { variableAnswer } from '../routing/answers';
import type { Plan } from '../routing/plan';

/** Of answers by variable name; one that is left out was not asked. Null where it comes to no value. */
export function tryDerived(
  plan: Plan,
  name: string,
  answers: Readonly<Record<string, Value | null | undefined>>,
): number | null {
  const readings = new Map(
    Object.entries(answers).flatMap(([of, value]) => {
      const answer = variableAnswer(plan.variables.get(of.toLowerCase()));
      return answer === null || value === undefined
        ? []
        : [[of.toLowerCase(), readingOf(answer, value)] as const];
    }),
  );
  const environment = new PlanEnvironment(
    plan,
    { get: (key) => readings.get(key), passesBegun: () => 0 },
    plan.sections.length,
    null,
  );
  const { value } = environment.read(name.toLowerCase());
  return typeof value === 'number' ? value : null;
}
