/** One answer by chance, as it is assumed; see `routing/assumed.ts`. */
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import type { RandomGenerator } from 'pure-rand/types/RandomGenerator';
import { plausibleTexts } from '../analysis';
import { passKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import type { Answer, AssumedShares, MultipleAnswer, Option, Value } from '../document/types';
import { pickLimits, type ShownParts } from '../routing/answers';
import { codeWeights, lineWeights, pickWeights, type LineAnswer, type PickWeights } from '../routing/assumed';

export interface DrawnAnswer {
  readonly answer: Answer;
  readonly assume?: AssumedShares;
  readonly required?: boolean;
}

/** What an answer assumes in silence. */
const EVEN: AssumedShares = {};

/** The tables that `work` makes of an answer and what is assumed of it: the same for every respondent who is shown all. */
function kept<Tables>(work: (answer: Answer, assume: AssumedShares) => Tables) {
  const byAnswer = new WeakMap<Answer, WeakMap<AssumedShares, Tables>>();
  return (answer: Answer, assume: AssumedShares): Tables => {
    let byAssume = byAnswer.get(answer);
    if (byAssume === undefined) byAnswer.set(answer, (byAssume = new WeakMap<AssumedShares, Tables>()));
    let tables = byAssume.get(assume);
    if (tables === undefined) byAssume.set(assume, (tables = work(answer, assume)));
    return tables;
  };
}

const codeWeightsOf = kept((answer, assume) => codeWeights(optionsOf(answer), assume));
const lineWeightsOf = kept((answer, assume) => lineWeights(answer as LineAnswer, assume));
const pickWeightsOf = kept((answer, assume) => {
  const options = optionsOf(answer);
  const shown = { options: options.map(() => true), rows: [] };
  return pickWeights(options, pickLimits(answer as MultipleAnswer, shown), assume);
});

/** Null for a blank, which a required question never gets. */
export function drawAnswer(
  random: RandomGenerator,
  { answer, assume = EVEN, required }: DrawnAnswer,
  shown: ShownParts,
): Value | null {
  if (!required && assume.blank !== undefined && uniformFloat64(random) < assume.blank) return null;
  switch (answer.type) {
    case 'single': {
      const isShown = (_: unknown, o: number) => shown.options[o] === true;
      const options = answer.options.filter(isShown);
      const weights = [assume, EVEN]
        .map((as) => codeWeightsOf(answer, as).filter(isShown))
        .find((some) => some.some((weight) => weight > 0));
      return pickWeighted(random, options, weights ?? options.map(() => 1))?.code ?? null;
    }
    case 'multiple':
      return drawPicks(random, answer, assume, shown);
    case 'rank':
      return drawOrder(random, answer, shown);
    case 'scale':
    case 'number':
    case 'date':
    case 'time':
    case 'datetime':
      return drawOnLine(random, answer, assume, shown);
    case 'text':
      return plausibleTexts(answer)[0] ?? 'x';
    case 'grid':
      return null;
    default:
      return answer satisfies never;
  }
}

function pickWeighted<T>(
  random: RandomGenerator,
  from: readonly T[],
  weights: readonly number[],
): T | undefined {
  let mark = uniformFloat64(random) * weights.reduce((sum, weight) => sum + weight, 0);
  const index = weights.findIndex((weight) => (mark -= weight) < 0);
  return from[index] ?? from[weights.findLastIndex((weight) => weight > 0)];
}

/**
 * How many are picked is drawn first, then which (Chen, Dempster and Liu, "Weighted finite population sampling to
 * maximize entropy", 1994).
 */
function drawPicks(
  random: RandomGenerator,
  answer: MultipleAnswer,
  assume: AssumedShares,
  shown: ShownParts,
): Value | null {
  const options = answer.options.filter((_, o) => shown.options[o]);
  const weightsOf = (as: AssumedShares) =>
    options.length === answer.options.length
      ? pickWeightsOf(answer, as)
      : pickWeights(options, pickLimits(answer, shown), as);
  const isPossible = ({ counts, aloneWeights }: PickWeights) =>
    counts.some((weight) => weight > 0) || aloneWeights.some((weight) => weight > 0);
  const possible = [weightsOf(assume), weightsOf(EVEN)].find(isPossible);
  if (possible === undefined) return options[0] === undefined ? null : [options[0].code];
  const { ordinary, alone, counts, aloneWeights, tables, chances } = possible;
  const choices: (number | Option)[] = [...counts.keys(), ...alone];
  const choice = pickWeighted(random, choices, [...counts, ...aloneWeights]);
  if (choice === undefined) return null;
  if (typeof choice === 'object') return [choice.code];
  let left = choice;
  const picked: number[] = [];
  ordinary.forEach((option, o) => {
    const all = tables[o]?.[left] ?? 0;
    const withIt = left === 0 ? 0 : (chances[o] ?? 0) * (tables[o + 1]?.[left - 1] ?? 0);
    if (uniformFloat64(random) * all >= withIt) return;
    picked.push(option.code);
    left -= 1;
  });
  return picked;
}

function drawOrder(
  random: RandomGenerator,
  { options, top }: Extract<Answer, { type: 'rank' }>,
  shown: ShownParts,
): Value | null {
  const fit = options.filter((option, o) => shown.options[o] && option.missing === undefined);
  const codes = [...new Set(fit.map(({ code }) => code))];
  for (let place = 0; place < codes.length; place += 1) {
    const from = uniformInt(random, place, codes.length - 1);
    [codes[place], codes[from]] = [codes[from] as number, codes[place] as number];
  }
  const places = codes.slice(0, top ?? codes.length);
  return places.length === 0 ? null : places;
}

function drawOnLine(
  random: RandomGenerator,
  answer: LineAnswer,
  assume: AssumedShares,
  shown: ShownParts,
): Value {
  const isShown = (_: unknown, o: number) => shown.options[o] === true;
  const codes = optionsOf(answer).filter(isShown);
  for (const as of [assume, EVEN]) {
    const { line, spans, specials } = lineWeightsOf(answer, as);
    const weights = [...specials.filter(isShown), ...spans.map(({ share }) => share)];
    const chosen = pickWeighted(random, [...codes, ...spans], weights);
    if (chosen === undefined) continue;
    return 'code' in chosen ? chosen.code : line.at(uniformInt(random, chosen.from, chosen.to));
  }
  throw new RangeError('a line of no length');
}

/** The words that a picked answer asks to be specified. */
export function writeDetails(
  part: string,
  options: ReturnType<typeof optionsOf>,
  pass: number | null,
  value: Value | null,
  answers: Record<string, Value | null>,
): void {
  const codes: readonly unknown[] = typeof value === 'object' && value !== null ? value : [value];
  for (const option of options) {
    if (option.specify && codes.includes(option.code))
      answers[passKey(`${part}_${option.code}_text`, pass)] = 'Something else';
  }
}
