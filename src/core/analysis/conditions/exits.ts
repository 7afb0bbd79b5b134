/** What can lead on from a place, and what of an item is not shown to all, each with the diagram of when. */
import type { PlanItem } from '../../routing/plan';
import type { AnswerSymbol } from '../answers/answer-symbol';
import type { Diagram } from '../diagrams/diagram';

/** An option (a special) or a row, by its index, with when it is shown. */
export interface ConditionalPart {
  readonly of: 'option' | 'row';
  readonly index: number;
  readonly when: Diagram;
}

/** A way on from a place, tried after those before it. */
export interface Exit {
  readonly when: Diagram;
  /** What was written: index in the item's quotas, its skips or the section's onward; null for what goes of itself. */
  readonly by: { readonly list: 'quota' | 'skip' | 'onward'; readonly index: number } | null;
  /** Number of the place it leads to. */
  readonly to: number;
}

export interface EncodedItem {
  /** Presented to those of whom this holds, as far as they come here; what is drawn included. */
  readonly asked: Diagram;
  /** The item's own ask-if. */
  readonly askIf: Diagram;
  /** By option and row that has one, the diagram of its ask-if. */
  readonly shown: readonly ConditionalPart[];
  /** Quotas, each with the variable of its being full, then skips. */
  readonly ways: readonly Exit[];
  /** No route runs through a hard check that holds. */
  readonly checks: Diagram;
  /** Of whom other answers are assumed, the first of these that holds; none where that is not looked into. */
  readonly assumedIf: readonly Diagram[];
  readonly symbols: readonly AnswerSymbol[];
  readonly planItem: PlanItem;
  readonly pass: number | null;
}
