/**
 * The questionnaire document: what is stored, exchanged and edited.
 *
 * Plain JSON values, never mutated in place. Every other module reads these types;
 * this one imports nothing. Conditions and expressions are kept as the author's text.
 */

export const FORMAT = 'jolly-fork/questionnaire';
export const VERSION = 1;
/** What wrote a file, with its own version. */
export const TOOL = 'Jolly Fork 0.1.0';

/** The four reasons every questionnaire must have a code for, in the order they are listed. */
export const MISSING_REASONS = ['not_applicable', 'not_drawn', 'no_answer', 'not_reached'] as const;
export type MissingReason = (typeof MISSING_REASONS)[number];

export const SECTION_KINDS = ['consent', 'screening', 'topic', 'background', 'closing'] as const;
export type SectionKind = (typeof SECTION_KINDS)[number];

export const ENDING_KINDS = ['complete', 'screened_out', 'declined', 'quota_full', 'hand_off'] as const;
export type EndingKind = (typeof ENDING_KINDS)[number];

export const OPTION_MISSING = ['dont_know', 'refused', 'not_available'] as const;
export type OptionMissing = (typeof OPTION_MISSING)[number];

export const ANSWER_TYPES = [
  'single',
  'multiple',
  'scale',
  'number',
  'text',
  'date',
  'time',
  'datetime',
  'grid',
  'rank',
] as const;
export type AnswerType = (typeof ANSWER_TYPES)[number];

export interface Questionnaire {
  readonly format: typeof FORMAT;
  readonly version: typeof VERSION;
  readonly title: string;
  readonly language: string;
  readonly missing: readonly MissingCode[];
  readonly given?: readonly Given[];
  readonly quotas?: readonly Quota[];
  readonly sections: readonly Section[];
  readonly derived?: readonly Derived[];
  readonly endings: readonly Ending[];
  readonly settings?: Settings;
}

/** A reason why a cell of the data holds no answer, with the code written there instead. */
export interface MissingCode {
  /** One of `MISSING_REASONS`, or a reason of the author's own. */
  readonly reason: string;
  readonly code: number;
  readonly label: string;
}

/** A value known before the start: from the sample, carried over, or drawn by chance. */
export interface Given {
  readonly name: string;
  readonly label: string;
  readonly answer: Answer;
  readonly assume?: Assume;
  readonly random?: boolean;
}

export interface Quota {
  readonly id: string;
  readonly label: string;
  readonly if: string;
  readonly target: number;
  /** The question after which the quota is looked at. */
  readonly at: string;
  readonly to: Target;
}

export interface Section {
  readonly id: string;
  readonly title: string;
  readonly kind: SectionKind;
  readonly intro?: string;
  readonly askIf?: string;
  readonly items: readonly Item[];
  readonly onward?: Target | readonly Onward[];
  /** How many of the section's questions each respondent draws. */
  readonly draw?: number;
  readonly shuffle?: boolean;
  readonly repeat?: Repeat;
  /** Seconds, in the preview and trial links only. */
  readonly timeLimit?: number;
}

export interface Onward {
  readonly if?: string;
  readonly to: Target;
}

export type Repeat =
  { readonly times: string; readonly max: number } | { readonly each: string; readonly max: number };

export type Target =
  | { readonly item: string }
  | { readonly section: string }
  | { readonly ending: string }
  | { readonly nextPass: true };

export interface Skip {
  readonly if?: string;
  readonly to: Target;
}

export interface Check {
  readonly if: string;
  readonly kind: 'hard' | 'soft';
  readonly message: string;
}

export interface Picture {
  /** A data URL. */
  readonly src: string;
  readonly alt: string;
}

export type Item = Question | Statement | PageBreak;
/** What a route is made of: questions and statements, never page breaks. */
export type RoutedItem = Question | Statement;

export interface PageBreak {
  readonly kind: 'page_break';
}

export interface Statement {
  readonly kind: 'statement';
  readonly name: string;
  readonly text: string;
  readonly instruction?: string;
  readonly image?: Picture;
  readonly seconds?: number;
  readonly askIf?: string;
  readonly skips?: readonly Skip[];
}

export interface Question {
  readonly kind: 'question';
  readonly name: string;
  readonly text: string;
  readonly answer: Answer;
  readonly label?: string;
  readonly note?: string;
  readonly instruction?: string;
  readonly agrees?: readonly number[];
  readonly sensitive?: boolean;
  readonly measure?: 'nominal' | 'ordinal' | 'interval' | 'ratio';
  readonly missingCodes?: Readonly<Record<string, number>>;
  readonly required?: boolean;
  readonly requiredMessage?: string;
  readonly limitMessage?: string;
  readonly image?: Picture;
  readonly comment?: string;
  readonly seconds?: number;
  readonly askIf?: string;
  readonly assume?: Assume;
  readonly checks?: readonly Check[];
  readonly skips?: readonly Skip[];
}

export interface AssumedShares {
  /** Chance of each code, as a decimal string key. */
  readonly shares?: Readonly<Record<string, number>>;
  readonly ranges?: readonly AssumeRange[];
  /** Chance of a blank. */
  readonly blank?: number;
}

export interface Assume extends AssumedShares {
  /** Where all this is known from, in the author's words. */
  readonly source?: string;
  /** How many people the shares were seen among. */
  readonly base?: number;
  /** Of some others than of the rest, by what is known of them already; the first of them that holds counts. */
  readonly where?: readonly AssumeWhere[];
}

export interface AssumeWhere extends AssumedShares {
  /** A condition on what comes before the question. */
  readonly if: string;
}

export interface AssumeRange {
  readonly from: number | string;
  readonly to: number | string;
  readonly share: number;
}

export interface Option {
  readonly code: number;
  readonly label: string;
  readonly specify?: boolean;
  /** What its text field asks, instead of “please specify”. */
  readonly specifyLabel?: string;
  /** Its text field may be left empty though the question is required. */
  readonly specifyOptional?: boolean;
  readonly exclusive?: boolean;
  readonly missing?: OptionMissing;
  readonly askIf?: string;
  readonly image?: Picture;
}

export interface GridRow {
  readonly name: string;
  readonly label: string;
  readonly askIf?: string;
}

export type Answer =
  | SingleAnswer
  | MultipleAnswer
  | ScaleAnswer
  | NumberAnswer
  | TextAnswer
  | DateAnswer
  | GridAnswer
  | RankAnswer;

export interface SingleAnswer {
  readonly type: 'single';
  readonly options: readonly Option[];
  readonly columns?: number;
  readonly shuffleOptions?: boolean;
}

export interface MultipleAnswer {
  readonly type: 'multiple';
  readonly options: readonly Option[];
  readonly columns?: number;
  readonly minPicks?: number;
  readonly maxPicks?: number;
  readonly picksMessage?: string;
  readonly shuffleOptions?: boolean;
}

export interface ScaleAnswer {
  readonly type: 'scale';
  readonly min: number;
  readonly max: number;
  readonly step?: number;
  readonly lowLabel?: string;
  readonly midLabel?: string;
  readonly highLabel?: string;
  readonly specials?: readonly Option[];
}

export interface NumberAnswer {
  readonly type: 'number';
  readonly min: number;
  readonly max: number;
  /** Digits allowed after the point; 0 by default. */
  readonly decimals?: number;
  readonly unit?: string;
  readonly specials?: readonly Option[];
}

export interface TextAnswer {
  readonly type: 'text';
  readonly lines?: 'one' | 'many';
  readonly minLength?: number;
  readonly maxLength?: number;
  readonly pattern?: 'email' | 'phone' | 'url' | 'none';
  readonly placeholder?: string;
}

export interface DateAnswer {
  readonly type: 'date' | 'time' | 'datetime';
  readonly min?: string;
  readonly max?: string;
  readonly specials?: readonly Option[];
}

export interface GridAnswer {
  readonly type: 'grid';
  readonly rows: readonly GridRow[];
  readonly options: readonly Option[];
  readonly pick?: 'one' | 'many';
  readonly shuffleOptions?: boolean;
}

export interface RankAnswer {
  readonly type: 'rank';
  readonly options: readonly Option[];
  /** How many places are ranked; all options by default. */
  readonly top?: number;
  readonly shuffleOptions?: boolean;
}

export type Derived = DerivedCases | DerivedValue;

export interface DerivedCases {
  readonly name: string;
  readonly label: string;
  readonly cases: readonly DerivedCase[];
  readonly else?: { readonly code: number; readonly label: string };
}

export interface DerivedCase {
  readonly if: string;
  readonly code: number;
  readonly label: string;
}

export interface DerivedValue {
  readonly name: string;
  readonly label: string;
  /** An arithmetic expression over numbers. */
  readonly value: string;
}

export interface Ending {
  readonly id: string;
  readonly kind: EndingKind;
  readonly messages: readonly Message[];
  readonly next?: NextQuestionnaire | { readonly url: string };
}

export interface NextQuestionnaire {
  readonly questionnaire: string;
  readonly carry?: readonly string[];
}

export interface Message {
  readonly if?: string;
  readonly text: string;
}

/** What a forecast is made for, besides the assumed answers. */
export interface ForecastSettings {
  /** How many are expected to start. */
  readonly starts?: number;
  /** The least base that is to be reported. */
  readonly least?: number;
  /** The chance of breaking off, a minute. */
  readonly breakOff?: number;
  /** Of those who are invited, the share that starts. */
  readonly response?: number;
  /** How many times wider the variance is than with a simple random sample; from 1. */
  readonly designEffect?: number;
  readonly prices?: Prices;
  readonly wanted?: readonly WantedBase[];
  /** Other assumptions than those at the questions, by name. */
  readonly sets?: readonly AssumeSet[];
}

/** What a sample costs, for one person each. */
export interface Prices {
  readonly start?: number;
  readonly screenOut?: number;
  readonly complete?: number;
  /** As it is written behind a sum: EUR. */
  readonly currency?: string;
}

/** So many are wanted of those who are asked an item; of a repeated one, in this pass, or in any. */
export interface WantedBase {
  readonly of: string;
  readonly pass?: number;
  readonly n: number;
}

export interface AssumeSet {
  readonly name: string;
  readonly assume: readonly AssumeOf[];
}

/** What a set assumes of a question, or of a given value. */
export interface AssumeOf extends Assume {
  readonly of: string;
}

/** How fast respondents read, in words a minute, and seconds for the act of answering, in place of the usual ones. */
export interface PaceSettings {
  readonly words?: number;
  readonly single?: number;
  readonly pick?: number;
  readonly scale?: number;
  readonly number?: number;
  readonly shortText?: number;
  readonly longText?: number;
  readonly gridRow?: number;
  readonly rankPlace?: number;
  /** Where they are known from, in the author's words. */
  readonly source?: string;
}

export interface Settings {
  readonly numbers?: 'running' | 'fixed' | 'none';
  readonly pages?: 'section' | 'item';
  readonly progress?: boolean;
  /** Respondents show that a person is answering before the first page. Never part of a route or of the data. */
  readonly humanCheck?: boolean;
  readonly mode?: 'self' | 'interviewer';
  readonly maxMinutes?: number;
  readonly forecast?: ForecastSettings;
  readonly pace?: PaceSettings;
  readonly defaults?: { readonly required?: boolean; readonly dontKnow?: boolean };
  readonly theme?: { readonly accent?: string; readonly font?: string; readonly logo?: string };
}

/** The value of one variable as answered. Multiple: codes; rank: codes in order of rank; dates: ISO 8601. */
export type Value = number | string | readonly number[];
/** Answers by variable name (`name#pass` in a repeated section). Null and absent both mean blank. */
export type Answers = Readonly<Record<string, Value | null>>;
