/**
 * Figures that are held against targets: every part of the benchmarks keeps its own in docs/performance.json, and the table
 * of docs/performance.md is made of all of them.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { clock } from './clock';
import { TARGETS, type Target, type TargetName } from './targets';
import { markdown, times } from './timing';

export interface Figure {
  /** In the unit of its target; of several questionnaires the median. */
  readonly reached: number;
  /** Of several questionnaires the worst. */
  readonly worst?: number;
  /** Beside what it was measured in the same run, and how it compares: “13× JsonLogic”. */
  readonly beside?: string;
}

interface Kept extends Figure {
  readonly on: string;
  /** How many times slower the machine was than the one on which the targets were set (`clock.ts`). */
  readonly clock?: number;
}

const folder = path.join(process.cwd(), 'docs');
const KEPT = path.join(folder, 'performance.json');
const PAGE = path.join(folder, 'performance.md');
const [BEGIN, END] = ['<!-- table of targets: written by npm run bench -->', '<!-- end of the table -->'];

export type Figures = Partial<Record<TargetName, Figure>>;

/**
 * To be had before anything is measured: what keeps the figures, and writes the table anew. Their clock is the faster one of
 * before and after, so that it excuses nothing; from there on the next is measured.
 */
export async function figureKeeper(): Promise<(figures: Figures) => Promise<void>> {
  let before = await clock();
  return async (figures) => {
    const after = await clock();
    await keepFigures(figures, Math.min(before, after));
    before = after;
  };
}

async function keepFigures(figures: Figures, slower: number): Promise<void> {
  const on = new Date().toISOString().slice(0, 10);
  const before = existsSync(KEPT)
    ? (JSON.parse(readFileSync(KEPT, 'utf8')) as Partial<Record<TargetName, Kept>>)
    : {};
  const measured = Object.entries(figures).map(
    ([name, figure]) => [name, { ...figure, on, clock: slower }] as const,
  );
  const all: Partial<Record<TargetName, Kept>> = { ...before, ...Object.fromEntries(measured) };
  // In the order of the targets; of those that are given up nothing stays.
  const kept = (Object.keys(TARGETS) as TargetName[]).flatMap((name) => {
    const figure = all[name];
    return figure === undefined ? [] : [[name, figure] as const];
  });
  writeFileSync(KEPT, `${JSON.stringify(Object.fromEntries(kept), rounded, 2)}\n`);
  const page = readFileSync(PAGE, 'utf8');
  const [head, tail] = [page.indexOf(BEGIN), page.indexOf(END)];
  if (head < 0 || tail < head) throw new Error('docs/performance.md has lost the marks of its table');
  const text = `${page.slice(0, head)}${BEGIN}\n\n${tableOf(kept)}\n\n${page.slice(tail)}`;
  writeFileSync(PAGE, await format(text, { ...(await resolveConfig(PAGE)), filepath: PAGE }));
}

/** Not what is counted, or is a ratio of one run. */
function hangsOnClock(unit: Target['unit']): boolean {
  return unit === 'ms' || unit === 's' || unit === 'a second';
}

/** Three digits tell all that can be relied on. */
function rounded(_: string, value: unknown): unknown {
  return typeof value === 'number' ? Number(value.toPrecision(3)) : value;
}

function tableOf(kept: readonly (readonly [TargetName, Kept])[]): string {
  return markdown(
    ['', 'to reach', 'reached', 'worst', 'of the target', 'beside', 'clock', 'by that clock', 'measured'],
    kept.map(([name, { reached, worst, beside = '', on, clock: slower }]) => {
      const target: Target = TARGETS[name];
      const { unit, atMost, atLeast } = target;
      const inUnit = (value: number) =>
        `${Number(value.toPrecision(3)).toLocaleString('en')}${unit === '' ? '' : ` ${unit}`}`;
      const goal = atMost ?? atLeast ?? NaN;
      const ofTarget = (value: number) =>
        (atMost === undefined ? value >= goal : value <= goal) ? 'met' : times(value, goal);
      return [
        `[${target.words}](performance-${target.page}.md)`,
        `${atMost === undefined ? 'at least' : 'at most'} ${inUnit(goal)}`,
        inUnit(reached),
        worst === undefined ? '' : inUnit(worst),
        ofTarget(reached),
        beside,
        ...(slower === undefined || !hangsOnClock(unit)
          ? ['', '']
          : [times(slower, 1), ofTarget(unit === 'a second' ? reached * slower : reached / slower)]),
        on,
      ];
    }),
  );
}
