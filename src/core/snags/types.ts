/** A snag: something wrong or doubtful that the checks found, with its place. */
import type { Span } from '../condition/syntax';
import type { Place, PlanRule } from '../routing/problems';

export type SnagRule = PlanRule | 'duplicate-name' | 'code-repeated';
export type Severity = 'error' | 'warning' | 'note';

export interface Snag {
  readonly rule: SnagRule;
  readonly severity: Severity;
  readonly at: Place;
  /** What is wrong and how to mend it, in the author's terms. */
  readonly message: string;
  /** The property of the place that holds the trouble, and the span in it where it is a text. */
  readonly field?: string;
  readonly span?: Span;
}
