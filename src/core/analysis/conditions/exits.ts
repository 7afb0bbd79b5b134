/** What can lead on from a place, and what of an item is not shown to all, each with the diagram of when. */
import type { Instance } from '../answers/predicates';
import type { PlanItem } from '../../routing/plan';
import type { Diagram } from '../diagrams/diagram';

/** An option (a special) or a row, by its index, with when it is shown. */
export interface Shown {
  readonly of: 'option' | 'row';
  readonly index: number;
  readonly when: Diagram;
}

/** A way on from a place, tried after those before it. */
export interface Way {
  readonly when: Diagram;
  /** What was written: index in the item's quotas, its skips or the section's onward; null for what goes of itself. */
  readonly by: { readonly list: 'quota' | 'skip' | 'onward'; readonly index: number } | null;
  /** Number of the place it leads to. */
  readonly to: number;
}

export interface ItemTerrain {
  /** Presented to those of whom this holds, as far as they come here; what is drawn included. */
  readonly asked: Diagram;
  /** The item's own ask-if. */
  readonly askIf: Diagram;
  /** By option and row that has one, the diagram of its ask-if. */
  readonly shown: readonly Shown[];
  /** Quotas, each with the variable of its being full, then skips. */
  readonly ways: readonly Way[];
  /** No route runs through a hard check that holds. */
  readonly checks: Diagram;
  readonly instances: readonly Instance[];
  readonly planItem: PlanItem;
  readonly pass: number | null;
}
