/** Ways made and aimed on the map of forks: a skip from an item, or an onward from the end of a section. */
import type { WrittenWay } from '../document/addresses';
import type { Target } from '../document/types';
import { onwardList, type Plan } from '../routing/plan';
import type { Change, DocumentDraft } from './change';

/** Where a new way leaves from. */
export type WaySource = { readonly item: string } | { readonly section: string };

/**
 * A new way to a target, for everybody: a condition is written after. Before one that takes everybody already, which
 * would leave it nothing. Gives what is wrong where it cannot be.
 */
export function addWay(plan: Plan, from: WaySource, to: Target): Change | string {
  const problem = aimProblem(plan, from, to);
  if (problem !== null) return problem;
  const name = 'item' in from ? from.item : from.section;
  return {
    label: 'item' in from ? `Skip from ${name}` : `Lead on from the end of ${name}`,
    apply: (draft) =>
      onList(draft, from, (ways) => {
        const always = ways.findIndex((entry) => entry.if === undefined);
        ways.splice(always < 0 ? ways.length : always, 0, { to });
      }),
  };
}

/** Leads an existing way elsewhere; gives what is wrong where it cannot. */
export function reaimWay(plan: Plan, way: WrittenWay, to: Target): Change | string {
  const from = 'item' in way ? { item: way.item } : { section: way.section };
  const problem = aimProblem(plan, from, to);
  if (problem !== null) return problem;
  const at = 'item' in way ? way.skip : way.onward;
  return {
    label: `Re-aim the way from ${'item' in way ? way.item : way.section}`,
    apply: (draft) =>
      onList(draft, from, (ways) => {
        const entry = ways[at];
        if (entry !== undefined) entry.to = to;
      }),
  };
}

export function removeWay(way: WrittenWay): Change {
  const from = 'item' in way ? { item: way.item } : { section: way.section };
  const at = 'item' in way ? way.skip : way.onward;
  return {
    label: `Delete the way from ${'item' in way ? way.item : way.section}`,
    apply: (draft) => onList(draft, from, (ways) => void ways.splice(at, 1)),
  };
}

function aimProblem(plan: Plan, from: WaySource, to: Target): string | null {
  const items = plan.sections.flatMap((section) => section.items);
  const source = 'item' in from ? items.find(({ item }) => item.name === from.item) : null;
  const section =
    'item' in from ? source?.section : plan.sections.find((each) => each.section.id === from.section)?.index;
  if (section === undefined) return 'It is not there any more.';
  if ('item' in from && plan.sections[section]?.section.draw !== undefined)
    return 'A question that is drawn carries no skips: lead on from the end of its section.';
  if ('ending' in to || 'nextPass' in to) return null;
  if ('section' in to) {
    const target = plan.sections.find((each) => each.section.id === to.section);
    if (target === undefined) return 'It is not there any more.';
    return target.index > section ? null : 'Ways lead forward only: this is not further on.';
  }
  const target = items.find(({ item }) => item.name === to.item);
  if (target === undefined) return 'It is not there any more.';
  const home = plan.sections[target.section];
  if (
    target.section !== section &&
    (home?.repeat !== null || home.section.draw !== undefined || home.section.shuffle)
  )
    return `From outside, “${home?.section.title ?? ''}” is entered at its start only: aim at the section.`;
  const further =
    target.section > section || (target.section === section && source != null && target.index > source.index);
  return further ? null : 'Ways lead forward only: this is not further on.';
}

type WrittenWays = { if?: string; to: Target }[];

function onList(draft: DocumentDraft, from: WaySource, change: (ways: WrittenWays) => void): void {
  if ('section' in from) {
    const section = draft.sections.find(({ id }) => id === from.section);
    if (section === undefined) return;
    const ways = [...onwardList(section)].map((way) => ({ ...way })) as WrittenWays;
    change(ways);
    if (ways.length === 0) delete section.onward;
    else section.onward = ways as typeof section.onward;
    return;
  }
  for (const { items } of draft.sections) {
    for (const item of items) {
      if (item.kind === 'page_break' || item.name !== from.item) continue;
      const ways = (item.skips ?? []).map((way) => ({ ...way })) as WrittenWays;
      change(ways);
      if (ways.length === 0) delete item.skips;
      else item.skips = ways as typeof item.skips;
    }
  }
}
