/** A questionnaire with its plan and analysis, which several files are made of: worked out once for each questionnaire. */
import { analyse, sharesOf, type Analysis, type Shares } from '../../analysis';
import type { Questionnaire } from '../../document/types';
import type { Plan } from '../../routing/plan';
import { planOf } from '../../routing/planner';

export interface Prepared {
  readonly plan: Plan;
  readonly analysis: Analysis;
}

const known = new WeakMap<Questionnaire, Prepared>();

export function preparedFor(document: Questionnaire): Prepared {
  let prepared = known.get(document);
  if (prepared === undefined) {
    const plan = planOf(document);
    prepared = { plan, analysis: analyse(plan) };
    known.set(document, prepared);
  }
  return prepared;
}

const sharesKnown = new WeakMap<Questionnaire, Shares | null>();

/** What share of the sample is expected everywhere; null where that is not known exactly. */
export function sharesFor(document: Questionnaire): Shares | null {
  let shares = sharesKnown.get(document);
  if (shares === undefined) {
    shares = sharesOf(preparedFor(document).plan);
    sharesKnown.set(document, shares);
  }
  return shares;
}
