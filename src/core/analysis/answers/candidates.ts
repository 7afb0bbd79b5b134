/**
 * Values to try for a driver: at least one of every class that its tests tell apart, plausible ones first.
 *
 * Legality in the situation (hidden options, pick limits) is left to `routing/answers.ts`.
 */
import type { Literal, Operand } from '../../condition/syntax';
import { isNumeric, stepsOf, type NumericAnswer } from '../../document/answer-types';
import { normalDate } from '../../document/dates';
import { optionsOf } from '../../document/shape';
import type { Answer, Option, Value } from '../../document/types';
import { variableAnswer } from '../../routing/answers';
import type { Driver } from './drivers';

/** More values than this are not tried. */
const MOST = 20_000;

export interface Candidates {
  /** Null stands for a blank. */
  readonly values: readonly (Value | null)[];
  /** Why some class may lack a value; null where none can. */
  readonly incomplete: string | null;
}

/** In the order in which they are to be tried. */
export function candidatesFor(driver: Driver, answer: Answer): Candidates {
  switch (answer.type) {
    case 'single':
      return complete([...ordinaryFirst(answer.options).map(({ code }) => code), null]);
    case 'multiple':
      return picks(driver, answer.options, answer.options.length);
    case 'rank':
      return picks(driver, answer.options, answer.top ?? answer.options.length);
    case 'grid':
      return complete([null]);
    case 'scale':
    case 'number':
      return numbers(driver, answer);
    case 'text':
      return texts(driver, answer);
    case 'date':
    case 'time':
    case 'datetime':
      return moments(driver, answer);
    default:
      return answer satisfies never;
  }
}

/**
 * The values at which a test of a driver can change, ascending: numbers, or moments as they are compared. Every value
 * that a condition names, and for what repeats a section each number of passes.
 */
export function cutsOf(driver: Driver, answer: Answer): (number | string)[] {
  const passes = Array.from({ length: driver.repeats > 0 ? driver.repeats + 1 : 0 }, (_, n) => n + 1);
  const isNumber = isNumeric(answer);
  const found: (number | string)[] = isNumber
    ? [...numbersIn(driver), ...passes]
    : literalsOf(driver).flatMap((literal) =>
        literal.kind === answer.type ? [normalDate(literal.value)] : [],
      );
  return [...new Set(found)].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
}

function complete(values: readonly (Value | null)[]): Candidates {
  return { values, incomplete: null };
}

function ordinaryFirst(options: readonly Option[]): Option[] {
  const rank = (option: Option) =>
    option.missing !== undefined ? 2 : option.exclusive || option.specify ? 1 : 0;
  return [...options].sort((a, b) => rank(a) - rank(b));
}

/** Options that can be picked together: those that tests or rules tell apart, and the others; and those that cannot. */
export function optionsApart(driver: Driver, options: readonly Option[]) {
  const tested = new Set<number>();
  for (const atom of driver.atoms) {
    if (atom.kind !== 'has') continue;
    for (const value of atom.values) if (value.kind === 'number') tested.add(value.value);
  }
  const alone = options.filter((option) => option.exclusive || option.missing !== undefined);
  const ordinary = options.filter((option) => !alone.includes(option));
  const apart = (option: Option) =>
    tested.has(option.code) || option.askIf !== undefined || driver.repeats > 0 || driver.keepAll;
  return { alone, told: ordinary.filter(apart), others: ordinary.filter((option) => !apart(option)) };
}

/** Subsets of the options that are told apart, with any number of the others. */
function picks(driver: Driver, options: readonly Option[], most: number): Candidates {
  const { alone, told, others } = optionsApart(driver, options);
  const ordinary = options.filter((option) => !alone.includes(option));
  const values: (Value | null)[] = [];
  const cost = 2 ** told.length * (others.length + 1);
  if (cost > MOST) {
    return {
      values: [[...ordinary.map(({ code }) => code)], null],
      incomplete: `${told.length} options of “${driver.variable.name}” are tested one by one, which makes 2^${told.length} sets of picks`,
    };
  }
  for (let mask = 0; mask < 2 ** told.length; mask += 1) {
    const chosen = told.filter((_, bit) => mask & (1 << bit)).map(({ code }) => code);
    for (let more = 0; more <= others.length; more += 1) {
      const set = [...chosen, ...others.slice(0, more).map(({ code }) => code)];
      if (set.length > 0 && set.length <= most) values.push(inOptionOrder(options, set));
    }
  }
  values.sort((a, b) => (a as number[]).length - (b as number[]).length);
  for (const option of alone) values.push([option.code]);
  values.push(null);
  return complete(values);
}

function inOptionOrder(options: readonly Option[], codes: readonly number[]): number[] {
  return options.map(({ code }) => code).filter((code) => codes.includes(code));
}

function numbers(driver: Driver, answer: NumericAnswer): Candidates {
  const { from: origin, step } = stepsOf(answer);
  const steps = (value: number) => (value - origin) / step;
  const first = Math.ceil(steps(answer.min) - 1e-9);
  const last = Math.floor(steps(answer.max) + 1e-9);
  const marks = new Set<number>();
  let incomplete: string | null = null;
  if (driver.keepAll && last - first < MOST / 20) {
    for (let mark = first; mark <= last; mark += 1) marks.add(mark);
  } else {
    if (driver.keepAll)
      incomplete = `“${driver.variable.name}” has ${last - first + 1} values, each of which may matter to a comparison with another answer`;
    marks
      .add(first)
      .add(last)
      .add(Math.round((first + last) / 2));
    const order = valuesInOrder(driver, answer);
    incomplete ??= order.incomplete;
    for (const value of [...numbersIn(driver), ...order.values]) {
      const mark = steps(value);
      for (const near of [Math.floor(mark) - 1, Math.floor(mark), Math.ceil(mark), Math.ceil(mark) + 1])
        marks.add(near);
    }
    for (let times = 0; driver.repeats > 0 && times <= driver.repeats + 1; times += 1)
      marks.add(Math.round(steps(times)));
  }
  const middle = (first + last) / 2;
  const values = [...marks]
    .filter((mark) => mark >= first && mark <= last)
    .sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle))
    .map((mark) => Number((origin + mark * step).toFixed(9)));
  return { values: [...values, ...optionsOf(answer).map(({ code }) => code), null], incomplete };
}

function numbersIn(driver: Driver): number[] {
  const literals = literalsOf(driver).flatMap((literal) =>
    literal.kind === 'number' ? [literal.value] : [],
  );
  return [...literals, ...driver.boundaries];
}

function texts(driver: Driver, answer: Extract<Answer, { type: 'text' }>): Candidates {
  const written = literalsOf(driver).flatMap((literal) => (literal.kind === 'text' ? [literal.value] : []));
  const others = plausibleTexts(answer).filter((text) => !written.includes(text));
  if (driver.group.length <= 1) return complete([...others, ...written, null]);
  // Compared with others: all that are named, and as many more as there are to differ from each other.
  const group = driver.group.flatMap((other) =>
    literalsOf(other).flatMap((literal) => (literal.kind === 'text' ? [literal.value] : [])),
  );
  const copies = driver.group.reduce((sum, other) => sum + other.copies, 0);
  const letters = Array.from({ length: copies }, (_, n) => String.fromCharCode(97 + n));
  const { pattern = 'none', minLength = 0, maxLength = Infinity } = answer;
  const free = pattern === 'none' && minLength <= 1 && maxLength >= 1 && copies <= 20;
  return {
    values: [...new Set([...others, ...letters, ...group]), null],
    incomplete: free ? null : `“${driver.variable.name}” is a free text compared with another answer`,
  };
}

/** Texts that the pattern and length limits allow, none of them likely to be one that a condition names. */
export function plausibleTexts(answer: Extract<Answer, { type: 'text' }>): string[] {
  const { pattern, minLength = 0, maxLength = Infinity } = answer;
  const samples =
    pattern === 'email'
      ? ['someone@example.org', 'a@b.cc']
      : pattern === 'phone'
        ? ['01632 960 001', '01632']
        : pattern === 'url'
          ? ['https://example.org', 'http://b.cc']
          : ['An answer in words', 'Words', 'x'];
  const fitting = samples.map((text) =>
    text.length < minLength ? text.padEnd(minLength, pattern === 'phone' ? '0' : 'x') : text,
  );
  return fitting.filter((text) => text.length <= maxLength);
}

function moments(
  driver: Driver,
  answer: Extract<Answer, { type: 'date' | 'time' | 'datetime' }>,
): Candidates {
  const written = literalsOf(driver).flatMap((literal) =>
    literal.kind === answer.type ? [literal.value] : [],
  );
  const ends = [answer.min, answer.max].filter((end) => end !== undefined);
  const middle = plausibleMoment(answer);
  const near = [...written, ...ends].flatMap((text) => [text, ...neighbours(answer.type, text)]);
  const order = momentsInOrder(driver, answer.type);
  const values = [middle, ...near, ...order].filter((text, index, all) => all.indexOf(text) === index);
  const incomplete = driver.keepAll
    ? `“${driver.variable.name}” is a ${answer.type} of which every value counts`
    : null;
  return { values: [...values, ...optionsOf(answer).map(({ code }) => code), null], incomplete };
}

/** Gaps with more values than this are not gone through one by one. */
const MOST_IN_A_GAP = 2000;

/**
 * For numbers that are compared with each other, besides what conditions name: in every gap between those as many
 * values that all of them can have as there are numbers, so that they can stand in any order there.
 */
function valuesInOrder(driver: Driver, own: NumericAnswer): { values: number[]; incomplete: string | null } {
  const { group } = driver;
  if (group.length <= 1) return { values: [], incomplete: null };
  const answers = group.map(({ variable }) => driverAnswer(variable));
  const grids = answers.map((answer) => (isNumeric(answer) ? stepsOf(answer) : { step: 1, from: 0 }));
  const marks = new Set<number>(group.flatMap(numbersIn));
  for (const answer of answers) {
    if (isNumeric(answer)) marks.add(answer.min).add(answer.max);
    else for (const { code } of optionsOf(answer)) marks.add(code);
  }
  const sorted = [...marks].sort((a, b) => a - b);
  const wanted = group.reduce((sum, { copies }) => sum + copies, 0);
  const coarse = grids.reduce((a, b) => (b.step > a.step ? b : a));
  const onAll = (value: number) =>
    grids.every(
      ({ step, from }) => Math.abs((value - from) / step - Math.round((value - from) / step)) < 1e-6,
    );
  const { step: ownStep } = grids[group.indexOf(driver)] ?? { step: 1 };
  const values: number[] = [...sorted];
  let incomplete: string | null = null;
  sorted.slice(0, -1).forEach((from, n) => {
    const to = sorted[n + 1] as number;
    const found: number[] = [];
    const first = Math.floor((from - coarse.from) / coarse.step) + 1;
    for (let at = first; found.length < wanted && at - first < MOST_IN_A_GAP; at += 1) {
      const value = Number((coarse.from + at * coarse.step).toFixed(9));
      if (value >= to) break;
      if (value > from && onAll(value)) found.push(value);
    }
    if (found.length === wanted) values.push(...found);
    else if ((to - from) / ownStep <= MOST_IN_A_GAP) {
      const start = stepsOf(own).from;
      for (let at = Math.ceil((from - start) / ownStep); start + at * ownStep <= to; at += 1)
        values.push(Number((start + at * ownStep).toFixed(9)));
    } else incomplete = `“${driver.variable.name}” is compared with numbers in other steps than its own`;
  });
  return { values, incomplete };
}

function momentsInOrder({ group }: Driver, type: 'date' | 'time' | 'datetime'): string[] {
  if (group.length <= 1) return [];
  const marks = new Set<number>();
  for (const driver of group) {
    const answer = driverAnswer(driver.variable);
    const ends = answer.type === type ? [answer.min, answer.max].filter((end) => end !== undefined) : [];
    for (const literal of literalsOf(driver)) if (literal.kind === type) ends.push(literal.value);
    for (const text of ends) marks.add(instant(type, text));
  }
  const wanted = group.reduce((sum, { copies }) => sum + copies, 0);
  const day = 86_400_000;
  if (marks.size === 0) marks.add(instant(type, plausibleMoment({ type })));
  const sorted = [...marks].sort((a, b) => a - b);
  const [least = 0, most = 0] = [sorted[0], sorted.at(-1)];
  const ends =
    type === 'time'
      ? ['00:00', '23:59:59'].map((text) => instant(type, text))
      : [least - 400 * day, most + 400 * day];
  const bounds = [...new Set([...ends, ...sorted])].sort((a, b) => a - b);
  const found = [...bounds];
  bounds.slice(0, -1).forEach((from, n) => {
    const to = bounds[n + 1] as number;
    // The longest of a day, an hour, a minute and a second of which enough fit in.
    const fits = [day, day / 24, 60_000, 1000].find((unit) => (to - from) / unit > wanted + 1) ?? 1000;
    const unit = type === 'date' ? day : fits;
    for (let k = 1; k <= wanted; k += 1) {
      const at = Math.floor(from / unit) * unit + k * unit;
      if (at > from && at < to) found.push(at);
    }
  });
  return found.map((at) => written(type, at));
}

function driverAnswer(variable: Driver['variable']): Answer {
  const answer = variableAnswer(variable);
  if (answer === null) throw new TypeError(`${variable.name} is derived, and no driver`);
  return answer;
}

/** A date, time or datetime in the middle of the limits. */
export function plausibleMoment({
  type,
  min,
  max,
}: Extract<Answer, { type: 'date' | 'time' | 'datetime' }>): string {
  const widest = {
    date: ['2024-01-01', '2026-12-31'],
    time: ['00:00', '23:59'],
    datetime: ['2024-01-01T00:00', '2026-12-31T23:59'],
  } as const;
  const [from, to] = [
    min ?? (max === undefined ? widest[type][0] : max),
    max ?? (min === undefined ? widest[type][1] : min),
  ];
  const middle = (instant(type, from) + instant(type, to)) / 2;
  const step = type === 'date' ? 86_400_000 : 60_000;
  const rounded = written(type, Math.floor(middle / step) * step);
  return rounded < from ? from : rounded;
}

function neighbours(type: 'date' | 'time' | 'datetime', text: string): string[] {
  const step = type === 'date' ? 86_400_000 : 1000;
  const at = instant(type, text);
  return [at - step, at + step]
    .map((near) => written(type, near))
    .filter((near) => type !== 'time' || near.length > 0);
}

function instant(type: 'date' | 'time' | 'datetime', text: string): number {
  return Date.parse(
    type === 'time' ? `2000-01-01T${text}Z` : type === 'date' ? `${text}T00:00Z` : `${text}Z`,
  );
}

function written(type: 'date' | 'time' | 'datetime', at: number): string {
  const iso = new Date(at).toISOString();
  const seconds = iso.slice(17, 19) === '00' ? 16 : 19;
  return type === 'date'
    ? iso.slice(0, 10)
    : type === 'time'
      ? iso.slice(11, seconds)
      : iso.slice(0, seconds);
}

function literalsOf(driver: Driver): Literal[] {
  const found: Literal[] = [];
  const operand = (node: Operand) => {
    if ('value' in node) found.push(node);
  };
  for (const atom of driver.atoms) {
    switch (atom.kind) {
      case 'compare':
        operand(atom.left);
        operand(atom.right);
        break;
      case 'in':
        for (const member of atom.members) {
          if (member.kind === 'range') found.push(member.from, member.to);
          else found.push(member);
        }
        break;
      case 'has':
        found.push(...atom.values);
        break;
      case 'state':
        break;
      default:
        atom satisfies never;
    }
  }
  return found;
}
