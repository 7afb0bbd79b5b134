/** How often each value of one variable occurs, on all, on those asked, and on those who answered. */
import type { Questionnaire } from '../document/types';
import { isUnasked } from '../document/vocabularies';
import { binsOf } from './bins';
import { casesOf, timesIn, type Counted, type TableCase } from './cases';
import type { Dataset } from './dataset';
import { percentOf } from './shares';
import type { TableVariable } from './variables';

export interface FrequencyRow {
  readonly label: string;
  /** The code, or the value itself; empty for values put together. */
  readonly code: string;
  readonly count: number;
  /** Percent, exact; null where it does not apply. */
  readonly ofAll: number | null;
  readonly ofAsked: number | null;
  readonly ofAnswered: number | null;
  /** Of those who answered, up to this row; null where order or addition means nothing. */
  readonly cumulative: number | null;
  /** The reason of the missing plan that it stands for; null for answers, don't know and the like among them. */
  readonly reason: string | null;
}

export interface Frequency {
  readonly all: number;
  /** Without those not asked, by route, draw or an end before. */
  readonly asked: number;
  /** Asked, with an answer to the question: don't know and the like are none. */
  readonly answered: number;
  readonly rows: readonly FrequencyRow[];
  /** Why there is no answer, apart from the rows: don't know and the like first, then the reasons of the missing plan. */
  readonly missing: readonly FrequencyRow[];
  /** Several picks a case: percentages add up to more than 100. */
  readonly several: boolean;
  /** Of numbers. */
  readonly summary: Summary | null;
}

export interface Summary {
  readonly mean: number;
  readonly median: number;
  /** Of the sample, with n − 1; null for a single value. */
  readonly deviation: number | null;
  readonly least: number;
  readonly most: number;
}

/** `rows` of the dataset; those that a filter leaves. */
export function frequencyOf(
  document: Questionnaire,
  data: Dataset,
  variable: TableVariable,
  rows: ArrayLike<number>,
): Frequency {
  const cases = casesOf(data, variable, rows);
  const all = timesIn(cases);
  const asked = timesIn(cases.filter(({ of }) => of.state !== 'missing' || of.asked));
  const answers = cases.flatMap(({ of, times }) => (of.state === 'answered' ? [{ of, times }] : []));
  const answered = timesIn(answers);
  const several = variable.kind === 'picks';
  const lines = linesOf(variable, answers);
  const missing = missingLines(document, variable, cases);
  const ordered = !several && variable.kind !== 'texts';
  let sum = 0;
  return {
    all,
    asked,
    answered,
    several,
    rows: lines.map(({ label, code, count }) => {
      sum += count;
      return {
        label,
        code,
        count,
        ofAll: percentOf(count, all),
        ofAsked: percentOf(count, asked),
        ofAnswered: percentOf(count, answered),
        cumulative: ordered ? percentOf(sum, answered) : null,
        reason: null,
      };
    }),
    missing: missing.map(({ label, code, count, asked: counted, reason }) => ({
      label,
      code,
      count,
      ofAll: percentOf(count, all),
      ofAsked: counted ? percentOf(count, asked) : null,
      ofAnswered: null,
      cumulative: null,
      reason,
    })),
    summary:
      variable.kind === 'numbers'
        ? summaryOf(answers.map(({ of, times }) => ({ of: Number(of.values[0]), times })))
        : null,
  };
}

interface CountedLine {
  readonly label: string;
  readonly code: string;
  readonly count: number;
}

/** Texts listed at most, the most frequent first. */
const MOST_TEXTS = 20;

function linesOf(
  { kind, categories }: TableVariable,
  answers: readonly Counted<Extract<TableCase, { state: 'answered' }>>[],
): CountedLine[] {
  const counted = new Map<number | string, number>();
  for (const { of, times } of answers)
    for (const value of of.values) counted.set(value, (counted.get(value) ?? 0) + times);
  switch (kind) {
    case 'codes':
    case 'picks':
      return categories
        .filter(({ missing }) => missing === undefined)
        .map(({ value, label }) => ({ label, code: String(value), count: counted.get(value) ?? 0 }));
    case 'texts': {
      const sorted = [...counted].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
      const rest = sorted.slice(MOST_TEXTS).reduce((sum, [, count]) => sum + count, 0);
      const listed = sorted
        .slice(0, MOST_TEXTS)
        .map(([value, count]) => ({ label: String(value), code: '', count }));
      return rest === 0
        ? listed
        : [...listed, { label: `${sorted.length - MOST_TEXTS} other texts`, code: '', count: rest }];
    }
    case 'numbers':
    case 'moments': {
      const labels = new Map(categories.map(({ value, label }) => [value, label]));
      return binsOf([...counted.keys()], kind).map(({ label, has }) => ({
        label: labels.get(Number(label)) ?? label,
        code: '',
        count: timesIn(answers.filter(({ of: { values } }) => values[0] !== undefined && has(values[0]))),
      }));
    }
    default:
      return kind satisfies never;
  }
}

function missingLines(
  document: Questionnaire,
  { categories }: TableVariable,
  cases: readonly Counted<TableCase>[],
): (CountedLine & { readonly asked: boolean; readonly reason: string | null })[] {
  const options = new Map<number | string, number>();
  const reasons = new Map<string, number>();
  for (const { of: each, times } of cases) {
    if (each.state === 'no-answer') options.set(each.option, (options.get(each.option) ?? 0) + times);
    else if (each.state === 'missing') reasons.set(each.reason, (reasons.get(each.reason) ?? 0) + times);
  }
  return [
    ...categories
      .filter(({ missing }) => missing !== undefined)
      .map(({ value, label }) => ({
        label,
        code: String(value),
        count: options.get(value) ?? 0,
        asked: true,
        reason: null,
      })),
    ...document.missing.flatMap(({ reason, code, label }) => {
      const count = reasons.get(reason) ?? 0;
      return count === 0 ? [] : [{ label, code: String(code), count, asked: !isUnasked(reason), reason }];
    }),
    ...[
      ['blank', 'Blank, and no code says why'],
      ['unreadable', 'A code that is not in the codebook'],
    ].flatMap(([reason = '', label = '']) => {
      const count = reasons.get(reason) ?? 0;
      return count === 0 ? [] : [{ label, code: '', count, asked: true, reason }];
    }),
  ];
}

function summaryOf(values: readonly Counted<number>[]): Summary | null {
  const count = timesIn(values);
  if (count === 0) return null;
  const sorted = values.toSorted((a, b) => a.of - b.of);
  const total = (weight: (value: number) => number) =>
    values.reduce((sum, { of, times }) => sum + times * weight(of), 0);
  const mean = total((value) => value) / count;
  const squares = total((value) => (value - mean) ** 2);
  const [lower, upper] = [Math.ceil(count / 2), Math.floor(count / 2) + 1];
  return {
    mean,
    median: (nthOf(sorted, lower) + nthOf(sorted, upper)) / 2,
    deviation: count === 1 ? null : Math.sqrt(squares / (count - 1)),
    least: nthOf(sorted, 1),
    most: nthOf(sorted, count),
  };
}

/** The `n`-th, from 1, of values in order. */
function nthOf(sorted: readonly Counted<number>[], n: number): number {
  let left = n;
  for (const { of, times } of sorted) {
    left -= times;
    if (left <= 0) return of;
  }
  return 0;
}
