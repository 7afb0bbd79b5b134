/** Of each quota, the share of the sample that comes to it and meets it, and the share that counts towards it, all quotas being open. */
import { ENDINGS } from '../../document/vocabularies';
import type { Plan } from '../../routing/plan';
import type { EncodedPlan } from '../conditions/encoded-plan';
import type { Term } from '../diagrams/circuit';
import { FALSE, type Diagram } from '../diagrams/diagram';
import { withinMemory } from '../diagrams/limits';
import type { Weighing } from './weighing';

export interface QuotaTerms {
  readonly id: string;
  /** Where its question is presented, by pass. */
  readonly places: readonly number[];
  /** Those who meet it there. */
  readonly meeting: Diagram;
  /** Null where it cannot be told. */
  readonly met: Term | null;
  /** Those of them who come to an ending that counts. */
  readonly counted: Term | null;
}

/** In the order of the document. */
export function quotaTermsIn(plan: Plan, encoded: EncodedPlan, weighing: Weighing): QuotaTerms[] {
  const { course, diagrams } = encoded;
  const { coming } = weighing;
  const either = (some: readonly Diagram[]) => some.reduce((all, one) => diagrams.or(all, one), FALSE);
  const termOf = (of: () => Diagram) => withinMemory(() => weighing.termOf(of()));
  const complete = either(
    plan.endings.flatMap(({ ending }, index) =>
      ENDINGS[ending.kind].counts ? [coming.at(course.ending(index))] : [],
    ),
  );
  const terms = new Map<string, QuotaTerms>();
  for (const section of plan.sections) {
    const passes = Array.from({ length: section.repeat?.max ?? 1 }, (_, n) => n + 1);
    for (const { index, quotas } of section.items) {
      for (const { id, if: condition } of quotas) {
        const places = passes.map((pass) => course.item(section.index, pass, index));
        const meeting = either(
          places.map((at) => {
            const { pass } = encoded.itemAt(at);
            const holds = encoded.conditionAt(condition, { section: section.index, pass });
            return diagrams.and(coming.presentedAt(at), holds);
          }),
        );
        const counted = termOf(() => diagrams.and(meeting, complete));
        terms.set(id, { id, places, meeting, met: termOf(() => meeting), counted });
      }
    }
  }
  return (plan.document.quotas ?? []).flatMap(({ id }) => terms.get(id) ?? []);
}
