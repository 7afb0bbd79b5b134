/** What crosses between the main thread and the analysis worker. Counts and numbers are decimal strings. */
import type { Limit } from '../core/analysis';
import type { Answers } from '../core/document/types';
import type { Snag } from '../core/snags';

export interface AnalysisSummary {
  readonly routes: string;
  readonly exact: boolean;
  readonly limits: readonly Limit[];
  readonly endings: readonly { readonly id: string; readonly routes: string }[];
  readonly items: Readonly<Record<string, string>>;
  readonly shortest: { readonly items: number; readonly number: string } | null;
  readonly longest: { readonly items: number; readonly number: string } | null;
}

export interface RouteRow {
  readonly number: string;
  readonly items: readonly string[];
  readonly ending: string;
  readonly fingerprint: string;
}

export interface RouteView extends RouteRow {
  readonly marks: readonly string[];
  readonly answers: Answers;
  readonly draws?: Readonly<Record<string, readonly string[]>>;
  readonly given?: Answers;
  readonly full?: readonly string[];
}

export interface AnalysisApi {
  load(document: unknown): AnalysisSummary;
  /** Who is asked each item: by name a condition, `always` or `never`. */
  asked(): Readonly<Record<string, string>>;
  /** The snags that only the routes show. */
  snags(): readonly Snag[];
  /** Routes from number `from`, at most 500. */
  rows(from: string, count: number): RouteRow[];
  route(number: string): RouteView | null;
  /** What lies ahead after these items; counts are decimal strings. */
  ahead(items: readonly string[]): { routes: string; least: number; most: number } | null;
  numberOf(items: readonly string[], ending: string): string | null;
  /** For each list of marks the number of the route that shows just that now, or null. */
  standing(marks: readonly (readonly string[])[]): (string | null)[];
}
