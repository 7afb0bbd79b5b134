/** What crosses between the main thread and the analysis worker. Counts and numbers are decimal strings. */
import type { Flowing, Limit, Transition } from '../core/analysis';
import type { Answers } from '../core/document/types';
import type { Walked } from '../core/document/walked';
import type { ListQuery, ListSummary } from './list-query';
import type { Snag } from '../core/snags';

/** By name, for the items of repeated sections: who has each pass, and on how many routes it is asked there. */
export type PassesByItem = Readonly<
  Record<string, readonly { readonly pass: number; readonly routes: string; readonly if: string }[]>
>;

export interface AnalysisSummary {
  readonly routes: string;
  readonly exact: boolean;
  readonly limits: readonly Limit[];
  readonly endings: readonly { readonly id: string; readonly routes: string }[];
  readonly items: Readonly<Record<string, string>>;
  readonly shortest: { readonly items: number; readonly number: string } | null;
  readonly longest: { readonly items: number; readonly number: string } | null;
}

/** What is expected of the sample, by the assumed answers; shares are from 0 to 1. */
export interface SampleSummary {
  readonly items: Readonly<
    Record<string, { readonly share: number; readonly times: number; readonly byPass: readonly number[] }>
  >;
  readonly endings: readonly { readonly id: string; readonly share: number }[];
  /** Of an interview, on average. */
  readonly minutes: number;
}

export interface RouteRow {
  readonly number: string;
  readonly items: readonly string[];
  readonly ending: string;
  readonly fingerprint: string;
  /** What it takes, on average. */
  readonly seconds: number;
  /** How many routes it stands for. */
  readonly times: string;
}

export interface RouteView extends RouteRow {
  readonly marks: readonly string[];
  /** The share of the sample that takes it; null where shares are not exact. */
  readonly share: number | null;
  readonly answers: Answers;
  readonly draws?: Readonly<Record<string, readonly string[]>>;
  readonly given?: Answers;
  readonly full?: readonly string[];
}

export interface RouteChoice {
  readonly through: readonly (readonly string[])[];
  readonly avoid: readonly string[];
  readonly ending: string | null;
}

export interface LikelySummary {
  readonly routes: number;
  /** The share of the sample that takes one of them. */
  readonly together: number;
  /** No other route has a larger share. */
  readonly othersAtMost: number;
}

/** A route as it was when somebody looked at it, and the respondent they walked. */
export interface LookedAt {
  readonly items: readonly string[];
  readonly marks: readonly string[];
  readonly walked: Walked | null;
}

export interface Became {
  readonly number: string;
  /** What is different, in words. */
  readonly changes: readonly string[];
}

/** A way on that is written, or, with `index` null, what goes of itself. */
export interface WayShare {
  /** Index in the item's skips or the section's onward list. */
  readonly index: number | null;
  /** Of the sample; null where it is not known exactly. */
  readonly share: number | null;
}

/** An item, or the end of a section. */
export type WaysFrom = { readonly item: string } | { readonly section: string };

export interface AnalysisApi {
  load(document: unknown): AnalysisSummary;
  /** Who is asked each item: by name a condition, `always` or `never`; of repeated ones also who has each pass. */
  asked(): { readonly items: Readonly<Record<string, string>>; readonly passes: PassesByItem };
  /** The snags that only the routes show. */
  snags(): readonly Snag[];
  /** Each skip of an item, or each onward entry of a section, with who takes it. */
  ways(from: WaysFrom): readonly WayShare[];
  /** How many routes take one of them, as a decimal string; with `exact` false there may be more. */
  routesTaking(from: WaysFrom, index: number): { readonly routes: string; readonly exact: boolean };
  /** Whether another version of the questionnaire leads everybody the same way; null where that cannot be told. */
  leadsAlike(document: unknown): boolean | null;
  /** Null where it could not be exact. */
  sample(): SampleSummary | null;
  /** Names the version by which routes are told that an edit has touched. */
  since(document: unknown): void;
  list(query: ListQuery): ListSummary;
  /** Rows of a list from place `from`, counted from 1, at most 500. */
  rows(query: ListQuery, from: string, count: number): RouteRow[];
  /** The place of a route in a list; null where it is not in it. */
  positionIn(query: ListQuery, number: string): string | null;
  /** The first route of a list after another one (from its start, where that is not in it) that is none of those passed. */
  nextIn(query: ListQuery, after: string | null, passed: readonly string[]): string | null;
  /** What share of the sample takes each; null where that is not known exactly. */
  sharesOf(numbers: readonly string[]): (number | null)[];
  route(number: string): RouteView | null;
  /** What lies ahead after these items; counts are decimal strings. */
  ahead(items: readonly string[]): { routes: string; least: number; most: number } | null;
  numberOf(items: readonly string[], ending: string): string | null;
  /** Null for what is no route. */
  numbersOf(routes: readonly Pick<RouteRow, 'items' | 'ending'>[]): (string | null)[];
  /** Who is presented what next; null where that is too entangled. */
  flows(): readonly Transition[] | null;
  /** Who goes straight from some items to others, or to an ending: a condition, `always` or `never`; null if unknown. */
  whoFlows(flowing: Flowing): string | null;
  /** How many routes there are of each choice, as decimal strings. */
  totals(filters: readonly RouteChoice[]): string[];
  /** The likeliest routes taken together; null where shares are not known exactly. */
  likely(): LikelySummary | null;
  /** What became of routes that are not there any more: the number of the one their respondent takes now. */
  became(routes: readonly LookedAt[]): (Became | null)[];
  /** The route of each respondent made up with a seed; null where one gets stuck. */
  drawn(seed: number, count: number): (string | null)[];
  /** For each list of marks the number of the route that shows just that now, or null. */
  standing(marks: readonly (readonly string[])[]): (string | null)[];
}
