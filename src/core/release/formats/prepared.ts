/** A questionnaire with its plan and analysis, which several files are made of: worked out once for each questionnaire. */
import { analyse, sharesOf, type Analysis } from '../../analysis';
import type { Questionnaire } from '../../document/types';
import type { Plan } from '../../routing/plan';
import { planOf } from '../../routing/planner';
import { once } from './once';

export interface Prepared {
  readonly plan: Plan;
  readonly analysis: Analysis;
}

export const preparedFor = once((document: Questionnaire): Prepared => {
  const plan = planOf(document);
  return { plan, analysis: analyse(plan) };
});

/** What share of the sample is expected everywhere; null where that is not known exactly. */
export const sharesFor = once((document: Questionnaire) => sharesOf(preparedFor(document).plan));
