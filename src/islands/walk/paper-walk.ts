/** A walk for the printed script. */
import type { Plan } from '../../core/routing/plan';
import type { PaperWalk } from '../paper/PaperScript';
import type { Session } from '../../core/responding/session';

/** The walk as the paper marks it, as far as it has come. */
export function paperWalk(plan: Plan, { walk, answers, pages, at }: Session): PaperWalk {
  const ended = walk !== null && walk.ending !== null && at >= pages.length - 1;
  const steps = ended ? walk.steps : pages.slice(0, at + 1).flatMap((page) => page.steps);
  const presented = new Set(steps.map(({ planItem }) => planItem.item.name));
  const names = plan.sections.flatMap(({ items }) => items.map(({ item }) => item.name));
  const last = ended ? names.length : Math.max(0, ...[...presented].map((name) => names.indexOf(name)));
  return {
    presented,
    passedOver: new Set(names.slice(0, last).filter((name) => !presented.has(name))),
    answers,
  };
}
