/**
 * Those sent to one branch run on into its sibling, because nothing leads them round it.
 *
 * Siblings are sections to which one question sends some and others, and to which nobody else comes. Where others come
 * too, the branches have met again: running on into it is meant, and no mend may take its questions from anybody.
 */
import { FALSE, type Diagram } from '../analysis';
import { SECTIONS } from '../document/vocabularies';
import type { PlanItem, PlanSection, PlanTarget } from '../routing/plan';
import type { CheckContext } from './check-context';
import type { Mend, Snag } from './types';

export function fallsThrough(context: CheckContext): Snag[] {
  const snags = new Map<number, Snag>();
  for (const planItem of context.items) {
    const targets = planItem.skips.flatMap((skip) => entered(skip.to, planItem) ?? []);
    const branches = [...new Set(targets)].sort((a, b) => a - b);
    for (const branch of branches) {
      const sibling = branches.find((other) => other > branch && isBranch(context, other, planItem));
      if (sibling === undefined || snags.has(branch)) continue;
      const found = runsOn(context, planItem, { branch, sibling, branches });
      if (found !== null) snags.set(branch, found);
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
 * Whether a section can be a branch of this question's alone. It is none where something else leads to it too, where it
 * is for everybody by its kind, or where nothing comes after it: what a questionnaire ends with is for all.
 */
function isBranch({ plan }: CheckContext, section: number, owner: PlanItem): boolean {
  const of = plan.sections[section] as PlanSection;
  if (SECTIONS[of.section.kind].forEverybody) return false;
  if (section === plan.sections.length - 1) return false;
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

/** Two sections that one question sends to, and all that it sends to; indices of sections. */
interface Siblings {
  readonly branch: number;
  readonly sibling: number;
  readonly branches: readonly number[];
}

/** Those who leave a question together: by a skip to a section, or by none of its skips. */
interface Leaving {
  /** Null for those who carry on, or were never asked the question. */
  readonly to: number | null;
  readonly mass: Diagram;
}

function runsOn(context: CheckContext, planItem: PlanItem, siblings: Siblings): Snag | null {
  const { plan } = context;
  const { branch, sibling } = siblings;
  const [of, next] = [plan.sections[branch] as PlanSection, plan.sections[sibling] as PlanSection];
  for (const at of context.placesOf(planItem)) {
    const groups = groupsAt(context, planItem, at);
    const sent = groups.find(({ to }) => to === branch)?.mass ?? FALSE;
    if (sent === FALSE || !meets(context, at, sent, sibling)) continue;
    if (groups.some((group) => comesRound(context, at, group, siblings))) continue;
    if (groups.some((group) => comesInOrder(context, planItem, at, group, siblings))) continue;
    const [one, other] = [of.section.title, next.section.title];
    return {
      rule: 'falls-through',
      severity: 'warning',
      at: { section: of.section.id },
      field: 'onward',
      message: `those whom “${planItem.item.name}” sends to “${one}” run on into “${other}”, where it sends others: lead this section on past it`,
      ...context.witness(at, sent),
      mends: leadRound(context, at, sent, siblings),
    };
  }
  return null;
}

function groupsAt({ flow, diagrams, sites }: CheckContext, planItem: PlanItem, at: number): Leaving[] {
  const own = sites.filter((site) => site.role === 'skip' && site.planItem === planItem);
  const groups: Leaving[] = [];
  let rest = flow.answersAt(at);
  for (const skip of planItem.skips) {
    const when = own.find((site) => site.at.skip === skip.index)?.spots.find((spot) => spot.at === at)?.when;
    const mass = diagrams.and(rest, when ?? FALSE);
    rest = diagrams.and(rest, diagrams.not(when ?? FALSE));
    const to = entered(skip.to, planItem);
    const known = groups.findIndex((group) => group.to === to);
    if (to === null) continue;
    if (known < 0) groups.push({ to, mass });
    else groups[known] = { to, mass: diagrams.or(groups[known]?.mass ?? FALSE, mass) };
  }
  const passing = diagrams.and(flow.comesTo(at), diagrams.not(flow.presentedAt(at)));
  return [...groups, { to: null, mass: diagrams.or(rest, passing) }];
}

/** Whether some of those who go on from a place are presented something of a section; `before`: round another one. */
function meets(
  context: CheckContext,
  at: number,
  mass: Diagram,
  section: number,
  before: number | null = null,
): boolean {
  const { flow, encoded, plan } = context;
  const { course } = encoded;
  const beyond = course.gate(section + 1);
  const stop = (place: number) => {
    const of = course.places[place];
    // Somebody may stand before it, and not be let in.
    const isInside = of !== undefined && of.kind !== 'ending' && of.kind !== 'gate' && of.section === before;
    return place >= beyond || isInside;
  };
  const reached = flow.spread(at, mass, stop);
  return (plan.sections[section]?.items ?? []).some((item) =>
    context
      .placesOf(item)
      .some((place) => reached.has(place) && flow.presentedAt(place, reached.get(place)) !== FALSE),
  );
}

/** Whether some who are sent to neither of the two come to the second round the first: the branches meet there. */
function comesRound(
  context: CheckContext,
  at: number,
  { to, mass }: Leaving,
  { branch, sibling }: Siblings,
): boolean {
  return to !== branch && to !== sibling && meets(context, at, mass, sibling, branch);
}

/** Whether some come to the first of the two in order, past what stands before it: it is no branch, but on the way. */
function comesInOrder(
  context: CheckContext,
  planItem: PlanItem,
  at: number,
  { to, mass }: Leaving,
  { branch, branches }: Siblings,
): boolean {
  if (to !== null || !meets(context, at, mass, branch)) return false;
  const between = Array.from({ length: branch - planItem.section - 1 }, (_, n) => planItem.section + 1 + n);
  return between.some((section) => !branches.includes(section) && meets(context, at, mass, section));
}

/**
 * Leads those who run on past the sibling, to the next section that is none: from the end of the section before it, if
 * they are the only ones who come there.
 */
function leadRound(
  context: CheckContext,
  at: number,
  sent: Diagram,
  { branch, sibling, branches }: Siblings,
): Mend[] {
  const { plan, flow, encoded } = context;
  const { course } = encoded;
  const target =
    plan.sections.find(({ index }) => index > sibling && !branches.includes(index)) ?? plan.sections.at(-1);
  const reached = flow.spread(at, sent, (place) => place >= course.gate(sibling));
  for (let section = sibling - 1; section >= branch; section -= 1) {
    const { onward, repeat, section: from } = plan.sections[section] as PlanSection;
    const end = course.end(section, repeat?.max ?? 1);
    const here = reached.get(end) ?? FALSE;
    if (here === FALSE) continue;
    if (onward.length > 0 || here !== flow.comesTo(end) || target === undefined) return [];
    const to = { section: target.section.id };
    return [
      context.mendBy(`Lead “${from.title}” on to “${target.section.title}”`, (draft) => {
        const of = draft.sections[section];
        if (of !== undefined) of.onward = to;
      }),
    ];
  }
  return [];
}
