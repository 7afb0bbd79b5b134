/**
 * `npm run bench`: how long everything takes on questionnaires of growing size, beside other ways to do the same, as
 * tables in docs/performance-analysis.md. Times depend on the machine and on what else it does; ratios, measured in the same run, tell more.
 */
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { analyse, AnalysisCache, DEFAULT_CAPS, sharesOf } from '../src/core/analysis';
import type { Questionnaire } from '../src/core/document/types';
import { compareVersions } from '../src/core/release/compare';
import type { Plan } from '../src/core/routing/plan';
import { planOf } from '../src/core/routing/planner';
import { routedSnagsOf, snagsOf } from '../src/core/snags';
import { figureKeeper } from './figures';
import { filters, generate, picksThatGate } from './generate';
import { markdown, megabytes, milliseconds, timed, times } from './timing';
import { walkingSpeeds } from './walking';
import { demo } from '../tests/support/demo';

const root = process.cwd();

const SIZES: readonly (readonly [name: string, document: Questionnaire])[] = [
  ['Tern Valley demo', demo()],
  ['50 items, 2 far drivers', generate({ items: 50, longRange: 2 })],
  ['120 items, 3 far drivers', generate({ items: 120, longRange: 3 })],
  ['300 items, 4 far drivers', generate({ items: 300, longRange: 4 })],
  ['1,000 items, 8 far drivers', generate({ items: 1000, longRange: 8 })],
  ['3,000 items, 6 far drivers', generate({ items: 3000, longRange: 6 })],
  ['40 filters, independent', filters(40)],
  ['12 options gating 12 items', picksThatGate(12)],
  ['30 options gating 30 items', picksThatGate(30)],
];

interface Row {
  readonly name: string;
  readonly routes: string;
  readonly plan: number;
  readonly count: number;
  readonly asked: number;
  readonly snags: number;
  /** All four after an ask-if half-way was taken away or put back. */
  readonly edited: number;
  /** The two versions of these edits, held against each other. */
  readonly compared: number;
  readonly cover: number;
  readonly coverWords: string;
  readonly pairs: number;
  readonly pairWords: string;
  readonly shares: number;
  readonly route: number;
  readonly memory: number;
}

async function measure(name: string, document: Questionnaire): Promise<Row> {
  const planned = await timed(() => planOf(document));
  const plan: Plan = planned.result;
  const error = snagsOf(plan).find(({ severity }) => severity === 'error');
  if (error !== undefined) throw new Error(`${name}: ${error.message}`);
  /** With its counts by item and ending, which are otherwise made when they are asked for. */
  const whole = () => {
    const analysis = analyse(plan);
    return { analysis, items: analysis.items, endings: analysis.endings };
  };
  const memory = megabytes(whole);
  const counted = await timed(whole);
  const { analysis } = counted.result;
  const { routes, exact } = analysis;
  // A fresh analysis each time: what is asked for later is kept once it is known.
  const fresh = Array.from({ length: 6 }, whole);
  const asked = await timed(() => (fresh.pop() ?? whole()).analysis.asked.size);
  const snags = await timed(() => snagsOf(plan).length + routedSnagsOf(plan, analysis).length);
  const edited = await timed(afterEdits(document));
  const compared = await timed(() => compareVersions(document, withoutHalfway(document)));
  const cover = await timed(() => whole().analysis.cover);
  const { length } = cover.result.routes;
  const pairs = await timed(() => whole().analysis.pairs, 1);
  const shares = await timed(() => sharesOf(plan)?.minutes);
  const route = await timed(() => analysis.route(routes / 3n + 1n));
  const digits = routes.toString().length;
  return {
    name,
    routes: `${exact ? '' : 'at least '}${digits > 12 ? `10^${digits - 1}` : routes.toLocaleString('en-GB')}`,
    plan: planned.ms,
    count: counted.ms,
    asked: asked.ms,
    snags: snags.ms,
    edited: edited.ms,
    compared: compared.ms,
    cover: Math.max(0, cover.ms - counted.ms),
    coverWords: `${length}, at least ${cover.result.atLeast}`,
    pairs: Math.max(0, pairs.ms - counted.ms),
    pairWords: pairs.result.complete
      ? `${pairs.result.routes.length}, at least ${pairs.result.atLeast}`
      : 'too many forks',
    shares: shares.ms,
    route: route.ms,
    memory,
  };
}

/** The same without one ask-if. */
function withoutHalfway(document: Questionnaire): Questionnaire {
  const asked = document.sections.flatMap(({ items }) =>
    items.filter((item) => item.kind !== 'page_break' && item.askIf),
  );
  const half = asked[Math.floor(asked.length / 2)];
  return {
    ...document,
    sections: document.sections.map((section) => ({
      ...section,
      items: section.items.map((item) => (item === half ? { ...item, askIf: undefined } : item)),
    })),
  } as Questionnaire;
}

/** Everything about a questionnaire and about the same without one ask-if, in turns, as while somebody edits it. */
function afterEdits(document: Questionnaire): () => unknown {
  const without = withoutHalfway(document);
  const cache = new AnalysisCache();
  let turn = 0;
  return () => {
    turn += 1;
    const plan = planOf(turn % 2 === 0 ? document : without);
    const analysis = analyse(plan, DEFAULT_CAPS, cache);
    return [analysis.asked, snagsOf(plan), routedSnagsOf(plan, analysis, cache)];
  };
}

// First, while nothing but the clock has used the machine's caches and threads.
const keepFigures = await figureKeeper();
const speeds = await walkingSpeeds(planOf(generate({ items: 120, longRange: 3 })));
await keepFigures({
  walked: { reached: speeds.ours },
  jsonLogic: { reached: speeds.ours / speeds.jsonLogic },
  simulated: { reached: speeds.madeUp, beside: `${times(speeds.ours, speeds.madeUp)} walking alone` },
});

const whole = (row: Row) => row.plan + row.count + row.asked + row.snags;
const rows: Row[] = [];
for (const [name, document] of SIZES) {
  const row = await measure(name, document);
  rows.push(row);
  if (name.startsWith('1,000'))
    await keepFigures({
      compared: { reached: row.compared, beside: `${times(row.compared, whole(row))} counting anew` },
    });
  console.error(`… ${name}`);
}
const base = rows.find(({ name }) => name.startsWith('120')) as Row;
const analysis = markdown(
  [
    'questionnaire',
    'routes',
    'plan',
    'count',
    'who is asked',
    'snags',
    'all four',
    'to 120 items',
    'after an edit',
    'memory',
  ],
  rows.map((row) => [
    row.name,
    row.routes,
    ...[row.plan, row.count, row.asked, row.snags, whole(row)].map(milliseconds),
    times(whole(row), whole(base)),
    milliseconds(row.edited),
    `${Math.round(row.memory)} MB`,
  ]),
);
const later = markdown(
  [
    'questionnaire',
    'one route',
    'shares',
    'versions compared',
    'covering set',
    'its routes',
    'of pairs',
    'its routes',
  ],
  rows.map((row) => [
    row.name,
    ...[row.route, row.shares, row.compared, row.cover].map(milliseconds),
    row.coverWords,
    milliseconds(row.pairs),
    row.pairWords,
  ]),
);

const perSecond = (speed: number) => Math.round(speed).toLocaleString('en-GB');

const text = `# How long the analysis takes

Written by \`npm run bench -- analysis\` on ${new Date().toISOString().slice(0, 10)}: Node ${process.versions.node}, ${cpus().length} cores of
${cpus()[0]?.model.trim() ?? 'an unknown kind'}, shared with others. Milliseconds are medians of five runs after one
that is not counted (of one run, where it takes over two seconds); memory is what counting leaves on the heap.

## The analysis, after every edit

*Plan* parses conditions and finds targets; *count* gives all counts by item and ending; *who is asked* the shortest
condition of every item; *snags* every check. *After an edit*: all four once the ask-if half-way is taken away or put
back, where what the edit does not touch is found again.

${analysis}

## What is asked for now and then

*One route* is any route by its number, with a respondent who takes it; *shares* the expected share of the sample for
every item, way and ending; *versions compared* the questionnaire held against itself without the ask-if half-way; *of
pairs* the routes that take every two outcomes of forks together.

${later}

## Walking and coding respondents

On one core, ${speeds.people.toLocaleString('en-GB')} made-up respondents of 120 items who are presented ${speeds.presented.toFixed(0)} on average: **${perSecond(speeds.ours)} a second**
walked and coded; the same rules as JsonLogic (json-logic-js 2.0.5) ${perSecond(speeds.jsonLogic)} a second, ${times(speeds.ours, speeds.jsonLogic)} slower. Made up,
walked and coded: ${perSecond(speeds.madeUp)} a second.
`;
const page = path.join(root, 'docs', 'performance-analysis.md');
const style = await resolveConfig(page);
writeFileSync(page, await format(text, { ...style, filepath: page }));
console.log(text);
