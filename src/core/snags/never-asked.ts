/** Items that no route presents, and endings that none reaches. */
import { FALSE, TRUE } from '../analysis';
import { removeEnding } from '../editing/structure';
import type { PlanItem } from '../routing/plan';
import type { CheckContext } from './check-context';
import { consentNotKept } from './consent';
import type { Snag } from './types';

export function neverAsked(context: CheckContext): Snag[] {
  const { analysis, flow } = context;
  return context.items.flatMap((planItem): Snag[] => {
    const { name } = planItem.item;
    const shown = analysis.exact
      ? analysis.items.get(name) !== 0n
      : context.placesOf(planItem).some((at) => flow.presentedAt(at) !== FALSE);
    if (shown || isShutByMistake(context, planItem)) return [];
    const what = planItem.item.kind === 'question' ? 'nobody is ever asked this' : 'nobody ever sees this';
    return [
      {
        rule: 'never-asked',
        severity: 'error',
        at: { item: name },
        message: `${what}: ${reason(context, planItem)}`,
      },
    ];
  });
}

/** Where the condition that shuts it off cannot be read, that is told already. */
function isShutByMistake(context: CheckContext, { item, section }: PlanItem): boolean {
  const id = context.plan.sections[section]?.section.id ?? '';
  return context.isBroken({ item: item.name }) || context.isBroken({ section: id });
}

function reason(context: CheckContext, planItem: PlanItem): string {
  const { flow, encoded, plan, diagrams } = context;
  const [first = 0] = context.placesOf(planItem);
  const some = context.placesOf(planItem).find((at) => flow.comesTo(at) !== FALSE);
  if (some !== undefined) {
    if (diagrams.and(flow.comesTo(some), encoded.itemAt(some).askIf) === FALSE)
      return `its ask-if “${planItem.item.askIf ?? ''}” holds for none of those who get to it`;
    if (flow.presentedAt(some) === FALSE) return 'none of its answers is ever shown';
    return 'nobody who gets to it can reach an ending';
  }
  const section = plan.sections[planItem.section];
  const { course } = encoded;
  const gate = course.gate(planItem.section);
  if (flow.comesTo(gate) !== FALSE && section !== undefined) {
    const { askIf, somePass } = encoded.gateParts(gate);
    const open = diagrams.and(flow.comesTo(gate), askIf);
    if (open === FALSE)
      return `its section is shut by the ask-if “${section.section.askIf ?? ''}”, which holds for nobody who gets there`;
    if (diagrams.and(open, somePass) === FALSE) return 'its section never has a pass to run';
  }
  // Nobody comes: the nearest place before it from which everybody jumps further.
  for (let at = first - 1; at >= 0; at -= 1) {
    const place = course.places[at];
    if (flow.comesTo(at) === FALSE) continue;
    if (place?.kind === 'item') {
      const { planItem: by, ways } = encoded.itemAt(at);
      if (ways.some(({ to }) => to > first))
        return `everybody is led past it, by what follows “${by.item.name}”`;
    }
    if (place?.kind === 'end' && encoded.endAt(at).some(({ to }) => to > first)) {
      const title = plan.sections[place.section]?.section.title ?? '';
      return `everybody is led past it, by the end of section “${title}”`;
    }
    if (place?.kind === 'gate' && encoded.gateAt(at) !== TRUE)
      return `everybody is led past it, by what comes before section “${plan.sections[place.section]?.section.title ?? ''}”`;
  }
  return 'nothing leads to it';
}

export function endingUnreached(context: CheckContext): Snag[] {
  const { analysis, plan, encoded, flow } = context;
  // While nothing is asked yet, nobody can be sent anywhere.
  if (!context.items.some(({ item }) => item.kind === 'question')) return [];
  return plan.endings.flatMap(({ ending: { id, kind } }, index): Snag[] => {
    const reached = analysis.exact
      ? analysis.endings[index]?.routes !== 0n
      : flow.comesTo(encoded.course.ending(index)) !== FALSE;
    if (reached) return [];
    const onlyComplete =
      kind === 'complete' && plan.endings.filter((other) => other.ending.kind === 'complete').length === 1;
    // While consent is not kept, the ending for those who decline is what is missing a way, not what is too much.
    const isMissed = kind === 'declined' && consentNotKept(context).length > 0;
    return [
      {
        rule: 'ending-unreached',
        severity: 'warning',
        at: { ending: id },
        message: isMissed
          ? 'no route ends here: lead those who refuse consent to it'
          : 'no route ends here: aim a skip at it, or delete it',
        ...(onlyComplete || isMissed ? {} : { mends: [context.mend(removeEnding(plan.document, index))] }),
      },
    ];
  });
}
