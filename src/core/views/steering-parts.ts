/** The questions of a route that steer it: each part that answers one, in the order in which it is asked. */
import { driversOf, type Driver } from '../analysis';
import { passKey, readPassKey } from '../document/addresses';
import { hasRows } from '../document/answer-types';
import type { Answer, Answers, Value } from '../document/types';
import type { Plan } from '../routing/plan';

export interface SteeringPart {
  readonly driver: Driver;
  /** Of the question; of a grid, that of all its rows. */
  readonly answer: Answer;
  readonly key: string;
  readonly pass: number | null;
  /** The variable's label; its name where it has none. */
  readonly label: string;
  readonly value: Value | null | undefined;
}

/** Only parts that some condition reads and that were answered on the route. */
export function steeringParts(
  plan: Plan,
  route: { readonly items: readonly string[]; readonly answers: Answers },
): SteeringPart[] {
  const steering = driversOf(plan).byKey;
  return route.items.flatMap((itemKey) => {
    const { name, pass } = readPassKey(itemKey);
    const variable = plan.variables.get(name.toLowerCase());
    if (variable?.of !== 'question') return [];
    const { answer, label } = variable.question;
    const parts = hasRows(answer) ? answer.rows : [{ name, label: label ?? name }];
    return parts.flatMap((part) => {
      const driver = steering.get(part.name.toLowerCase());
      const key = passKey(part.name, pass);
      return driver === undefined
        ? []
        : [{ driver, answer, key, pass, label: part.label, value: route.answers[key] }];
    });
  });
}
