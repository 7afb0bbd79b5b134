/** What crosses between the main thread and the release worker. Counts and numbers are decimal strings. */
import type { SeriesBreak } from '../../core/release/breaks';
import type { BothSides, Side } from '../../core/release/both-sides';
import type { Differing } from '../../core/release/differing-routes';
import type { RowsGiven } from '../../core/release/data/rows';
import type { Loss, Progress, VersionMark } from '../../core/release/format-types';
import type { FormatName } from '../../core/release/formats/known';
import type { TwoSheets } from '../../core/release/two-sheets';

/** How far the routes of a questionnaire were passed. */
export interface PassedRoutes {
  readonly total: string;
  readonly exact: boolean;
  /** Numbers of few routes that take every fork, and whether they do. */
  readonly cover: readonly string[];
  readonly covered: boolean;
  /** Numbers of the routes that were passed. */
  readonly passed: readonly string[];
}

export interface Compared {
  readonly routes: Readonly<Record<'old' | 'now', string>> &
    Readonly<Record<Differing, string | null>> & { readonly share: number | null; readonly exact: boolean };
  readonly breaks: readonly Pick<SeriesBreak, 'name' | 'why'>[];
  readonly sheets: TwoSheets;
}

export interface SideShown extends Omit<Side, 'number'> {
  readonly number: string | null;
}
export interface SidesShown extends Pick<BothSides, 'rows'> {
  readonly old: SideShown;
  readonly now: SideShown;
}

/** Which file is asked for. */
export interface FileAsked {
  readonly format: FormatName;
  /** Its ending: one of those that the format is written with. */
  readonly kind: string;
  /** Of a format of data. */
  readonly rows?: RowsGiven;
  /** Of the instrument: where it posts its cases to. */
  readonly post?: string;
}

/** A file to be kept. */
export interface MadeFile {
  readonly name: string;
  readonly blob: Blob;
  /** What the format cannot hold. */
  readonly losses: readonly Loss[];
}

export interface ReleaseApi {
  /** Throws where the format is none that is written here, or where rows do not fit. */
  file(
    asked: FileAsked,
    document: unknown,
    version: VersionMark | null,
    progress: Progress,
  ): Promise<MadeFile>;
  /** `marks`: those of each route that was passed. */
  passedRoutes(document: unknown, marks: readonly (readonly string[])[]): PassedRoutes;
  compare(old: unknown, now: unknown): Compared;
  /** Of the two compared last: somebody on the `k`-th route of a kind, from 1; null where there is none. */
  bothSides(which: Differing, k: string): SidesShown | null;
}
