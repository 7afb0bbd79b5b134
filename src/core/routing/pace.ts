/**
 * How fast respondents are: words they read in a minute, and seconds for the act of answering. A study can have its own.
 *
 * Reading: 238 words a minute, silently (Brysbaert, "How many words do we read per minute?", 2019).
 */
import type { PaceSettings, Questionnaire } from '../document/types';

/** Words a minute; the rest in seconds. */
export type Pace = Readonly<Required<Omit<PaceSettings, 'source'>>>;

export const USUAL_PACE: Pace = {
  words: 238,
  single: 2,
  pick: 1.5,
  scale: 3,
  number: 5,
  shortText: 8,
  longText: 25,
  gridRow: 3,
  rankPlace: 3,
};

/** Where the usual ones are known from. */
export const USUAL_SOURCE =
  '238 words a minute, read silently (Brysbaert 2019); seconds an act are the tool’s estimate';

/** Whether a study has a pace of its own in anything. */
export function hasOwnPace({ settings }: Questionnaire): boolean {
  const { source: _, ...own } = settings?.pace ?? {};
  return Object.keys(own).length > 0;
}

export function paceOf({ settings }: Questionnaire): Pace {
  const { source: _, ...own } = settings?.pace ?? {};
  return { ...USUAL_PACE, ...own };
}
