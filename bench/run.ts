/**
 * `npm run bench`: how long the analysis takes on questionnaires of growing size, as a table. Times depend on the
 * machine and on what else it does; the ratios to the first row, measured in the same run, tell more.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { analyse, type Analysis } from '../src/core/analysis';
import { readDocumentText } from '../src/core/document/read';
import type { Questionnaire } from '../src/core/document/types';
import type { Plan } from '../src/core/routing/plan';
import { planOf } from '../src/core/routing/planner';
import { snagsOf } from '../src/core/snags';
import { walk } from '../src/core/routing/walk';
import { codedRow } from '../src/core/coding/row';
import { generate } from './generate';

const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..');
const RUNS = 5;

/** Median milliseconds of some runs, after one that is not counted. */
function timed<Result>(work: () => Result): { ms: number; result: Result } {
  let result = work();
  const times = Array.from({ length: RUNS }, () => {
    const start = performance.now();
    result = work();
    return performance.now() - start;
  });
  return { ms: times.sort((a, b) => a - b)[Math.floor(RUNS / 2)] ?? 0, result };
}

function demo(): Questionnaire {
  const read = readDocumentText(
    readFileSync(path.join(root, 'demo', 'tern-valley-home-heating.fork.json'), 'utf8'),
  );
  if (!read.ok) throw new Error('the demo study cannot be read');
  return read.document;
}

interface Row {
  readonly name: string;
  readonly items: number;
  readonly routes: string;
  readonly plan: number;
  readonly count: number;
  readonly asked: number;
  readonly route: number;
}

function measure(name: string, document: Questionnaire): Row {
  const planned = timed(() => planOf(document));
  const plan: Plan = planned.result;
  const [problem] = snagsOf(plan);
  if (problem !== undefined) throw new Error(`${name}: ${problem.message}`);
  const counted = timed(() => analyse(plan));
  const analysis: Analysis = counted.result;
  const { routes, exact } = analysis;
  // A fresh analysis each time: who is asked is kept once it is known.
  const fresh = Array.from({ length: RUNS + 1 }, () => analyse(plan));
  const asked = timed(() => fresh.pop()?.asked.size);
  const route = timed(() => analysis.route(routes / 3n + 1n));
  return {
    name,
    items: plan.sections.reduce((sum, { items }) => sum + items.length, 0),
    routes: `${exact ? '' : 'at least '}${routes.toString().length > 12 ? `10^${routes.toString().length - 1}` : routes}`,
    plan: planned.ms,
    count: counted.ms,
    asked: asked.ms,
    route: route.ms,
  };
}

function walksPerSecond(document: Questionnaire): { walked: number; coded: number } {
  const plan = planOf(document);
  const analysis = analyse(plan);
  const people = Array.from({ length: 40 }, (_, n) =>
    analysis.route((analysis.routes * BigInt(n)) / 40n + 1n),
  ).flatMap((route) => route ?? []);
  const perSecond = (work: (person: (typeof people)[number]) => void) => {
    const { ms } = timed(() => {
      for (let round = 0; round < 25; round += 1) people.forEach(work);
    });
    return Math.round((people.length * 25 * 1000) / ms);
  };
  const walked = (person: (typeof people)[number]) => {
    const result = walk(plan, person);
    if (!result.ok) throw new Error(result.problem);
    return result.walk;
  };
  return {
    walked: perSecond((person) => void walked(person)),
    coded: perSecond((person) => void codedRow(plan, walked(person), person.answers)),
  };
}

const rows = [
  measure('Tern Valley demo', demo()),
  measure('generated, 3 far drivers', generate({ items: 120, longRange: 3 })),
  measure('generated, 4 far drivers', generate({ items: 300, longRange: 4 })),
  measure('generated, no far drivers', generate({ items: 1000, longRange: 0 })),
  measure('generated, 2 far drivers', generate({ items: 1000, longRange: 2 })),
  measure('generated, 8 far drivers', generate({ items: 1000, longRange: 8 })),
];
const base = rows[1] as Row;
const number = (ms: number) => (ms < 10 ? ms.toFixed(1) : ms.toFixed(0));
const ratio = (ms: number, to: number) => `${(ms / to).toFixed(1)}×`;
const { walked, coded } = walksPerSecond(demo());
const table = [
  '| questionnaire | items | routes | plan, ms | count, ms | to 120 items | who is asked, ms | one route, ms |',
  '|---|---|---|---|---|---|---|---|',
  ...rows.map(
    (row) =>
      `| ${row.name} | ${row.items} | ${row.routes} | ${number(row.plan)} | ${number(row.count)} | ${ratio(row.count, base.count)} | ${number(row.asked)} | ${number(row.route)} |`,
  ),
].join('\n');
const text = `# How long the analysis takes

Written by \`npm run bench\` on ${new Date().toISOString().slice(0, 10)}: Node ${process.versions.node}, ${cpus().length} cores of
${cpus()[0]?.model.trim() ?? 'an unknown kind'}. Medians of ${RUNS} runs after one that is not counted, on a machine that
others use too. *Count* is everything that \`analyse\` gives at once; *who is asked* the shortest condition of every item;
*one route* an outline with a respondent who takes it.

${table}

Respondents of the demo, on one core: ${walked.toLocaleString('en-GB')} walked a second; ${coded.toLocaleString('en-GB')} walked and coded.
`;
writeFileSync(path.join(root, 'docs', 'performance.md'), text);
console.log(text);
