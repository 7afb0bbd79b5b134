/** One answer by chance, as it is assumed; see `routing/assumed.ts`. */
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import type { RandomGenerator } from 'pure-rand/types/RandomGenerator';
import { plausibleTexts } from '../analysis';
import { nameInKey, passKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import type { Answer, AssumedShares, MultipleAnswer, Option, SingleAnswer, Value } from '../document/types';
import { pickLimits, type ShownParts } from '../routing/answers';
import { codeWeights, lineWeights, pickWeights, type LineAnswer } from '../routing/assumed';

export interface DrawnAnswer {
  readonly answer: Answer;
  readonly assume?: AssumedShares | undefined;
  readonly required?: boolean | undefined;
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

/** What one of some is drawn from, each with a weight. */
interface Urn<T> {
  readonly from: readonly T[];
  readonly weights: readonly number[];
  readonly total: number;
}

function urnOf<T>(from: readonly T[], weights: readonly number[]): Urn<T> {
  return { from, weights, total: weights.reduce((sum, weight) => sum + weight, 0) };
}

type Shown = ShownParts['options'];

/** As `make` has it, worked out once for everybody who is shown all options. */
function keptForAll<Tables, Of extends Answer>(
  make: (answer: Of, assume: AssumedShares, shown: Shown) => Tables,
) {
  const forAll = kept((answer, assume) =>
    make(
      answer as Of,
      assume,
      optionsOf(answer).map(() => true),
    ),
  );
  return (answer: Of, assume: AssumedShares, shown: Shown): Tables =>
    shown.includes(false) ? make(answer, assume, shown) : forAll(answer, assume);
}

const codeUrn = keptForAll((answer: SingleAnswer, assume, shown): Urn<Option> => {
  const isShown = (_: unknown, o: number) => shown[o] === true;
  const options = answer.options.filter(isShown);
  const weights = [assume, EVEN]
    .map((as) => codeWeightsOf(answer, as).filter(isShown))
    .find((some) => some.some((weight) => weight > 0));
  return urnOf(options, weights ?? options.map(() => 1));
});

/** Of what is assumed, or where that leaves nothing of all alike. */
const lineUrns = keptForAll((answer: LineAnswer, assume, shown) => {
  const isShown = (_: unknown, o: number) => shown[o] === true;
  const codes = optionsOf(answer).filter(isShown);
  return [assume, EVEN].map((as) => {
    const { line, spans, specials } = lineWeightsOf(answer, as);
    const weights = [...specials.filter(isShown), ...spans.map(({ share }) => share)];
    return { line, urn: urnOf([...codes, ...spans], weights) };
  });
});

/** How many are picked, or which is picked alone; null where nothing can be. */
const pickUrn = keptForAll((answer: MultipleAnswer, assume, shown) => {
  const options = answer.options.filter((_, o) => shown[o]);
  const limits = pickLimits(answer, { options: shown, rows: [] });
  const possible = [assume, EVEN]
    .map((as) => pickWeights(options, limits, as))
    .find(({ counts, aloneWeights }) => [...counts, ...aloneWeights].some((weight) => weight > 0));
  if (possible === undefined) return { options, possible, urn: null };
  const { counts, alone, aloneWeights } = possible;
  const choices: (number | Option)[] = [...counts.keys(), ...alone];
  return { options, possible, urn: urnOf(choices, [...counts, ...aloneWeights]) };
});

/** Null for a blank, which a required question never gets. */
export function drawAnswer(
  random: RandomGenerator,
  { answer, assume = EVEN, required }: DrawnAnswer,
  shown: ShownParts,
): Value | null {
  if (!required && assume.blank !== undefined && uniformFloat64(random) < assume.blank) return null;
  switch (answer.type) {
    case 'single':
      return drawFrom(random, codeUrn(answer, assume, shown.options))?.code ?? null;
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

function drawFrom<T>(random: RandomGenerator, { from, weights, total }: Urn<T>): T | undefined {
  let mark = uniformFloat64(random) * total;
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
  const { options, possible, urn } = pickUrn(answer, assume, shown.options);
  if (possible === undefined) return options[0] === undefined ? null : [options[0].code];
  const { ordinary, tables, chances } = possible;
  const choice = drawFrom(random, urn);
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
  for (const { line, urn } of lineUrns(answer, assume, shown.options)) {
    const chosen = drawFrom(random, urn);
    if (chosen === undefined) continue;
    return 'code' in chosen ? chosen.code : line.at(uniformInt(random, chosen.from, chosen.to));
  }
  throw new RangeError('a line of no length');
}

/** What everybody writes who is asked to specify an answer. */
const DETAIL = 'Something else';

/** What was written to specify, by the name it is answered under; nobody leaves a remark. */
export function detailOf(key: string): string {
  return nameInKey(key).endsWith('_text') ? DETAIL : '';
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
      answers[passKey(`${part}_${option.code}_text`, pass)] = DETAIL;
  }
}
