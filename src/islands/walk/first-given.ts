/** A value for what is known beforehand, where a walk has to begin with one. */
import { isNumeric, isWritten, picksOne } from '../../core/document/answer-types';
import type { Answers } from '../../core/document/types';
import type { Plan } from '../../core/routing/plan';

/** A value for each given that is not drawn by chance: its first option, or its least number. */
export function firstGiven(plan: Plan): Answers {
  return Object.fromEntries(
    (plan.document.given ?? [])
      .filter(({ random }) => !random)
      .map(({ name, answer }) => {
        if ('options' in answer)
          return [
            name,
            picksOne(answer) ? (answer.options[0]?.code ?? null) : [answer.options[0]?.code ?? 0],
          ];
        if (isNumeric(answer)) return [name, answer.min];
        return [name, isWritten(answer) ? 'x' : null];
      }),
  );
}
