/** What crosses between the main thread and the forecast worker. */
import type { Limit, Length } from '../../core/analysis';
import type { Assume } from '../../core/document/types';
import type { Group } from '../../core/analysis';
import type { Doubling } from '../../core/forecast/doubling';
import type {
  EndingMinutes,
  Expected,
  Hanging,
  Minutes,
  QuotaTold,
  SectionMinutes,
} from '../../core/forecast/forecast';
import type { AssumedShare } from '../../core/forecast/one-more-point';
import type { AnswerShare } from '../../core/forecast/re-share';
import type { SeenSample } from '../../core/forecast/seen/sample';
import type { Effect } from '../../core/forecast/steering';

/** What is assumed besides what the document says. */
export interface FiguresAsked {
  readonly starts: number;
  readonly breakOff: number;
  readonly assumptions: readonly (readonly [name: string, assume: Assume])[];
}

export interface SteeringShown {
  readonly name: string;
  readonly shares: readonly (AnswerShare & Pick<AssumedShare, 'where'>)[];
  /** How many items have a base that hangs on it. */
  readonly decides: number;
  readonly weight: number;
}

export interface Figures {
  readonly exact: boolean;
  readonly limits: readonly Limit[];
  readonly items: readonly Expected[];
  readonly sections: readonly Expected[];
  readonly endings: readonly Expected[];
  /** The same if nobody broke off; null where nobody does. */
  readonly whole: { readonly sections: readonly Expected[]; readonly endings: readonly Expected[] } | null;
  readonly minutes: Minutes | null;
  /** The route of the longest interview. */
  readonly longest: { readonly items: readonly string[]; readonly ending: string } | null;
  readonly lengths: readonly Length[];
  /** The questions whose answers decide, the weightiest first. */
  readonly steering: readonly SteeringShown[];
}

/** What one set of assumptions comes to. */
export interface SetFigures {
  /** Null: what stands at the questions. */
  readonly set: string | null;
  readonly items: readonly Expected[];
  readonly endings: readonly Expected[];
  readonly minutes: Minutes | null;
}

export interface ForecastApi {
  /** Takes up a questionnaire; what is asked for after it is asked about this one. */
  load(document: unknown): void;
  figures(asked: FiguresAsked): Figures;
  /** What one more point of each answer gives, by what was assumed last; null where it cannot be told. */
  effects(of: Hanging): readonly Effect[] | null;
  /** Lengths by ending, and of each section, by what was assumed last. */
  minutesByEnding(): readonly EndingMinutes[];
  minutesBySection(): readonly SectionMinutes[];
  /** What would double a base, by what was assumed last; null where it cannot be told. */
  doublings(of: Group): readonly Doubling[] | null;
  /** What each quota does, and how many of a group it costs, by what was assumed last. */
  quotas(of: Group | null): readonly QuotaTold[];
  /** The figures of every set of assumptions, that of the questions first, by what was asked for last. */
  sets(): readonly SetFigures[];
  /** What collected rows say; a sentence where they cannot be used. */
  sample(header: readonly string[], rows: readonly (readonly (string | number)[])[]): SeenSample | string;
}
