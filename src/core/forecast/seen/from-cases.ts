/** Cases that were kept of respondents, as a sample. */
import type { Plan } from '../../routing/plan';
import type { Walk } from '../../routing/walk';
import { walkOfCase } from '../../responding/case-data';
import type { KeptCase } from '../../responding/kept-case';
import { SampleReader, type SeenSample } from './sample';

export function sampleOfCases(plan: Plan, cases: readonly KeptCase[]): SeenSample {
  const reader = new SampleReader(plan);
  for (const kept of cases) {
    const walk = walkOfCase(plan, kept);
    if (walk === null) reader.leaveOut();
    else reader.read(walk, kept.answers, answeredSteps(walk, kept));
  }
  return reader.sample;
}

/** Of whoever is not done, the page in hand is not answered. */
function answeredSteps({ steps }: Walk, kept: KeptCase) {
  const isDone = kept.closed !== null && kept.closed.by === 'ending';
  const inHand = steps.at(-1)?.planItem;
  return isDone || inHand === undefined
    ? steps
    : steps.filter(({ planItem }) => planItem.section !== inHand.section || planItem.page !== inHand.page);
}
