/** Repeats with fewer passes than somebody asks for: what lies beyond is lost. */
import { FALSE } from '../analysis';
import { isNumeric } from '../document/answer-types';
import type { CheckContext } from './check-context';
import type { Snag } from './types';
import { ordinaryCount } from './variables';

export function passesCut(context: CheckContext): Snag[] {
  const { plan, encoded, flow, diagrams } = context;
  return plan.sections.flatMap(({ index, repeat, section }): Snag[] => {
    if (repeat?.driver == null) return [];
    const at = encoded.course.gate(index);
    const beyond = encoded.beyondPassesAt(at);
    const mass = diagrams.and(diagrams.and(flow.comesTo(at), encoded.gateParts(at).askIf), beyond);
    if (mass === FALSE) return [];
    const { name } = repeat.driver;
    const answer =
      repeat.driver.of === 'question'
        ? repeat.driver.question.answer
        : repeat.driver.of === 'given'
          ? repeat.driver.given.answer
          : null;
    const most = isNumeric(answer) ? Math.floor(answer.max) : ordinaryCount(answer);
    return [
      {
        rule: 'passes-cut',
        severity: 'warning',
        at: { section: section.id },
        field: 'repeat',
        message: `“${name}” can ask for more passes than the ${repeat.max} that are run: what lies beyond is lost, so allow more passes or a smaller answer`,
        ...context.witness(at, mass),
        mends: [
          context.mendBy(`Allow ${most} passes`, (draft) => {
            const of = draft.sections[index]?.repeat;
            if (of !== undefined) of.max = most;
          }),
        ],
      },
    ];
  });
}
