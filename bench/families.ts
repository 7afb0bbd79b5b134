/**
 * `npm run bench -- families`: the analysis on questionnaires of several kinds of structure, ten of each size; into
 * docs/performance-families.md. What is easy on one kind is hard on another: median and worst are told of each.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { analyse } from '../src/core/analysis';
import type { Questionnaire } from '../src/core/document/types';
import { planOf } from '../src/core/routing/planner';
import { snagsOf } from '../src/core/snags';
import { compared } from './families/compared';
import { dense } from './families/dense';
import { edited, EDITS, type EditKind } from './families/edits';
import { hard } from './families/hard';
import { figureKeeper, type Figures } from './figures';
import { longLists } from './families/long-lists';
import { Die, type Family } from './families/maker';
import { roster } from './families/roster';
import { Screen } from './families/screen';
import { markdown, milliseconds } from './timing';

const SEEDS = Number(process.env.SEEDS ?? 10);

interface Kind {
  readonly name: string;
  readonly family: Family;
  readonly unit: string;
  readonly sizes: readonly number[];
  /** That are edited, over all seeds of a size: fewer where every edit is worked on until that is given up. */
  readonly places: number;
}

const FAMILIES: readonly Kind[] = [
  { name: 'dense', family: dense, unit: 'items', sizes: [50, 120, 300, 1000, 3000], places: 50 },
  { name: 'roster', family: roster, unit: 'people', sizes: [4, 8, 12], places: 50 },
  { name: 'long lists', family: longLists, unit: 'lists', sizes: [1, 3, 6], places: 50 },
  { name: 'numbers compared', family: compared, unit: 'blocks', sizes: [2, 8, 24], places: 10 },
  { name: 'made hard', family: hard, unit: 'items', sizes: [24, 80, 240], places: 10 },
];

interface Measured {
  readonly routes: string;
  readonly exact: boolean;
  readonly count: number;
  readonly asked: number;
  readonly cover: number;
  /** Routes of the covering set beyond as many as are proved to be needed; null where it has not every fork. */
  readonly beyond: number | null;
  readonly edits: readonly { readonly kind: EditKind; readonly ms: number }[];
}

function clocked<Result>(work: () => Result): { ms: number; result: Result } {
  const start = performance.now();
  const result = work();
  return { ms: performance.now() - start, result };
}

function measure(document: Questionnaire, seed: number, places: number): Measured {
  const plan = planOf(document);
  const error = snagsOf(plan).find(({ severity }) => severity === 'error');
  if (error !== undefined) throw new Error(`${document.title}, seed ${seed}: ${error.message}`);
  const whole = () => {
    const analysis = analyse(plan);
    return { analysis, items: analysis.items, endings: analysis.endings };
  };
  const { ms: count, result } = clocked(whole);
  const { ms: asked } = clocked(() => result.analysis.asked.size);
  const covered = clocked(() => whole().analysis.cover);
  const cover = covered.ms - count;
  const { complete, routes: chosen, atLeast } = covered.result;
  const beyond = complete ? chosen.length - atLeast : null;
  const { routes, exact } = result.analysis;
  const digits = routes.toString().length;
  const die = new Die(seed);
  const screen = new Screen();
  screen.show(document);
  const edits = Array.from(
    { length: Math.ceil(places / SEEDS) },
    (_, n) => EDITS[(n + seed) % EDITS.length] as EditKind,
  ).flatMap((kind) => {
    const next = edited(document, kind, die);
    if (next === null) return [];
    const { ms } = clocked(() => screen.show(next));
    screen.show(document);
    return [{ kind, ms }];
  });
  return {
    routes: digits > 9 ? `10^${digits - 1}` : routes.toLocaleString('en-GB'),
    ...{ exact, count, asked, cover, beyond, edits },
  };
}

const sorted = (all: readonly number[]) => all.toSorted((a, b) => a - b);
const median = (all: readonly number[]) => sorted(all)[Math.floor(all.length / 2)] ?? NaN;
const both = (all: readonly number[]) =>
  all.length === 0 ? '' : `${milliseconds(median(all))} (${milliseconds(Math.max(...all))})`;

/** The power of the size that times grow with, by least squares of the logarithms. */
function exponent(points: readonly (readonly [size: number, ms: number])[]): number {
  const logs = points.map(([size, ms]) => [Math.log(size), Math.log(ms)] as const);
  const mean = (at: 0 | 1) => logs.reduce((sum, log) => sum + log[at], 0) / logs.length;
  const [x, y] = [mean(0), mean(1)];
  return (
    logs.reduce((sum, [a, b]) => sum + (a - x) * (b - y), 0) /
    logs.reduce((sum, [a]) => sum + (a - x) ** 2, 0)
  );
}

/** How far from the fewest that are proved to be needed, at worst; and where not every fork could be told apart. */
function beyondWords(all: readonly Measured[]): string {
  const known = all.flatMap(({ beyond }) => beyond ?? []);
  if (known.length < all.length) return `; found for ${known.length} of ${all.length}`;
  return `; +${Math.max(...known)}`;
}

/** What of the dense family is held against targets. */
function figuresOf(size: number, all: readonly Measured[]): Figures {
  const of = (times: readonly number[]) => ({ reached: median(times), worst: Math.max(...times) });
  const count = of(all.map((each) => each.count));
  const edit = of(
    all.flatMap(({ edits }) => edits.filter(({ kind }) => kind !== 'text').map(({ ms }) => ms)),
  );
  const words = median(
    all.flatMap(({ edits }) => edits.filter(({ kind }) => kind === 'text').map(({ ms }) => ms)),
  );
  const cover = of(all.map((each) => each.cover));
  const beside = `${milliseconds(words)} ms for words alone`;
  const found = all.flatMap(({ beyond }) => beyond ?? []);
  const coverBeside = found.length < all.length ? `found for ${found.length} of ${all.length}` : '';
  switch (size) {
    case 120:
      return { edit120: { ...edit, beside } };
    case 300:
      return { count300: count, edit300: { ...edit, beside }, cover300: { ...cover, beside: coverBeside } };
    case 1000:
      return {
        ...{ count1000: count, edit1000: { ...edit, beside }, cover1000: { ...cover, beside: coverBeside } },
        ...(found.length === 0 ? {} : { beyondBound: { reached: median(found), worst: Math.max(...found) } }),
      };
    case 3000:
      return {
        count3000: count,
        edit3000: { ...edit, beside },
        cover3000: { ...cover, beside: coverBeside },
      };
    default:
      return {};
  }
}

const HEAD = [
  'questionnaire',
  'routes',
  'count',
  'who is asked',
  'after an edit',
  'of words',
  'covering set',
];

/** Of every family, or of one, which takes its place on the page. */
export async function measureFamilies(only?: string): Promise<void> {
  // Once beforehand, so that no size pays for what is compiled.
  measure(dense(120, 99), 99, SEEDS);
  const keepFigures = await figureKeeper();
  for (const { name, family, unit, sizes, places } of FAMILIES.filter(
    (of) => only === undefined || of.name === only,
  )) {
    const rows: string[][] = [];
    const points: [number, number][] = [];
    for (const size of sizes) {
      const all = Array.from({ length: SEEDS }, (_, seed) =>
        measure(family(size, seed + 1), seed + 1, places),
      );
      points.push([size, median(all.map(({ count }) => count))]);
      rows.push(rowOf(`${size.toLocaleString('en')} ${unit}`, all));
      if (name === 'dense') await keepFigures(figuresOf(size, all));
      console.error(`… ${name}: ${(rows.at(-1) ?? []).join(' | ')}`);
    }
    if (name === 'dense') await keepFigures({ growth: { reached: exponent(points) } });
    await writeSection(name, rows, exponent(points), Math.ceil(places / SEEDS) * SEEDS);
  }
}

function rowOf(size: string, all: readonly Measured[]): string[] {
  const routes = all.map((each) => each.routes);
  const ofKind = (kinds: readonly EditKind[]) =>
    all.flatMap(({ edits }) => edits.filter(({ kind }) => kinds.includes(kind)).map(({ ms }) => ms));
  return [
    size,
    all.every(({ exact }) => exact)
      ? (routes[Math.floor(routes.length / 2)] ?? '')
      : `${all.filter(({ exact }) => exact).length} of ${all.length} exact`,
    both(all.map(({ count }) => count)),
    both(all.map(({ asked }) => asked)),
    both(ofKind(['ask-if', 'skip'])),
    both(ofKind(['text'])),
    `${both(all.map(({ cover }) => cover))}${beyondWords(all)}`,
  ];
}

const INTRODUCTION = `# Kinds of questionnaires

Written by \`npm run bench -- families\`: milliseconds, the median of some questionnaires of each size and, in brackets, the worst; each measured once, on a machine shared with others. _Count_: every count by item and ending. _After an edit_: plan, counts, endings, who is asked and all snags after one ask-if or skip was taken away; _of words_: after a word more in one question. After the times of the covering set, by how many routes the worst exceeds as many as are proved to be needed.
`;

/** One family under its own heading; the others stay on the page as they were measured last. */
async function writeSection(
  name: string,
  rows: readonly string[][],
  growth: number,
  places: number,
): Promise<void> {
  const file = path.join(process.cwd(), 'docs', 'performance-families.md');
  const before = existsSync(file)
    ? readFileSync(file, 'utf8')
        .split(/^(?=## )/m)
        .slice(1)
    : [];
  const heading = (of: string) => `## ${of[0]?.toUpperCase()}${of.slice(1)}\n`;
  const own = `${heading(name)}
${SEEDS} questionnaires of each size, on ${new Date().toISOString().slice(0, 10)}. Counting grows with the power ${growth.toFixed(2)} of the size. Edited at ${places} places of a size.

${markdown(HEAD, rows)}
`;
  const sections = FAMILIES.flatMap(({ name: of }) =>
    of === name ? [own] : before.filter((section) => section.startsWith(heading(of))),
  );
  const text = [INTRODUCTION, ...sections].join('\n');
  writeFileSync(file, await format(text, { ...(await resolveConfig(file)), parser: 'markdown' }));
  console.log(own);
}
