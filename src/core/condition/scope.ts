/** What can be seen from the place where a condition stands, and what can be wrong with what it names there. */
import type { Questionnaire } from '../document/types';
import { type Variable, type Variables } from '../document/variables';
import type { TextSpan } from './syntax';

export type ConditionRule =
  'bad-condition' | 'unknown-name' | 'unknown-code' | 'type-mismatch' | 'refers-forward' | 'repeated-outside';

export interface ConditionProblem {
  readonly rule: ConditionRule;
  readonly span: TextSpan;
  readonly message: string;
}

/** A place in document order, just before an item (or, past the last index, before the section's end). */
export interface Position {
  readonly section: number;
  readonly item: number;
}

/** What can be seen from the place where a condition stands. */
export interface Scope {
  readonly document: Questionnaire;
  readonly variables: Variables;
  /** Questions at or after this place have no value yet. */
  readonly before: Position;
  /** The repeated section whose current pass is open here; null outside any. */
  readonly openPass: number | null;
  /** In a shuffled section: its only item that can be seen, since its siblings have no fixed order. */
  readonly onlySibling?: Position;
  /** Among derived variables, only those before this index may be used. All by default. */
  readonly derivedBefore?: number;
  /** What each derived variable is worked out from; see `derivedInputs` in `routing/plan.ts`. */
  readonly inputsOf: (derivedIndex: number) => readonly Input[];
}

/** Something a derived variable is worked out from. */
export interface Input {
  readonly variable: Variable;
  /** Whether it is counted over the passes of its repeated section. */
  readonly overPasses: boolean;
}

/** In document order; a place is not before itself. */
export function isBefore(a: Position, b: Position): boolean {
  return a.section < b.section || (a.section === b.section && a.item < b.item);
}
