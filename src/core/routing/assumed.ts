/**
 * Assumed answers: how likely each answer to a question is thought to be, for shares and simulation.
 *
 * What `assume` leaves open is even: options that are not listed share what is left (a don't-know and the like only
 * where it is listed), numbers and dates are even over their limits or ranges, each pick of a `multiple` has one
 * chance in two within the limits of picks, ranks come in random order, and nothing is blank. Where not all can be
 * answered (hidden options, limits, hard checks), what is left keeps its proportions.
 */
import { isNumeric, isWhole, stepsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Assume, AssumedShares, DateAnswer, MultipleAnswer, Option } from '../document/types';
import { pickLimits } from './answers';

/** What is assumed of those alone of whom other shares are assumed, by their index; of all the rest with null. */
export function assumedAmong(assume: Assume, where: number | null): AssumedShares {
  return (where === null ? undefined : assume.where?.[where]) ?? assume;
}

/** Other shares are assumed of those alone, or of all the rest; `where` as for `assumedAmong`. */
export function assumingAmong(assume: Assume, where: number | null, shares: AssumedShares): Assume {
  const { source, where: others } = assume;
  const kept = {
    ...(source === undefined ? {} : { source }),
    ...(others === undefined ? {} : { where: others }),
  };
  if (where === null) return { ...shares, ...kept };
  return { ...assume, where: (others ?? []).map((of, n) => (n === where ? { ...shares, if: of.if } : of)) };
}

/** How likely each option of a single is, in no particular unit: listed shares, the rest evenly among the others. */
export function codeWeights(options: readonly Option[], { shares = {} }: AssumedShares): number[] {
  const listed = options.map(({ code }) => shares[String(code)]);
  const sum = listed.reduce<number>((total, share) => total + (share ?? 0), 0);
  const others = options.filter((option, o) => listed[o] === undefined && option.missing === undefined);
  const rest = others.length === 0 ? 0 : Math.max(0, 1 - sum) / others.length;
  return options.map(({ missing }, o) => listed[o] ?? (missing === undefined ? rest : 0));
}

/** The chance of each pick of a `multiple`, before limits and exclusive ones are minded. */
export function pickChances(options: readonly Option[], { shares = {} }: AssumedShares): number[] {
  return options.map(({ code, missing }) => shares[String(code)] ?? (missing === undefined ? 0.5 : 0));
}

/** By position and count: the chance that the options from there on make just so many picks. */
export function pickTables(chances: readonly number[]): number[][] {
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

/** What can be picked together: so many of the ordinary options, or one that stands alone. */
export interface PickWeights {
  readonly ordinary: readonly Option[];
  readonly alone: readonly Option[];
  /** By number of ordinary picks, of which there is at least one. */
  readonly counts: readonly number[];
  /** Parallel to `alone`. */
  readonly aloneWeights: readonly number[];
  /** As `pickTables` gives them for `ordinary`. */
  readonly tables: readonly (readonly number[])[];
  readonly chances: readonly number[];
}

/** Of the options shown, each picked with its own chance, given that they are allowed together. */
export function pickWeights(
  options: readonly Option[],
  limits: { readonly least: number; readonly most: number },
  assume: AssumedShares,
): PickWeights {
  const isAlone = (option: Option) => option.exclusive === true || option.missing !== undefined;
  const ordinary = options.filter((option) => !isAlone(option));
  const alone = options.filter(isAlone);
  const chances = pickChances(ordinary, assume);
  const aloneChances = pickChances(alone, assume);
  const tables = pickTables(chances);
  const noneAlone = aloneChances.reduce((product, chance) => product * (1 - chance), 1);
  const noOrdinary = tables[0]?.[0] ?? 1;
  return {
    ordinary,
    alone,
    counts: Array.from({ length: ordinary.length + 1 }, (_, count) =>
      count > 0 && count >= limits.least && count <= limits.most ? (tables[0]?.[count] ?? 0) * noneAlone : 0,
    ),
    aloneWeights: aloneChances.map(
      (chance, n) =>
        chance *
        noOrdinary *
        aloneChances.reduce((product, other, m) => (m === n ? product : product * (1 - other)), 1),
    ),
    tables,
    chances,
  };
}

/** How many options are picked on average, all of them shown. */
export function expectedPicks(answer: MultipleAnswer, assume: AssumedShares = {}): number {
  const { total, picks } = weighedPicks(answer, assume);
  return total === 0 ? 1 : picks / total;
}

/** How fast that changes on the way from one assumption to another, of one pick that has another chance; the way being 1 long. */
export function slopeOfPicks(answer: MultipleAnswer, from: AssumedShares, toward: AssumedShares): number {
  const [here, there] = [weighedPicks(answer, from), weighedPicks(answer, toward)];
  // Both are linear in the chance of one pick.
  return here.total === 0
    ? 0
    : ((there.picks - here.picks) * here.total - here.picks * (there.total - here.total)) / here.total ** 2;
}

/** Picks with their weights, and all weights, in no particular unit. */
function weighedPicks(answer: MultipleAnswer, assume: AssumedShares): { total: number; picks: number } {
  const all = { options: answer.options.map(() => true), rows: [] };
  const { counts, aloneWeights } = pickWeights(answer.options, pickLimits(answer, all), assume);
  const alone = aloneWeights.reduce((sum, weight) => sum + weight, 0);
  return {
    total: counts.reduce((sum, weight) => sum + weight, alone),
    picks: counts.reduce((sum, weight, count) => sum + weight * count, alone),
  };
}

export type LineAnswer = Extract<Answer, { type: 'scale' | 'number' }> | DateAnswer;

/** Whole steps from an origin, which is how values on a line are counted. */
export interface ValueLine {
  readonly first: number;
  readonly last: number;
  at(step: number): number | string;
  stepOf(value: number | string): number;
}

/** Steps from one to another, both included, that share a weight evenly. */
export interface SharedSteps {
  readonly from: number;
  readonly to: number;
  readonly share: number;
}

export interface LineWeights {
  readonly line: ValueLine;
  readonly spans: readonly SharedSteps[];
  /** Parallel to the specials. */
  readonly specials: readonly number[];
}

/** Of numbers, scales and dates. Listed values and ranges have their shares; the rest is even over what is left. */
export function lineWeights(answer: LineAnswer, assume: AssumedShares): LineWeights {
  const line = lineOf(answer);
  const options = optionsOf(answer);
  const specials = options.map(({ code }) => assume.shares?.[String(code)] ?? 0);
  const marks = Object.entries(assume.shares ?? {}).flatMap(([text, share]): SharedSteps[] => {
    if (options.some(({ code }) => String(code) === text)) return [];
    const step = line.stepOf(isNumeric(answer) ? Number(text) : text);
    return step >= line.first && step <= line.last ? [{ from: step, to: step, share }] : [];
  });
  const ranges = (assume.ranges ?? []).map(({ from, to, share }): SharedSteps => ({
    from: Math.max(line.first, Math.ceil(line.stepOf(from) - 1e-9)),
    to: Math.min(line.last, Math.floor(line.stepOf(to) + 1e-9)),
    share,
  }));
  const spans = [...marks, ...ranges].filter(({ from, to }) => from <= to);
  const said = [...specials, ...spans.map(({ share }) => share)].reduce((sum, share) => sum + share, 0);
  // Marks that are not listed share the rest; given ranges are all there is.
  const rest = assume.ranges === undefined ? Math.max(0, 1 - said) : said === 0 ? 1 : 0;
  return { line, spans: rest === 0 ? spans : [...spans, ...between(line, marks, rest)], specials };
}

/** What of a line lies between some marks, sharing a weight evenly. */
function between(line: ValueLine, marks: readonly SharedSteps[], share: number): SharedSteps[] {
  const steps = [...marks.map(({ from }) => from).sort((a, b) => a - b), line.last + 1];
  const gaps: { from: number; to: number }[] = [];
  let from = line.first;
  for (const step of steps) {
    if (from < step) gaps.push({ from, to: step - 1 });
    from = Math.max(from, step + 1);
  }
  const length = gaps.reduce((sum, gap) => sum + gap.to - gap.from + 1, 0);
  return gaps.map((gap) => ({ ...gap, share: (share * (gap.to - gap.from + 1)) / length }));
}

const WIDEST = {
  date: ['1950-01-01', '2030-12-31'],
  time: ['00:00', '23:59'],
  datetime: ['2020-01-01T00:00', '2030-12-31T23:59'],
} as const;

/** Numbers in steps of their grid; dates in days, times in minutes. */
export function lineOf(answer: LineAnswer): ValueLine {
  if (isNumeric(answer)) {
    const { from: origin, step } = stepsOf(answer);
    return {
      first: Math.ceil((answer.min - origin) / step - 1e-9),
      last: Math.floor((answer.max - origin) / step + 1e-9),
      // Whole numbers have no binary noise to take off.
      at: isWhole(answer) ? (at) => origin + at * step : (at) => Number((origin + at * step).toFixed(9)),
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
    at: remembered((at) => {
      const iso = new Date(at * unit).toISOString();
      return type === 'date' ? iso.slice(0, 10) : type === 'time' ? iso.slice(11, 16) : iso.slice(0, 16);
    }),
    stepOf: (value) => instant(String(value)) / unit,
  };
}

/** Values of a line that are kept: a few years of days, a day of minutes. */
const MOST_KEPT = 4000;

/** The same by number, without working it out each time. */
function remembered(valueAt: (at: number) => string): (at: number) => string {
  const known = new Map<number, string>();
  return (at) => {
    let value = known.get(at);
    if (value === undefined) {
      value = valueAt(at);
      if (known.size < MOST_KEPT) known.set(at, value);
    }
    return value;
  };
}
