/**
 * Ways to say which values of a number, scale, date or time are meant, in the values that the author wrote.
 *
 * The values that conditions name (cuts) part the line into classes: each cut, and what lies between two of them. No
 * test tells two values of a class apart, so a class is written by its cuts, never by a value that stands for it.
 */
import type { Reading } from '../../condition/evaluate';
import { printNumber } from '../../condition/print';
import { isNumeric, isWhole, stepsOf } from '../../document/answer-types';
import { normalDate } from '../../document/dates';
import type { Answer } from '../../document/types';
import { cutsOf } from '../answers/candidates';
import type { Driver } from '../answers/drivers';

type Plain = number | string;

/** A class of values that somebody can have: a cut, or what lies between two. */
interface Class {
  /** Twice the number of cuts below, and one more for a cut itself. */
  readonly key: number;
  readonly is: 'in' | 'out' | 'free';
}

/** Consecutive classes, as indices. */
type Run = readonly [from: number, to: number];

export class NumberLine {
  private readonly cuts: readonly Plain[];
  private readonly classes: readonly Class[];
  /** Of whole numbers: their step and least value; null where values lie close together. */
  private readonly grid: { readonly step: number; readonly from: number } | null;

  /** `wanted` and `may` are parallel to the readings; readings without a value are left out. */
  constructor(
    private readonly name: string,
    driver: Driver,
    private readonly answer: Answer,
    readings: readonly Reading[],
    wanted: readonly boolean[],
    may: readonly boolean[],
  ) {
    this.grid = gridOf(answer);
    const plain = readings.map(({ value, missing }) =>
      missing || value === null || typeof value === 'object' ? null : value,
    );
    const cuts = cutsOf(driver, answer);
    const known = this.classesBy(cuts, plain, wanted, may);
    // Where every value counts, each is a cut.
    const every = [...new Set([...cuts, ...plain.filter((value) => value !== null)])].sort(ascending);
    this.cuts = known === null ? every : cuts;
    this.classes = known ?? this.classesBy(every, plain, wanted, may) ?? [];
  }

  private classesBy(
    cuts: readonly Plain[],
    plain: readonly (Plain | null)[],
    wanted: readonly boolean[],
    may: readonly boolean[],
  ): Class[] | null {
    const found = new Map<number, Class['is']>();
    for (const [n, value] of plain.entries()) {
      if (value === null) continue;
      const below = cuts.filter((cut) => cut < value).length;
      const key = 2 * below + (cuts[below] === value ? 1 : 0);
      const is = !may[n] ? 'free' : wanted[n] ? 'in' : 'out';
      const before = found.get(key) ?? 'free';
      if (before !== 'free' && is !== 'free' && before !== is) return null;
      found.set(key, is === 'free' ? before : is);
    }
    return [...found].map(([key, is]) => ({ key, is })).sort((a, b) => a.key - b.key);
  }

  /** Texts that hold for the wanted values, with these codes of specials too; none where there is nothing to say. */
  positive(codes: readonly number[]): string[] {
    const runs = this.runs('in');
    const special =
      codes.length === 0
        ? []
        : [codes.length === 1 ? `${this.name} = ${codes[0]}` : `${this.name} in (${codes.join(', ')})`];
    const listed = this.listed(runs, codes.map(String));
    const parts = [...runs.map((run) => this.run(run)), ...special];
    return [...(listed === null ? [] : [listed]), ...(parts.length > 0 ? [parts.join(' or ')] : [])];
  }

  /** Texts that fail for the values that are not wanted, and for whoever has no value. */
  negative(codes: readonly number[]): string[] {
    const listed = this.listed(this.runs('out'), codes.map(String));
    if (listed === null) return [];
    return [listed.replace(/ = /, ' <> ').replace(' in (', ' not in (')];
  }

  /** Texts for the values that are not wanted, to be denied. */
  opposite(codes: readonly number[]): string[] {
    const listed = this.listed(this.runs('out'), codes.map(String));
    const runs = this.runs('out');
    const [only] = runs;
    return [
      ...(listed === null ? [] : [listed]),
      ...(runs.length === 1 && only !== undefined && codes.length === 0 ? [this.run(only)] : []),
    ];
  }

  /** As few stretches as can be: what nobody can have joins those beside it. */
  private runs(of: 'in' | 'out'): Run[] {
    const runs: [number, number][] = [];
    let open = true;
    this.classes.forEach(({ is }, index) => {
      if (is === of) {
        const last = runs.at(-1);
        if (last !== undefined && open) last[1] = index;
        else runs.push([runs.length === 0 && open ? 0 : index, index]);
        open = true;
      } else if (is !== 'free') open = false;
    });
    const last = runs.at(-1);
    if (last !== undefined && this.classes.slice(last[1] + 1).every(({ is }) => is === 'free'))
      last[1] = this.classes.length - 1;
    return runs;
  }

  private run([from, to]: Run): string {
    const { name } = this;
    const [least, most] = [this.least(from), this.most(to)];
    const [first, last] = [from === 0, to === this.classes.length - 1];
    if (from === to && this.isCut(from)) return `${name} = ${this.cut(from)}`;
    if (least !== null && least === most) return `${name} = ${least}`;
    if (first && last) return `${name} ${this.upper(to) ?? `<= ${most ?? ''}`}`;
    if (first) return `${name} ${this.upper(to) ?? ''}`;
    if (last) return `${name} ${this.lower(from) ?? ''}`;
    if (least !== null && most !== null) return `${name} in (${least}..${most})`;
    return `${name} ${this.lower(from) ?? ''} and ${name} ${this.upper(to) ?? ''}`;
  }

  /** As `= 1`, `in (1, 3..5)`; null where an end of a stretch has no last value to be written. */
  private listed(runs: readonly Run[], codes: readonly string[]): string | null {
    const members: string[] = [];
    for (const [from, to] of runs) {
      const [least, most] = [this.least(from), this.most(to)];
      if (least === null || most === null) return null;
      members.push(least === most ? least : `${least}..${most}`);
    }
    members.push(...codes);
    const [only] = members;
    if (only === undefined) return null;
    return members.length === 1 && !only.includes('..')
      ? `${this.name} = ${only}`
      : `${this.name} in (${members.join(', ')})`;
  }

  private isCut(index: number): boolean {
    return ((this.classes[index]?.key ?? 0) & 1) === 1;
  }

  private cut(index: number): string {
    return print(this.cuts[(this.classes[index]?.key ?? 0) >> 1]);
  }

  /** Cut below what lies between, and above it. */
  private below(index: number): Plain | undefined {
    return this.cuts[((this.classes[index]?.key ?? 0) >> 1) - 1];
  }

  private above(index: number): Plain | undefined {
    return this.cuts[(this.classes[index]?.key ?? 0) >> 1];
  }

  private lower(index: number): string | null {
    if (this.isCut(index)) return `>= ${this.cut(index)}`;
    const below = this.below(index);
    if (below === undefined) return null;
    const least = this.least(index);
    return this.isValue(below) || least === null ? `> ${print(below)}` : `>= ${least}`;
  }

  private upper(index: number): string | null {
    if (this.isCut(index)) return `<= ${this.cut(index)}`;
    const above = this.above(index);
    if (above === undefined) return null;
    const most = this.most(index);
    return this.isValue(above) || most === null ? `< ${print(above)}` : `<= ${most}`;
  }

  /** The least value of a class, where it has one. */
  private least(index: number): string | null {
    const { answer } = this;
    return this.outermost(index, -1, this.below(index), 'min' in answer ? answer.min : undefined);
  }

  private most(index: number): string | null {
    const { answer } = this;
    return this.outermost(index, 1, this.above(index), 'max' in answer ? answer.max : undefined);
  }

  /** The value of a class that lies nearest to a cut, or to a limit of the answer. `side`: 1 above the class, -1 below it. */
  private outermost(
    index: number,
    side: 1 | -1,
    cut: Plain | undefined,
    limit: Plain | undefined,
  ): string | null {
    if (this.isCut(index)) return this.cut(index);
    if (this.grid === null) return cut === undefined && limit !== undefined ? print(limit) : null;
    const { step, from } = this.grid;
    const inward = (value: number) =>
      from + side * (Math.ceil((side * (value - from)) / step - 1e-9) - 1) * step;
    const bounds = [
      ...(typeof cut === 'number' ? [inward(cut)] : []),
      ...(typeof limit === 'number' ? [limit] : []),
    ];
    if (bounds.length === 0) return null;
    return print(side === 1 ? Math.min(...bounds) : Math.max(...bounds));
  }

  /** Whether a cut is a value that an answer can be. */
  private isValue(cut: Plain): boolean {
    if (this.grid === null || typeof cut !== 'number') return true;
    const steps = (cut - this.grid.from) / this.grid.step;
    return Math.abs(steps - Math.round(steps)) < 1e-9;
  }
}

/** Whole numbers a step apart. */
function gridOf(answer: Answer): { step: number; from: number } | null {
  return isNumeric(answer) && isWhole(answer) ? stepsOf(answer) : null;
}

function print(value: Plain | undefined): string {
  if (typeof value === 'number') return printNumber(value);
  // Seconds that are none are left out, as authors do.
  return (value ?? '').replace(/((?:^|T)\d{2}:\d{2}):00$/, '$1');
}

/** For sorting values of one kind. */
export function ascending(a: Plain, b: Plain): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

/** As values are compared. */
export function comparable(value: Plain): Plain {
  return typeof value === 'string' ? normalDate(value) : value;
}
