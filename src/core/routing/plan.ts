/** A questionnaire made ready for walking and analysis: conditions as trees, targets found. `planner.ts` makes it. */
import type { Input } from '../condition/scope';
import type { Condition, Operand } from '../condition/syntax';
import type { Derived, Ending, Onward, Questionnaire, RoutedItem, Section } from '../document/types';
import type { Variable, Variables } from '../document/variables';
import type { PlanProblem } from './problems';

export interface Plan {
  readonly document: Questionnaire;
  readonly variables: Variables;
  readonly sections: readonly PlanSection[];
  readonly derived: readonly PlanDerived[];
  readonly endings: readonly PlanEnding[];
  /** The ending past the last section: the first of kind `complete`. */
  readonly lastEnding: number;
  readonly problems: readonly PlanProblem[];
}

export interface PlanSection {
  readonly index: number;
  readonly section: Section;
  readonly gate: Condition | null;
  /** Null where not repeated; a driver of null gives no pass. */
  readonly repeat: PlanRepeat | null;
  /** Questions and statements in order; page breaks are left out. */
  readonly items: readonly PlanItem[];
  readonly onward: readonly PlanSkip[];
}

export interface PlanRepeat {
  readonly kind: 'times' | 'each';
  readonly driver: Variable | null;
  readonly max: number;
}

export interface PlanItem {
  readonly item: RoutedItem;
  readonly section: number;
  /** Index among the section's plan items. */
  readonly index: number;
  /** Index in the document's `items`, page breaks included. */
  readonly place: number;
  /** How many page breaks of the section come before it. */
  readonly page: number;
  readonly askIf: Condition | null;
  /**
   * Variables of this item whose names something before it has already, which is an error: the item is presented, and
   * collects nothing under them.
   */
  readonly namesakes: ReadonlySet<string>;
  /** Parallel to the options (specials) and rows; null where always shown. */
  readonly optionIf: readonly (Condition | null)[];
  readonly rowIf: readonly (Condition | null)[];
  readonly checks: readonly {
    readonly if: Condition;
    readonly kind: 'hard' | 'soft';
    readonly message: string;
  }[];
  /** Parallel to the conditions under which other answers are assumed. */
  readonly assumedIf: readonly Condition[];
  readonly quotas: readonly PlanQuota[];
  readonly skips: readonly PlanSkip[];
}

export interface PlanQuota {
  readonly id: string;
  readonly if: Condition;
  readonly to: PlanTarget;
}

export interface PlanSkip {
  /** Index in the document's list. */
  readonly index: number;
  /** Null: always. */
  readonly if: Condition | null;
  readonly to: PlanTarget;
}

export type PlanTarget =
  | { readonly to: 'item'; readonly section: number; readonly item: number }
  | { readonly to: 'section'; readonly section: number }
  | { readonly to: 'ending'; readonly ending: number }
  | { readonly to: 'next-pass' };

export interface PlanDerived {
  readonly derived: Derived;
  /** Null where the derived variable has a problem. */
  readonly cases: readonly { readonly if: Condition; readonly code: number }[] | null;
  readonly value: Operand | null;
  /** The questions and given values it is worked out from, traced through other derived variables. */
  readonly inputs: readonly Input[];
}

export interface PlanEnding {
  readonly ending: Ending;
  readonly messages: readonly { readonly if: Condition | null; readonly text: string }[];
}

/** A section's onward as a list, however it was written. */
export function onwardList(section: Section): readonly Onward[] {
  const { onward } = section;
  if (onward === undefined) return [];
  return 'length' in onward ? onward : [{ to: onward }];
}
