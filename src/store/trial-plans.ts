/** Questionnaires of links made ready for walking: making one ready takes longer than a turn. */
import { readDocumentText } from '../core/document/read';
import type { Plan } from '../core/routing/plan';
import { planOf } from '../core/routing/planner';

/** Those that were asked for last. */
const plans = new Map<string, Plan>();
const MOST_PLANS = 20;

/** Throws where the text is no questionnaire any more. */
export function trialPlan({
  checksum,
  document,
}: {
  readonly checksum: string;
  readonly document: string;
}): Plan {
  let plan = plans.get(checksum);
  if (plan === undefined) {
    const read = readDocumentText(document);
    if (!read.ok) throw new Error(`the questionnaire of a link cannot be read: ${read.problems[0]?.message}`);
    plan = planOf(read.document);
    const [oldest] = plans.keys();
    if (plans.size >= MOST_PLANS && oldest !== undefined) plans.delete(oldest);
    plans.set(checksum, plan);
  }
  return plan;
}
