/**
 * How likely each answer is in a situation, by what is assumed, and how fast that changes on the way to another
 * assumption.
 *
 * Weights before they are made to add up are linear in a share (of a `multiple`, in each pick's chance): a slope is what
 * they come to at the far end less what they are here, and the quotient rule does the rest. So slopes are exact.
 */
import type { Answer, Assume, AssumedShares, Value } from '../../document/types';
import { assumedAmong } from '../../routing/assumed';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { FALSE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { chancesOf } from './chances';
import { following, type SituatedPart, type Situation } from './situations';

/** What is assumed of an item's answers (or of a given value), and, where slopes are asked for, on the way to what. */
export interface Leaning {
  readonly assume: Assume;
  readonly toward?: Assume;
}

/** A number with its slope: how fast it changes at the start of the way, which is 1 long. */
export interface Sloped {
  readonly value: number;
  readonly slope: number;
}

export interface SituationChances {
  /** By symbol, parallel to its values; none for a row that is not shown. */
  readonly chances: ReadonlyMap<AnswerSymbol, readonly Sloped[]>;
  /** One over the chance of getting past the hard checks. */
  readonly factor: Sloped;
}

const NONE: Sloped = { value: 0, slope: 0 };
const WHOLE: Sloped = { value: 1, slope: 0 };

/** The same of those alone of whom some other shares are assumed, by their index; null for the rest. */
export function leaningAmong({ assume, toward }: Leaning, where: number | null): Leaning {
  return {
    assume: assumedAmong(assume, where),
    ...(toward === undefined ? {} : { toward: assumedAmong(toward, where) }),
  };
}

/** Answers that a hard check refuses are given up for others, in proportion. */
export function chancesIn(diagrams: Diagrams, situation: Situation, of: Leaning): SituationChances {
  const { parts, passing, where } = situation;
  const leaning = leaningAmong(of, where);
  const each = (of: (part: SituatedPart, legal: readonly boolean[]) => readonly Sloped[]) =>
    new Map(parts.map((part) => [part.symbol, part.legal === null ? [] : of(part, part.legal)]));
  const assumed = each(({ symbol, answer }, legal) => spread(symbol, answer, leaning, legal));
  if (passing === null) return { chances: assumed, factor: WHOLE };
  const symbols = parts.map(({ symbol }) => symbol);
  for (const chances of [
    assumed,
    each(({ symbol, answer }, legal) => spread(symbol, answer, { assume: {} }, legal)),
    each((_, legal) => evenly(legal)),
  ]) {
    const past = passed(diagrams, passing, symbols, chances);
    if (past.value > 0)
      return { chances, factor: { value: 1 / past.value, slope: -past.slope / past.value ** 2 } };
  }
  return { chances: new Map(), factor: WHOLE };
}

/** The chance that answers to an item are among some. */
function passed(
  diagrams: Diagrams,
  answers: Diagram,
  [symbol, ...others]: readonly AnswerSymbol[],
  chances: ReadonlyMap<AnswerSymbol, readonly Sloped[]>,
): Sloped {
  if (answers === FALSE) return NONE;
  if (symbol === undefined) return WHOLE;
  const unasked = symbol.readings.length - 1;
  const weights = [...(chances.get(symbol) ?? []), NONE];
  // A row that is not shown has no other reading.
  if (!weights.some(({ value }) => value > 0)) weights[unasked] = WHOLE;
  let [value, slope] = [0, 0];
  weights.forEach((weight, reading) => {
    if (weight.value === 0 && weight.slope === 0) return;
    const left = following(diagrams, answers, new Map(symbol.literals(reading)));
    const rest = passed(diagrams, left, others, chances);
    value += weight.value * rest.value;
    slope += weight.slope * rest.value + weight.value * rest.slope;
  });
  return { value, slope };
}

/** Chances that add up to 1: a blank has its own, what is allowed besides has the rest in proportion. */
export function spread(
  symbol: AnswerSymbol,
  answer: Answer,
  { assume, toward = assume }: Leaning,
  legal: readonly boolean[],
): readonly Sloped[] {
  const isBlank = (value: Value | null) => value === null;
  const blankIs = symbol.values.findIndex(isBlank);
  const blankIn = (of: AssumedShares) => (legal[blankIs] ? (of.blank ?? 0) : 0);
  const blank = { value: blankIn(assume), slope: blankIn(toward) - blankIn(assume) };
  for (const [from, to] of [
    [assume, toward],
    [{}, {}],
  ] as const) {
    const allowed = (as: AssumedShares) =>
      chancesOf(symbol, answer, as).map((weight, n) => (legal[n] ? weight : 0));
    const weights = allowed(from);
    const ahead = from === to ? weights : allowed(to);
    const total = weights.reduce((sum, weight) => sum + weight, 0);
    if (total === 0) continue;
    const more = ahead.reduce((sum, weight) => sum + weight, 0) - total;
    return weights.map((weight, n) => {
      if (n === blankIs) return blank;
      const share = weight / total;
      const slope = ((ahead[n] as number) - weight - share * more) / total;
      return {
        value: (1 - blank.value) * share,
        slope: (1 - blank.value) * slope - blank.slope * share,
      };
    });
  }
  return evenly(legal);
}

function evenly(legal: readonly boolean[]): Sloped[] {
  const count = legal.filter(Boolean).length;
  return legal.map((is) => ({ value: is ? 1 / count : 0, slope: 0 }));
}
