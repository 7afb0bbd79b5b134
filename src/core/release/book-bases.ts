/** Who has a value in each column of the data, as a sentence: the base that the codebook tells. */
import type { Analysis } from '../analysis';
import type { Plan } from '../routing/plan';
import type { BookRow } from '../views/codebook';
import { baseOf } from '../wording/base';

/** Without a full stop; empty for columns that belong to no question. */
export function bookBases(plan: Plan, { asked, passes }: Pick<Analysis, 'asked' | 'passes'>) {
  return ({ item, pass }: Pick<BookRow, 'item' | 'pass'>): string => {
    if (item === null) return '';
    const byPass = (passes.get(item) ?? []).map((each) => each.if);
    return baseOf(plan.variables, { if: asked.get(item), passes: byPass }, pass).sentence;
  };
}
