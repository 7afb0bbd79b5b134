/** Problems found while a document is turned into a plan, each with its place. */
import type { Span } from '../condition/syntax';
import type { ConditionRule } from '../condition/resolve';

export type PlanRule = ConditionRule | 'unknown-target' | 'backward-skip' | 'enters-repeat';

/** A place in the document, by the names its author gave. */
export interface Place {
  readonly section?: string;
  readonly item?: string;
  readonly ending?: string;
  readonly derived?: string;
  readonly quota?: string;
  readonly given?: string;
  /** Index in the item's skips. */
  readonly skip?: number;
  /** Code of the option. */
  readonly option?: number;
  /** Name of the grid row. */
  readonly row?: string;
  /** Index in the section's onward list. */
  readonly onward?: number;
}

export interface PlanProblem {
  readonly rule: PlanRule;
  readonly at: Place;
  /** Which of the place's texts: `askIf`, `if`, `to`, `text`, `repeat`, `cases[1].if` … */
  readonly field: string;
  readonly message: string;
  /** In that text, where it is one. */
  readonly span?: Span;
}
