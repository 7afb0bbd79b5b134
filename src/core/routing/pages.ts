/** How the items of a walk fall into pages: a section, split by its page breaks, or each item by itself. */
import type { Plan } from './plan';
import { shuffledIndices } from './shuffle';
import type { Walk, WalkStep } from './walk';

export interface Page {
  /** Equal for the same stretch whatever was answered. */
  readonly key: string;
  readonly section: number;
  readonly pass: number | null;
  readonly steps: readonly WalkStep[];
}

/** With a seed, the items of shuffled sections in their random order. */
export function pagesOf(plan: Plan, walk: Walk, seed: number | null = null): Page[] {
  const single = plan.document.settings?.pages === 'item';
  const pages: { key: string; section: number; pass: number | null; steps: WalkStep[] }[] = [];
  for (const step of seed === null ? walk.steps : shuffled(plan, walk.steps, single, seed)) {
    const { section, page } = step.planItem;
    const key = single ? step.key : `${section}/${step.pass ?? 0}/${page}`;
    const last = pages.at(-1);
    if (last?.key === key) last.steps.push(step);
    else pages.push({ key, section, pass: step.pass, steps: [step] });
  }
  return pages;
}

/** Within a section that is shuffled, and on the page where there is more than one item on each. */
function shuffled(plan: Plan, steps: readonly WalkStep[], single: boolean, seed: number): WalkStep[] {
  const groups = new Map<string, WalkStep[]>();
  for (const step of steps) {
    const { section, page } = step.planItem;
    const key = `${section}/${step.pass ?? 0}${single ? '' : `/${page}`}`;
    groups.set(key, [...(groups.get(key) ?? []), step]);
  }
  return [...groups].flatMap(([key, group]) => {
    const section = plan.sections[group[0]?.planItem.section ?? -1];
    if (section?.section.shuffle !== true) return group;
    // By the place of every item of the section: what appears or goes moves no other.
    const rank = shuffledIndices(section.items.length, seed, key);
    return [...group].sort((a, b) => (rank[a.planItem.index] ?? 0) - (rank[b.planItem.index] ?? 0));
  });
}
