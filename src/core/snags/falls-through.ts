/** Those sent to one branch run on into its sibling, because nothing leads them round it. */
import { FALSE } from '../analysis/diagram';
import type { PlanItem, PlanSection, PlanTarget } from '../routing/plan';
import type { Inquiry } from './inquiry';
import type { Mend, Snag } from './types';

export function fallsThrough(inquiry: Inquiry): Snag[] {
  const snags = new Map<number, Snag>();
  for (const planItem of inquiry.items) {
    const branches = planItem.skips.flatMap((skip) => {
      const section = entered(skip.to, planItem);
      return section === null ? [] : [{ skip, section }];
    });
    for (const { skip, section } of branches) {
      const siblings = branches
        .map((other) => other.section)
        .filter((other) => other > section && isBranch(inquiry, other, planItem))
        .sort((a, b) => a - b);
      const [sibling] = siblings;
      if (sibling === undefined || snags.has(section)) continue;
      const found = runsOn(inquiry, planItem, skip.index, section, sibling);
      if (found !== null) snags.set(section, found);
    }
  }
  return [...snags.values()];
}

/** The section that a target enters at its start, from another one. */
function entered(to: PlanTarget, { section }: PlanItem): number | null {
  if (to.to === 'section') return to.section;
  return to.to === 'item' && to.item === 0 && to.section !== section ? to.section : null;
}

/**
 * Whether a section is a branch of this question's alone. Where something else leads to it too, or it is for
 * everybody by its kind, the branches meet there again and running on into it is meant.
 */
function isBranch({ plan }: Inquiry, section: number, owner: PlanItem): boolean {
  const of = plan.sections[section] as PlanSection;
  if (of.section.kind === 'closing' || of.section.kind === 'background') return false;
  const leadsHere = (to: PlanTarget) => (to.to === 'section' || to.to === 'item') && to.section === section;
  return !plan.sections.some(
    ({ index, items, onward }) =>
      index !== section &&
      (onward.some(({ to }) => leadsHere(to)) ||
        items.some(
          (item) => item !== owner && [...item.skips, ...item.quotas].some(({ to }) => leadsHere(to)),
        )),
  );
}

function runsOn(
  inquiry: Inquiry,
  planItem: PlanItem,
  skip: number,
  section: number,
  sibling: number,
): Snag | null {
  const { plan, flow, terrain, diagrams } = inquiry;
  const branch = plan.sections[section] as PlanSection;
  const next = plan.sections[sibling] as PlanSection;
  if (branch.onward.length > 0) return null;
  const sites = inquiry.sites.filter((site) => site.role === 'skip' && site.planItem === planItem);
  const own = sites.find(({ at }) => at.skip === skip);
  for (const { at, here, when } of own?.spots ?? []) {
    let sent = diagrams.and(here, when);
    for (const earlier of sites.slice(0, sites.indexOf(own as (typeof sites)[number]))) {
      const taken = earlier.spots.find((spot) => spot.at === at)?.when ?? FALSE;
      sent = diagrams.and(sent, diagrams.not(taken));
    }
    const beyond = terrain.layout.gate(sibling + 1);
    const reached = flow.spread(at, sent, (place) => place >= beyond);
    const meets = next.items.some((item) =>
      inquiry
        .placesOf(item)
        .some((place) => reached.has(place) && flow.presentedAt(place, reached.get(place)) !== FALSE),
    );
    if (!meets) continue;
    const [one, other] = [branch.section.title, next.section.title];
    return {
      rule: 'falls-through',
      severity: 'warning',
      at: { section: branch.section.id },
      field: 'onward',
      message: `those whom “${planItem.item.name}” sends to “${one}” run on into “${other}”, where it sends others: lead this section on past it`,
      ...inquiry.witness(at, sent),
      mends: [leadRound(inquiry, section, sibling)],
    };
  }
  return null;
}

function leadRound(inquiry: Inquiry, section: number, sibling: number): Mend {
  const { plan } = inquiry;
  const next = plan.sections[sibling + 1]?.section;
  const last = plan.endings[plan.lastEnding]?.ending.id ?? '';
  const to = next === undefined ? { ending: last } : { section: next.id };
  const title = plan.sections[section]?.section.title ?? '';
  return inquiry.mendBy(`Lead “${title}” on to “${next?.title ?? last}”`, (draft) => {
    const of = draft.sections[section];
    if (of !== undefined) of.onward = to;
  });
}
