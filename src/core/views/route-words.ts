/** What makes a route this route: the steering questions it presents, with the answers of one respondent on it. */
import { driversOf } from '../analysis';
import { passKey, readPassKey } from '../document/addresses';
import { hasRows } from '../document/answer-types';
import type { Answers } from '../document/types';
import type { Plan } from '../routing/plan';
import { valueWords } from '../wording/values';

export interface SteeringAnswer {
  /** `name`, or `name#pass`. */
  readonly key: string;
  /** The variable's label where it has one. */
  readonly label: string;
  /** In words; empty for a blank. */
  readonly words: string;
}

export function steeringAnswers(
  plan: Plan,
  route: { readonly items: readonly string[]; readonly answers: Answers },
): SteeringAnswer[] {
  const steering = driversOf(plan).byKey;
  const found: SteeringAnswer[] = [];
  for (const key of route.items) {
    const { name, pass } = readPassKey(key);
    const variable = plan.variables.get(name.toLowerCase());
    if (variable?.of !== 'question') continue;
    const { answer, label } = variable.question;
    const parts = hasRows(answer) ? answer.rows : [{ name, label: label ?? name }];
    for (const part of parts) {
      if (!steering.has(part.name.toLowerCase())) continue;
      const words = valueWords(answer, route.answers[passKey(part.name, pass)]);
      found.push({
        key: passKey(part.name, pass),
        label: pass === undefined ? part.label : `${part.label} ${pass}`,
        words,
      });
    }
  }
  return found;
}
