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

type Shown = ShownParts['options'];

/** Draws an answer from the options that are on show; null: all of them. A null drawn is a blank. */
export type Drawer = (random: RandomGenerator, shown: Shown | null) => Value | null;

/** For many respondents: what is drawn from is worked out once. */
export function drawerOf({ answer, assume = EVEN, required }: DrawnAnswer): Drawer {
  const draw = keptDrawer(answer, assume);
  const { blank } = assume;
  if (required || blank === undefined) return draw;
  return (random, shown) => (uniformFloat64(random) < blank ? null : draw(random, shown));
}

/** Null for a blank, which a required question never gets. */
export function drawAnswer(random: RandomGenerator, of: DrawnAnswer, shown: ShownParts): Value | null {
  return drawerOf(of)(random, shown.options);
}

const drawers = new WeakMap<Answer, WeakMap<AssumedShares, Drawer>>();

/** Of somebody who answers: the same for everybody of whom this is assumed. */
function keptDrawer(answer: Answer, assume: AssumedShares): Drawer {
  let byAssume = drawers.get(answer);
  if (byAssume === undefined) drawers.set(answer, (byAssume = new WeakMap<AssumedShares, Drawer>()));
  let drawer = byAssume.get(assume);
  if (drawer === undefined) byAssume.set(assume, (drawer = newDrawer(answer, assume)));
  return drawer;
}

function newDrawer(answer: Answer, assume: AssumedShares): Drawer {
  switch (answer.type) {
    case 'single':
      return codeDrawer(answer, assume);
    case 'multiple':
      return pickDrawer(answer, assume);
    case 'rank':
      return (random, shown) => drawOrder(random, answer, shown);
    case 'scale':
    case 'number':
    case 'date':
    case 'time':
    case 'datetime':
      return lineDrawer(answer, assume);
    case 'text': {
      const text = plausibleTexts(answer)[0] ?? 'x';
      return () => text;
    }
    case 'grid':
      return () => null;
    default:
      return answer satisfies never;
  }
}

/** As `make` has it; for those who are shown all options made once. */
function onceForAll<Tables>(answer: Answer, make: (shown: Shown) => Tables): (shown: Shown | null) => Tables {
  let forAll: Tables | undefined;
  return (shown) =>
    shown?.includes(false) ? make(shown) : (forAll ??= make(optionsOf(answer).map(() => true)));
}

/** Weights of which one is drawn by its index. */
interface Urn {
  readonly weights: readonly number[];
  readonly total: number;
}

function urnOf(weights: readonly number[]): Urn {
  return { weights, total: weights.reduce((sum, weight) => sum + weight, 0) };
}

/** -1 where nothing has any weight. */
function drawFrom(random: RandomGenerator, { weights, total }: Urn): number {
  let mark = uniformFloat64(random) * total;
  for (let n = 0; n < weights.length; n += 1) {
    mark -= weights[n] as number;
    if (mark < 0) return n;
  }
  // Rounding may leave a little beyond the last.
  return weights.findLastIndex((weight) => weight > 0);
}

function codeDrawer(answer: SingleAnswer, assume: AssumedShares): Drawer {
  const assumed = [assume, EVEN].map((as) => codeWeights(answer.options, as));
  const tables = onceForAll(answer, (shown) => {
    const isShown = (_: unknown, o: number) => shown[o] === true;
    const codes = answer.options.filter(isShown).map(({ code }) => code);
    const weights = assumed.map((of) => of.filter(isShown)).find((some) => some.some((weight) => weight > 0));
    return { codes, urn: urnOf(weights ?? codes.map(() => 1)) };
  });
  return (random, shown) => {
    const { codes, urn } = tables(shown);
    return codes[drawFrom(random, urn)] ?? null;
  };
}

/**
 * How many are picked is drawn first, then which (Chen, Dempster and Liu, "Weighted finite population sampling to
 * maximize entropy", 1994).
 */
function pickDrawer(answer: MultipleAnswer, assume: AssumedShares): Drawer {
  const tablesOf = onceForAll(answer, (shown) => {
    const options = answer.options.filter((_, o) => shown[o]);
    const limits = pickLimits(answer, { options: shown, rows: [] });
    const possible = [assume, EVEN]
      .map((as) => pickWeights(options, limits, as))
      .find(({ counts, aloneWeights }) => [...counts, ...aloneWeights].some((weight) => weight > 0));
    return possible === undefined
      ? { options, possible: null }
      : { options, possible: { ...possible, urn: urnOf([...possible.counts, ...possible.aloneWeights]) } };
  });
  return (random, shown) => {
    const { options, possible } = tablesOf(shown);
    if (possible === null) return options[0] === undefined ? null : [options[0].code];
    const { counts, alone, ordinary, tables, chances, urn } = possible;
    let left = drawFrom(random, urn);
    if (left < 0) return null;
    const single = alone[left - counts.length];
    if (single !== undefined) return [single.code];
    const picked: number[] = [];
    for (let o = 0; o < ordinary.length; o += 1) {
      const all = tables[o]?.[left] ?? 0;
      const withIt = left === 0 ? 0 : (chances[o] ?? 0) * (tables[o + 1]?.[left - 1] ?? 0);
      if (uniformFloat64(random) * all >= withIt) continue;
      picked.push((ordinary[o] as Option).code);
      left -= 1;
    }
    return picked;
  };
}

/** Of what is assumed, or where that leaves nothing of all alike. */
function lineDrawer(answer: LineAnswer, assume: AssumedShares): Drawer {
  const assumed = [assume, EVEN].map((as) => lineWeights(answer, as));
  const tables = onceForAll(answer, (shown) => {
    const isShown = (_: unknown, o: number) => shown[o] === true;
    const codes = optionsOf(answer)
      .filter(isShown)
      .map(({ code }) => code);
    const urns = assumed.map(({ line, spans, specials }) => {
      const urn = urnOf([...specials.filter(isShown), ...spans.map(({ share }) => share)]);
      return { line, spans, urn };
    });
    return { codes, urns };
  });
  return (random, shown) => {
    const { codes, urns } = tables(shown);
    for (const { line, spans, urn } of urns) {
      const chosen = drawFrom(random, urn);
      if (chosen < 0) continue;
      const span = spans[chosen - codes.length];
      return span === undefined ? (codes[chosen] as number) : line.at(uniformInt(random, span.from, span.to));
    }
    throw new RangeError('a line of no length');
  };
}

function drawOrder(
  random: RandomGenerator,
  { options, top }: Extract<Answer, { type: 'rank' }>,
  shown: Shown | null,
): Value | null {
  const fit = options.filter((option, o) => (shown?.[o] ?? true) && option.missing === undefined);
  const codes = [...new Set(fit.map(({ code }) => code))];
  for (let place = 0; place < codes.length; place += 1) {
    const from = uniformInt(random, place, codes.length - 1);
    [codes[place], codes[from]] = [codes[from] as number, codes[place] as number];
  }
  const places = codes.slice(0, top ?? codes.length);
  return places.length === 0 ? null : places;
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
