/** How the items of a walk fall into pages: a section, split by its page breaks, or each item by itself. */
import type { Plan } from './plan';
import type { Walk, WalkStep } from './walk';

export interface Page {
  /** Equal for the same stretch whatever was answered. */
  readonly key: string;
  readonly section: number;
  readonly pass: number | null;
  readonly steps: readonly WalkStep[];
}

export function pagesOf(plan: Plan, walk: Walk): Page[] {
  const single = plan.document.settings?.pages === 'item';
  const pages: { key: string; section: number; pass: number | null; steps: WalkStep[] }[] = [];
  for (const step of walk.steps) {
    const { section, page } = step.planItem;
    const key = single ? step.key : `${section}/${step.pass ?? 0}/${page}`;
    const last = pages.at(-1);
    if (last?.key === key) last.steps.push(step);
    else pages.push({ key, section, pass: step.pass, steps: [step] });
  }
  return pages;
}
