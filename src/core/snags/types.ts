/** A snag: something wrong or doubtful that the checks found, with its place. */
import type { Patch } from 'immer';
import type { TextSpan } from '../condition/syntax';
import type { Answers } from '../document/types';
import type { DocumentPlace, PlanRule } from '../routing/problems';

/** Rules that are read off the document, beside those that making it ready finds. */
export const WRITTEN_RULES = [
  'duplicate-name',
  'code-repeated',
  'code-collides',
  'outside-range',
  'text-compared',
  'unlabelled',
  'no-way-out',
  'closing-not-last',
] as const;
export type WrittenRule = PlanRule | (typeof WRITTEN_RULES)[number];

/** Rules that the analysis decides. */
export const ROUTED_RULES = [
  'never-asked',
  'ending-unreached',
  'never-true',
  'always-true',
  'skip-shadowed',
  'rules-overlap',
  'falls-through',
  'values-unclaimed',
  'blank-decides',
  'negation-includes-unasked',
  'may-be-unasked',
  'picks-contradict',
  'consent-not-kept',
  'screening-lets-all',
  'stuck',
  'no-message',
  'message-shadowed',
  'hand-off',
  'passes-cut',
  'asked-twice',
  'too-long',
  'not-exact',
] as const;
export type RoutedRule = (typeof ROUTED_RULES)[number];

/** Something is different for a test respondent. */
export const KEPT_RULES = ['respondent-changed'] as const;
export type KeptRule = (typeof KEPT_RULES)[number];

export type SnagRule = WrittenRule | RoutedRule | KeptRule;
export type Severity = 'error' | 'warning' | 'note';

/** Somebody who would meet the snag: walking them shows it. */
export interface SnagWitness {
  readonly answers: Answers;
  readonly draws?: Readonly<Record<string, readonly string[]>>;
  readonly given?: Answers;
  readonly full?: readonly string[];
  /** What they are presented; `name`, or `name#pass`. */
  readonly items: readonly string[];
  /** Null where they are stuck before one. */
  readonly ending: string | null;
}

/** An edit that mends the snag in one press. */
export interface Mend {
  /** What it does, as an order: "Lead Newer residents on to Lamps". */
  readonly label: string;
  /** The edit, for the very document in which the snag was found. Plain JSON. */
  readonly patches: readonly Patch[];
}

export interface Snag {
  readonly rule: SnagRule;
  readonly severity: Severity;
  readonly at: DocumentPlace;
  /** What is wrong, whom it hits and how to mend it, in the author's terms. */
  readonly message: string;
  /** The property of the place that holds the trouble, and the span in it where it is a text. */
  readonly field?: string;
  readonly span?: TextSpan;
  readonly witness?: SnagWitness;
  readonly mends?: readonly Mend[];
  /** Where a check of ours failed: what it failed with, for the log. */
  readonly fault?: Error;
}
