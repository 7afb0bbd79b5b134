/** What an analysis of a questionnaire tells: its counts, and what can be asked about its routes without counting again. */
import type { Limit } from './answers/drivers';
import type { Route } from './counting/routes';
import type { CoverResult, PairsResult } from './cover/covering';
import type { RouteFilter } from './lists/filters';
import type { RouteVersion } from './lists/route-difference';
import type { Selected, Selection } from './lists/selection';
import type { FilteredRoutes } from './lists/via-routes';
export interface RouteLength {
  /** Questions and statements presented. */
  readonly items: number;
  /** Number of the first route of this length. */
  readonly number: bigint;
}

/** An item in one pass of its section. */
export interface PassAsked {
  readonly pass: number;
  /** Routes on which it is presented in this pass. */
  readonly routes: bigint;
  /** Who has the pass, as from outside the section; see `Reach.passes`. */
  readonly if: string;
}

export interface Analysis {
  /** How many routes; a proven lower bound unless `exact`. */
  readonly routes: bigint;
  readonly exact: boolean;
  readonly limits: readonly Limit[];
  /** Routes by ending, in the document's order. */
  readonly endings: readonly { readonly id: string; readonly routes: bigint }[];
  /** Routes on which an item is presented, in any pass, by name. */
  readonly items: ReadonlyMap<string, bigint>;
  /** Who is asked each item, by name: a condition, `always` or `never`; see `reach.ts`. Worked out when first read. */
  readonly asked: ReadonlyMap<string, string>;
  /** The same by pass, for the items of repeated sections. Worked out when first read. */
  readonly passes: ReadonlyMap<string, readonly PassAsked[]>;
  /** Both of some items alone, which takes less than of all where there are few; null: of all. Nothing is counted for it. */
  askedAmong(names: ReadonlySet<string> | null): Pick<Analysis, 'asked'> & {
    /** By id of a repeated section, for each pass who has it. */
    readonly passes: ReadonlyMap<string, readonly string[]>;
  };
  /** Where it was too much to say who is asked, so that `asked` and `passes` lack it; none where all is said. */
  readonly unsaid: readonly Limit[];
  readonly shortest: RouteLength | null;
  readonly longest: RouteLength | null;
  /** The route on which the seconds of its items, by name, add up to most; null where there is none. */
  slowest(seconds: (name: string) => number): { readonly seconds: number; readonly number: bigint } | null;
  /** Few routes that take every fork. Worked out when first read. */
  readonly cover: CoverResult;
  /** Few routes that take every two outcomes of forks that somebody meets together. Worked out when first read. */
  readonly pairs: PairsResult;
  /**
   * Route `number`, from 1, in canonical order; null where there is none, its region was not opened, or nobody could be
   * found who takes it.
   */
  route(number: bigint): Route | null;
  /** What is presented on route `number` and where it ends, without working out a respondent. */
  outline(number: bigint): Pick<Route, 'number' | 'items' | 'ending'> | null;
  /** The number of the route with these items (`name#pass` in a repeat) and ending; null where there is none. */
  numberOf(items: readonly string[], ending: string): bigint | null;
  /** The routes that a filter leaves. */
  filtered(filter: RouteFilter): FilteredRoutes;
  /** Chosen by everything at once; null where that is too entangled to tell. */
  select(selection: Selection): (Selected & { readonly exact: boolean }) | null;
  /** The routes by what they show, to compare with those of another version. */
  version(markOf: ContentMarkOf): RouteVersion;
  /** What still lies ahead of a respondent who was presented these items so far; null where no route begins so. */
  ahead(items: readonly string[]): Ahead | null;
  /** The number of the first route whose items and ending, in order, carry these marks. */
  numberShowing(marks: readonly string[], markOf: ContentMarkOf): bigint | null;
}

/** Marks of what is shown: equal marks, equal words and answers. */
export interface ContentMarkOf {
  item(name: string, pass: number | null): string;
  ending(id: string): string;
}

export interface Ahead {
  /** Routes that begin like this. */
  readonly routes: bigint;
  /** Fewest and most questions still to come. */
  readonly least: number;
  readonly most: number;
}
