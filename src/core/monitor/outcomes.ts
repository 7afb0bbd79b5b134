/** What becomes of those who start, in the words of the field: how they ended, or that they left, or are still at it. */
import type { EndingKind } from '../document/types';
import { ENDINGS, type Colour } from '../document/vocabularies';
import { AWAY } from '../responding/trial-settings';
import type { ResponseSummary } from './summary';

export const OUTCOMES = [
  'complete',
  'hand_off',
  'screened_out',
  'quota_full',
  'declined',
  'partial',
  'broken_off',
  'under_way',
] as const satisfies readonly (EndingKind | string)[];
export type Outcome = (typeof OUTCOMES)[number];

export interface OutcomeTraits {
  readonly word: string;
  readonly meaning: string;
  readonly colour: Colour | 'marigold-dark';
  /** Of an ending; null of those who have come to none. */
  readonly ending: EndingKind | null;
}

const ended = (ending: EndingKind): OutcomeTraits => {
  const { word, meaning, colour } = ENDINGS[ending];
  return { word, meaning, colour, ending };
};

export const OUTCOME_WORDS: Readonly<Record<Outcome, OutcomeTraits>> = {
  complete: ended('complete'),
  hand_off: ended('hand_off'),
  screened_out: ended('screened_out'),
  quota_full: ended('quota_full'),
  declined: ended('declined'),
  partial: {
    word: 'Partial',
    meaning: 'left after coming to the section from which an interview counts as partial',
    colour: 'ink-soft',
    ending: null,
  },
  broken_off: {
    word: 'Broken off',
    meaning: 'left half an hour ago or longer, or their time was over; whoever comes back moves on from here',
    colour: 'ink-soft',
    ending: null,
  },
  under_way: {
    word: 'Under way',
    meaning: 'sent a page within the last half hour',
    colour: 'marigold-dark',
    ending: null,
  },
};

export interface OutcomeMoment {
  /** Milliseconds since 1970. */
  readonly now: number;
  /** Index of the section from which leaving counts as a partial interview; null: from none. */
  readonly partialFrom: number | null;
}

export function outcomeOf(
  { kind, closedAt, changedAt, furthest }: ResponseSummary,
  { now, partialFrom }: OutcomeMoment,
): Outcome {
  if (kind !== null) return kind;
  if (closedAt === null && now - changedAt <= AWAY) return 'under_way';
  return partialFrom !== null && furthest >= partialFrom ? 'partial' : 'broken_off';
}

/** Whether somebody has answered all that was meant for them. */
export function isWhole({ kind }: Pick<ResponseSummary, 'kind'>): boolean {
  return kind !== null && ENDINGS[kind].counts;
}
