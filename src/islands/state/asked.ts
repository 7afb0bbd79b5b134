/** What the analysis tells of who is asked an item, as the wording takes it. */
import type { AskedOf } from '../../core/wording/base';
import type { Analysed } from '../../worker/client';

export function askedOf(analysis: Analysed | null, item: string): AskedOf {
  return {
    if: analysis?.asked[item],
    passes: (analysis?.passes[item] ?? []).map((each) => each.if),
  };
}
