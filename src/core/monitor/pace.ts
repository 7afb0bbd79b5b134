/** How long complete interviews took, and who was faster than one can read. */
import { isWhole } from './outcomes';
import type { ResponseSummary } from './summary';

/**
 * Faster than half the usual pace (Greszki, Meyer and Schoen, “Exploring the effects of removing ‘too fast’ responses and respondents
 * from web surveys”, 2015), where theirs is the median of all and ours allows for what each was asked.
 */
export const FAST = 0.5;
/** Of fewer complete interviews no usual pace can be told. */
export const LEAST_FOR_PACE = 10;

export interface Quartiles {
  readonly lower: number;
  readonly median: number;
  readonly upper: number;
}

/** Of a list that is not empty, between its values where need be (definition 7 of Hyndman and Fan, 1996). */
export function quartilesOf(values: readonly number[]): Quartiles {
  const sorted = values.toSorted((a, b) => a - b);
  const at = (share: number) => {
    const place = share * (sorted.length - 1);
    const [low, high] = [Math.floor(place), Math.ceil(place)];
    const [a = 0, b = 0] = [sorted[low], sorted[high]];
    return a + (place - low) * (b - a);
  };
  return { lower: at(0.25), median: at(0.5), upper: at(0.75) };
}

export interface Pace {
  /** Complete interviews. */
  readonly count: number;
  /** In seconds: as they took, and as the burden model has it for the same people; null where there are none. */
  readonly took: Quartiles | null;
  readonly expected: Quartiles | null;
  /** Whoever took less than so much of what was expected for them was fast; null where there are too few. */
  readonly fastBelow: number | null;
}

export function paceOf(responses: readonly ResponseSummary[]): Pace {
  const whole = responses.filter(isWhole);
  if (whole.length === 0) return { count: 0, took: null, expected: null, fastBelow: null };
  return {
    count: whole.length,
    took: quartilesOf(whole.map(({ seconds }) => seconds)),
    expected: quartilesOf(whole.map(({ expected }) => expected)),
    fastBelow: whole.length < LEAST_FOR_PACE ? null : FAST * quartilesOf(whole.map(ratioOf)).median,
  };
}

/** Time taken for each second that was expected. */
const ratioOf = ({ seconds, expected }: ResponseSummary) => seconds / Math.max(1, expected);

export function isFastBy({ fastBelow }: Pace): (of: ResponseSummary) => boolean {
  return (of) => fastBelow !== null && isWhole(of) && ratioOf(of) < fastBelow;
}
