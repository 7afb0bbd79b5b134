/** Shares that are assumed of some apart from the rest, by what is known of them before the question. */
import type { Assume, Questionnaire } from '../document/types';
import { applyChange } from '../editing/change';
import { planOf } from '../routing/planner';
import { assume, assumedAtQuestions } from './sets';

/** With the shares of all to begin with; the conditions before it are tried first. */
export function withApart(before: Assume, condition: string): Assume {
  const { shares, ranges, blank, where = [] } = before;
  const own = {
    ...(shares === undefined ? {} : { shares }),
    ...(ranges === undefined ? {} : { ranges }),
    ...(blank === undefined ? {} : { blank }),
  };
  return { ...before, where: [...where, { if: condition.trim(), ...own }] };
}

/** Why some cannot be told apart by a condition at a question, as a sentence; null where they can. */
export function apartProblem(document: Questionnaire, name: string, condition: string): string | null {
  if (condition.trim() === '') return 'Say of whom: a condition on earlier answers, such as tenure = 1.';
  const before = assumedAtQuestions(document).get(name)?.assume ?? {};
  if (before.where?.some((of) => of.if === condition.trim()) === true)
    return 'They have shares of their own here already.';
  const at = before.where?.length ?? 0;
  const { document: after } = applyChange(document, assume(null, name, withApart(before, condition)));
  const problem = planOf(after).problems.find(
    (of) => 'item' in of.at && of.at.item === name && of.field === `assume.where[${at}].if`,
  );
  return problem === undefined ? null : `${problem.message[0]?.toUpperCase()}${problem.message.slice(1)}.`;
}
