/** What can happen at a fork, in few words: “tenure: the skip to Screened out”. */
import type { ForkEvent } from '../analysis';
import { onwardList, type Plan } from '../routing/plan';
import { endingLabel, sectionLabel, targetWords } from '../wording/targets';

export function forkEventWords(plan: Plan, event: ForkEvent): string {
  const { document } = plan;
  switch (event.kind) {
    case 'presented':
      return `${event.item} asked`;
    case 'ask-if': {
      const of = 'section' in event.of ? sectionOf(plan, event.of.section) : event.of.item;
      const part = 'section' in event.of || event.of.part === undefined ? '' : ` (${event.of.part})`;
      return `${of}${part}: the ask-if ${event.holds ? 'holds' : 'does not hold'}`;
    }
    case 'skip': {
      const skips = plan.sections.flatMap(({ items }) => items).find(({ item }) => item.name === event.item)
        ?.item.skips;
      const skip = skips?.[event.index];
      return skip === undefined
        ? `${event.item}: no skip`
        : `${event.item}: the skip to ${targetWords(document, skip.to)}`;
    }
    case 'quota':
      return event.index < 0
        ? `${event.item}: no quota full`
        : `${event.item}: the quota ${quotaWords(plan, event.item, event.index)} full`;
    case 'onward': {
      const section = document.sections.find(({ id }) => id === event.section);
      const entry = section === undefined ? undefined : onwardList(section)[event.index];
      const of = sectionOf(plan, event.section);
      return entry === undefined
        ? `${of}: on to what follows`
        : `${of}: onward to ${targetWords(document, entry.to)}`;
    }
    case 'pass':
      if (event.pass === 0) return `${sectionOf(plan, event.section)}: no pass`;
      return `${sectionOf(plan, event.section)}: ${event.pass === 1 ? '1 pass' : `${event.pass} passes`}`;
    case 'ending':
      return `ends at ${endingLabel(document, event.ending)}`;
    case 'message':
      return `${endingLabel(document, event.ending)}: message ${event.index + 1}`;
    default:
      return event satisfies never;
  }
}

function quotaWords(plan: Plan, name: string, index: number): string {
  const planItem = plan.sections.flatMap(({ items }) => items).find(({ item }) => item.name === name);
  const id = planItem?.quotas[index]?.id;
  return `“${plan.document.quotas?.find((quota) => quota.id === id)?.label ?? id ?? ''}”`;
}

function sectionOf({ document }: Plan, id: string): string {
  return sectionLabel(
    document,
    document.sections.findIndex((section) => section.id === id),
  );
}
