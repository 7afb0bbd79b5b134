/** What routes can be asked to go by: a skip, a quota or an onward entry that somebody takes, or an answer that is given. */
import type { Condition } from '../../condition/syntax';

/**
 * A way by what was written: an item's skip, a section's onward entry, or a quota. Indices are those of the document. Or an
 * answer: the item is presented, and the condition, which reads nothing else, holds of what is answered there.
 */
export type Via =
  | { readonly item: string; readonly answers: Condition }
  | { readonly item: string; readonly skip: number }
  | { readonly section: string; readonly onward: number }
  | { readonly quota: string };
