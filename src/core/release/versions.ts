/** Two versions of a questionnaire made ready to be held against each other, under the names of the new one. */
import { analyse, DEFAULT_CAPS, type Analysis, type Caps } from '../analysis';
import type { Questionnaire } from '../document/types';
import type { Plan } from '../routing/plan';
import { planOf } from '../routing/planner';
import { renamedTo } from './aligned';
import { matchItems, type ItemMatching } from './matching';

/** Plans and routes of both; the numbers of routes are those that each version has by itself. */
export interface VersionsCounted {
  readonly before: Plan;
  readonly after: Plan;
  readonly first: Analysis;
  readonly second: Analysis;
}

export interface Versions extends VersionsCounted {
  readonly old: Questionnaire;
  readonly now: Questionnaire;
  readonly matching: ItemMatching;
  /** The old version under the names of the new one. */
  readonly renamed: Questionnaire;
}

/** Both must be of sound shape; what is broken in one is taken as it is walked. */
export function versionsOf(old: Questionnaire, now: Questionnaire, caps: Caps = DEFAULT_CAPS): Versions {
  const matching = matchItems(old, now);
  const renamed = renamedTo(old, now, matching);
  const [before, after] = [planOf(renamed), planOf(now)];
  return {
    old,
    now,
    matching,
    renamed,
    before,
    after,
    first: analyse(before, caps),
    second: analyse(after, caps),
  };
}
