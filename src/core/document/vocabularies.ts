/**
 * The words of a questionnaire that are one of a few, each with what it means and how it is shown: kinds of endings and
 * sections, reasons for a missing answer, verdicts. Whoever treats one otherwise than another asks its row here, so that a
 * new one is decided on once, and does not compile before. `audit/problems.ts` has those of collected rows.
 */
import {
  MISSING_REASONS,
  type EndingKind,
  type MissingReason,
  type OptionMissing,
  type SectionKind,
} from './types';

/** A colour of the tokens, by its name without the dashes. */
export type Colour = 'ink-soft' | 'pine-mid' | 'coral' | 'ink-faint' | 'plum' | 'ink-blue';

export interface EndingTraits {
  readonly word: string;
  readonly meaning: string;
  /** The interview stops before its purpose is met. */
  readonly early: boolean;
  /** The respondent has answered all that was meant for them, and counts towards targets. */
  readonly counts: boolean;
  /** Of real respondents who end so nothing is kept but how many they are. */
  readonly keepsNothing: boolean;
  /** Drawn beside the word, in this colour; its faint shade is the token with `ribbon-` before it. */
  readonly mark: 'bar' | 'flag' | 'dash' | 'square' | 'arrow';
  readonly colour: Colour;
}

export const ENDINGS: Readonly<Record<EndingKind, EndingTraits>> = {
  complete: {
    word: 'Complete',
    meaning: 'answered to the end',
    early: false,
    counts: true,
    keepsNothing: false,
    mark: 'bar',
    colour: 'pine-mid',
  },
  screened_out: {
    word: 'Screened out',
    meaning: 'not one of those who are meant',
    early: true,
    counts: false,
    keepsNothing: false,
    mark: 'flag',
    colour: 'coral',
  },
  declined: {
    word: 'Declined',
    meaning: 'did not consent',
    early: true,
    counts: false,
    keepsNothing: true,
    mark: 'dash',
    colour: 'ink-faint',
  },
  quota_full: {
    word: 'Quota full',
    meaning: 'enough like them have answered',
    early: true,
    counts: false,
    keepsNothing: false,
    mark: 'square',
    colour: 'plum',
  },
  hand_off: {
    word: 'Handed on',
    meaning: 'answered to the end, and goes on in another questionnaire',
    early: false,
    counts: true,
    keepsNothing: false,
    mark: 'arrow',
    colour: 'ink-blue',
  },
};

/** Null: no ending. */
export function isEarly(kind: EndingKind | null): boolean {
  return kind !== null && ENDINGS[kind].early;
}

/** Those in whose order a new questionnaire has them, with what they say there. */
export const FIRST_MESSAGES: Partial<Record<EndingKind, string>> = {
  complete: 'Thank you. Your answers have been recorded.',
  screened_out: 'Thank you. We have no further questions for you.',
  declined: 'Thank you for considering it.',
};

export interface SectionTraits {
  readonly meaning: string;
  /** Where somebody goes who is sent out of it by “end” alone. */
  readonly sendsTo: EndingKind;
  /** It is for all who come so far: nobody branches around it. */
  readonly forEverybody: boolean;
  /** Words of a title that suggest the kind, beside its own. */
  readonly suggestedBy: RegExp | null;
}

export const SECTIONS: Readonly<Record<SectionKind, SectionTraits>> = {
  consent: {
    meaning: 'asks whether they take part',
    sendsTo: 'declined',
    forEverybody: false,
    suggestedBy: null,
  },
  screening: {
    meaning: 'finds out whether they are meant',
    sendsTo: 'screened_out',
    forEverybody: false,
    suggestedBy: null,
  },
  topic: {
    meaning: 'asks about what the study is about',
    sendsTo: 'complete',
    forEverybody: false,
    suggestedBy: null,
  },
  background: {
    meaning: 'asks who they are',
    sendsTo: 'complete',
    forEverybody: true,
    suggestedBy: /about you(?:rself)?\b(?!r)|demograph/i,
  },
  closing: {
    meaning: 'takes leave of them',
    sendsTo: 'complete',
    forEverybody: true,
    suggestedBy: /thank|\bend\b|last question/i,
  },
};

export interface MissingTraits {
  /** Code and label in a new questionnaire. */
  readonly code: number;
  readonly label: string;
  /** Nobody was asked. */
  readonly unasked: boolean;
}

export const MISSING = {
  not_applicable: { code: -1, label: 'Not applicable (skipped by route)', unasked: true },
  not_drawn: { code: -2, label: 'Not drawn for this respondent', unasked: true },
  no_answer: { code: -3, label: 'Asked, left blank', unasked: false },
  not_reached: { code: -4, label: 'Stopped before this question', unasked: true },
} as const satisfies Readonly<Record<MissingReason, MissingTraits>>;

/** The reasons under which nobody was asked. */
export type Unasked = {
  [Reason in MissingReason]: (typeof MISSING)[Reason]['unasked'] extends true ? Reason : never;
}[MissingReason];
export const UNASKED = MISSING_REASONS.filter((reason): reason is Unasked => MISSING[reason].unasked);

/** Any reason: of an author's own, people were asked. */
export function isUnasked(reason: string): reason is Unasked {
  return (UNASKED as readonly string[]).includes(reason);
}

/** The answers that count as missing. */
export interface OptionMissingTraits {
  readonly word: string;
  /** The usual code, and others where it is taken. */
  readonly codes: readonly [number, ...number[]];
  /** How authors write it in a list. */
  readonly writtenLike: RegExp;
  /** It is a way out for whoever does not want to answer. */
  readonly wayOut: boolean;
}

export const OPTIONS_MISSING: Readonly<Record<OptionMissing, OptionMissingTraits>> = {
  dont_know: {
    word: 'don’t know',
    codes: [98, 998, 9998],
    writtenLike: /^(?:i\s+)?(?:don.?t|do not) know\b|^(?:not|un)\s?sure$|^can.?t (?:say|remember)\b|^dk$/i,
    wayOut: true,
  },
  refused: {
    word: 'prefer not to say',
    codes: [99, 999, 9999],
    writtenLike: /^(?:i(?:'d|’d| would)?\s+)?(?:prefer|rather) not\b|^refuse[ds]?\b|^prefer not to/i,
    wayOut: true,
  },
  not_available: {
    word: 'not available',
    codes: [97, 997, 9997],
    writtenLike: /^(?:not applicable|n\/?a|does not apply)$/i,
    wayOut: false,
  },
};

/** What whoever has walked a route says of it. */
export const VERDICTS = ['passed', 'sent_back'] as const;
export type VerdictKind = (typeof VERDICTS)[number];

export interface VerdictTraits {
  readonly word: string;
  readonly mark: string;
  readonly colour: Colour;
  readonly meaning: string;
}

export const VERDICT_WORDS: Readonly<Record<VerdictKind, VerdictTraits>> = {
  passed: { word: 'passed', mark: '✓', colour: 'pine-mid', meaning: 'it is as it is meant to be' },
  sent_back: { word: 'sent back', mark: '↩', colour: 'coral', meaning: 'something has to be mended first' },
};

/** How a route stands whose verdict an edit has re-opened. */
export const REOPENED: VerdictTraits = {
  word: 'changed',
  mark: '↻',
  colour: 'ink-soft',
  meaning: 'judged before it was changed',
};
