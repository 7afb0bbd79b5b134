/**
 * Assumed answers: how likely each answer to a question is thought to be, for simulation and shares.
 *
 * What `assume` leaves open is even: options that are not listed share what is left (a don't-know and the like only
 * where it is listed), numbers and dates are even over their limits or ranges, each pick of a `multiple` has one
 * chance in two within the limits of picks, ranks come in random order, and nothing is blank.
 */
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import type { RandomGenerator } from 'pure-rand/types/RandomGenerator';
import { optionsOf } from '../document/shape';
import type { Answer, Assume, DateAnswer, MultipleAnswer, Option, Value } from '../document/types';
import { pickLimits, type Shown } from './answers';

/** One answer by chance; null for a blank, which a required question never gets. */
export function drawAnswer(
  random: RandomGenerator,
  { answer, assume = {}, required }: { answer: Answer; assume?: Assume; required?: boolean },
  shown: Shown,
  textFor: (answer: Answer & { type: 'text' }) => string,
): Value | null {
  if (!required && assume.blank !== undefined && uniformFloat64(random) < assume.blank) return null;
  switch (answer.type) {
    case 'single': {
      const options = answer.options.filter((_, o) => shown.options[o]);
      return pickWeighted(random, options, codeWeights(options, assume))?.code ?? null;
    }
    case 'multiple':
      return drawPicks(random, answer, assume, shown);
    case 'rank': {
      const options = answer.options.filter((option, o) => shown.options[o] && option.missing === undefined);
      const codes = options.map(({ code }) => code);
      for (let place = 0; place < codes.length; place += 1) {
        const from = uniformInt(random, place, codes.length - 1);
        [codes[place], codes[from]] = [codes[from] as number, codes[place] as number];
      }
      const places = codes.slice(0, answer.top ?? codes.length);
      return places.length === 0 ? null : places;
    }
    case 'scale':
    case 'number':
    case 'date':
    case 'time':
    case 'datetime':
      return drawOnLine(random, answer, assume, shown);
    case 'text':
      return textFor(answer);
    case 'grid':
      return null;
    default:
      return answer satisfies never;
  }
}

/** How likely each option is, in no particular unit: listed shares, and what is left evenly among the others. */
export function codeWeights(options: readonly Option[], { shares = {} }: Assume): number[] {
  const listed = options.map(({ code }) => shares[String(code)]);
  const sum = listed.reduce<number>((total, share) => total + (share ?? 0), 0);
  const others = options.filter(
    (option, o) => listed[o] === undefined && option.missing === undefined,
  ).length;
  const rest = others === 0 ? 0 : Math.max(0, 1 - sum) / others;
  const weights = options.map(({ missing }, o) => listed[o] ?? (missing === undefined ? rest : 0));
  return weights.some((weight) => weight > 0) ? weights : options.map(() => 1);
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
 * Picks, each with its own chance, given that they are allowed together: an exclusive one stands alone, the others
 * keep to the limits. How many there are is drawn first, then which (Chen, Dempster and Liu, "Weighted finite
 * population sampling to maximize entropy", 1994).
 */
function drawPicks(
  random: RandomGenerator,
  answer: MultipleAnswer,
  assume: Assume,
  shown: Shown,
): Value | null {
  const options = answer.options.filter((_, o) => shown.options[o]);
  const chance = ({ code, missing }: Option) =>
    assume.shares?.[String(code)] ?? (missing === undefined ? 0.5 : 0);
  const ordinary = options.filter((option) => !option.exclusive && option.missing === undefined);
  const alone = options.filter((option) => option.exclusive || option.missing !== undefined);
  const tables = pickTables(ordinary.map(chance));
  const noneAlone = alone.reduce((product, option) => product * (1 - chance(option)), 1);
  const noOrdinary = tables[0]?.[0] ?? 1;
  const { least, most } = pickLimits(answer, shown);
  const counts = Array.from({ length: ordinary.length + 1 }, (_, count) =>
    count > 0 && count >= least && count <= most ? (tables[0]?.[count] ?? 0) * noneAlone : 0,
  );
  const aloneWeights = alone.map((option) => {
    const own = chance(option);
    return own === 1 ? noOrdinary : (own / (1 - own)) * noneAlone * noOrdinary;
  });
  const total = [...counts, ...aloneWeights].reduce((sum, weight) => sum + weight, 0);
  if (total === 0) {
    const some = ordinary.slice(0, Math.max(1, least)).map(({ code }) => code);
    return some.length > 0 ? some : alone[0] === undefined ? null : [alone[0].code];
  }
  const choice = pickWeighted(
    random,
    [...counts.keys(), ...alone.keys()].map((index, n) => ({ index, alone: n > ordinary.length })),
    [...counts, ...aloneWeights],
  );
  if (choice === undefined) return null;
  if (choice.alone) return [(alone[choice.index] as Option).code];
  let left = choice.index;
  const picked: number[] = [];
  ordinary.forEach((option, o) => {
    const all = tables[o]?.[left] ?? 0;
    const withIt = left === 0 ? 0 : chance(option) * (tables[o + 1]?.[left - 1] ?? 0);
    if (uniformFloat64(random) * all >= withIt) return;
    picked.push(option.code);
    left -= 1;
  });
  return picked;
}

/** By position and count: the chance that the options from there on make just so many picks. */
function pickTables(chances: readonly number[]): number[][] {
  const tables: number[][] = [[1]];
  for (const chance of [...chances].reverse()) {
    const after = tables[0] as number[];
    tables.unshift(
      Array.from(
        { length: after.length + 1 },
        (_, count) => (1 - chance) * (after[count] ?? 0) + chance * (after[count - 1] ?? 0),
      ),
    );
  }
  return tables;
}

type LineAnswer = Extract<Answer, { type: 'scale' | 'number' }> | DateAnswer;

/** Whole steps from an origin, which is how values on a line are counted. */
interface Line {
  readonly first: number;
  readonly last: number;
  at(step: number): number | string;
  stepOf(value: number | string): number;
}

function drawOnLine(random: RandomGenerator, answer: LineAnswer, assume: Assume, shown: Shown): Value {
  const line = lineOf(answer);
  const specials = optionsOf(answer).filter((_, o) => shown.options[o]);
  const special = specials.map(({ code }) => assume.shares?.[String(code)] ?? 0);
  const marks = Object.entries(assume.shares ?? {}).flatMap(([text, share]) => {
    const value = answer.type === 'scale' || answer.type === 'number' ? Number(text) : text;
    const isSpecial = optionsOf(answer).some(({ code }) => String(code) === text);
    return isSpecial ? [] : [{ from: line.stepOf(value), to: line.stepOf(value), share }];
  });
  const ranges = (assume.ranges ?? []).map(({ from, to, share }) => ({
    from: Math.max(line.first, Math.ceil(line.stepOf(from) - 1e-9)),
    to: Math.min(line.last, Math.floor(line.stepOf(to) + 1e-9)),
    share,
  }));
  const spans = [...marks, ...ranges].filter(({ from, to }) => from <= to);
  const said = [...special, ...spans.map(({ share }) => share)].reduce((sum, share) => sum + share, 0);
  // Marks of a scale that are not listed share the rest; given ranges are all there is.
  const rest = assume.ranges === undefined ? Math.max(0, 1 - said) : said === 0 ? 1 : 0;
  const whole = { from: line.first, to: line.last, share: rest };
  const chosen = pickWeighted(
    random,
    [...specials, ...spans, whole],
    [...special, ...spans.map(({ share }) => share), rest],
  );
  if (chosen !== undefined && 'code' in chosen) return chosen.code;
  const { from, to } = chosen ?? whole;
  for (;;) {
    const step = uniformInt(random, from, to);
    const listed = chosen === whole && marks.some((mark) => mark.from === step);
    if (!listed || marks.length > to - from) return line.at(step);
  }
}

const WIDEST = {
  date: ['1950-01-01', '2030-12-31'],
  time: ['00:00', '23:59'],
  datetime: ['2020-01-01T00:00', '2030-12-31T23:59'],
} as const;

/** Numbers in steps of their grid; dates in days, times in minutes. */
function lineOf(answer: LineAnswer): Line {
  if (answer.type === 'scale' || answer.type === 'number') {
    const scale = answer.type === 'scale';
    const step = scale ? (answer.step ?? 1) : 10 ** -(answer.decimals ?? 0);
    const origin = scale ? answer.min : 0;
    return {
      first: Math.ceil((answer.min - origin) / step - 1e-9),
      last: Math.floor((answer.max - origin) / step + 1e-9),
      at: (at) => Number((origin + at * step).toFixed(9)),
      stepOf: (value) => (Number(value) - origin) / step,
    };
  }
  const { type } = answer;
  const unit = type === 'date' ? 86_400_000 : 60_000;
  const instant = (text: string) =>
    Date.parse(type === 'time' ? `2000-01-01T${text}Z` : type === 'date' ? `${text}T00:00Z` : `${text}Z`);
  const [low, high] = [answer.min ?? WIDEST[type][0], answer.max ?? WIDEST[type][1]];
  return {
    first: Math.ceil(instant(low < high ? low : high) / unit),
    last: Math.floor(instant(high) / unit),
    at: (at) => {
      const iso = new Date(at * unit).toISOString();
      return type === 'date' ? iso.slice(0, 10) : type === 'time' ? iso.slice(11, 16) : iso.slice(0, 16);
    },
    stepOf: (value) => instant(String(value)) / unit,
  };
}
