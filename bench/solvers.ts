/**
 * `npm run bench -- solvers`: two questions of the analysis put to general-purpose programs, into docs/performance-solvers.md.
 * All are given the same Boolean encoding and must come to the same result, or there is no table.
 */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { analyse, Diagrams, EncodedPlan } from '../src/core/analysis';
import type { Questionnaire } from '../src/core/document/types';
import type { Plan } from '../src/core/routing/plan';
import { planOf } from '../src/core/routing/planner';
import { byCounter, counter, MOST_SECONDS, stepsOf } from './counter/counting';
import { dense } from './families/dense';
import { generate } from './generate';
import { byDiagrams, byLogicSolver, byZ3, terrainOf } from './reach';
import { markdown, milliseconds, timed, times } from './timing';

type Kind = readonly [name: string, documents: readonly Questionnaire[]];

const seeds = (many: number) => Array.from({ length: many }, (_, seed) => seed + 1);
const KINDS: readonly Kind[] = [
  ['120 items, 3 far drivers', [generate({ items: 120, longRange: 3 })]],
  ['1,000 items, 8 far drivers', [generate({ items: 1000, longRange: 8 })]],
  ['120 items, dense', seeds(3).map((seed) => dense(120, seed))],
  ['300 items, dense', seeds(3).map((seed) => dense(300, seed))],
  ['1,000 items, dense', seeds(3).map((seed) => dense(1000, seed))],
  ['3,000 items, dense', [dense(3000, 1)]],
];
/** z3 would take the better part of an hour over more. */
const MOST_REACHED = 1500;

/** Milliseconds of each engine over the same question, ours first; null where it was stopped. */
type Times = readonly (number | null)[];

async function reached(plan: Plan): Promise<Times> {
  const encoded = terrainOf(plan);
  const ours = await timed(() => byDiagrams(terrainOf(plan)));
  const building = await timed(() => terrainOf(plan));
  const logic = await timed(() => byLogicSolver(encoded), 1);
  const z3 = await timed(() => byZ3(encoded), 1);
  if (ours.result !== logic.result || ours.result !== z3.result)
    throw new Error(`${plan.document.title}: the engines differ on who can be presented what`);
  return [Math.max(0.1, ours.ms - building.ms), logic.ms, z3.ms];
}

async function counted(plan: Plan, program: string): Promise<Times> {
  const ours = await timed(() => analyse(plan).routes);
  const theirs = await byCounter(program, stepsOf(new EncodedPlan(plan, new Diagrams())));
  if ('stopped' in theirs) return [ours.ms, null];
  // As exactly as twelve decimals of a logarithm tell.
  if (Math.abs(theirs.log2 - log2(ours.result)) > 1e-12 * Math.max(1, theirs.log2))
    throw new Error(`${plan.document.title}: the counter differs on how many routes there are`);
  return [ours.ms, theirs.ms];
}

/** Of a whole number of any size, above 0. */
function log2(of: bigint): number {
  const bits = of.toString(2);
  const front = bits.slice(0, 53);
  return bits.length - front.length + Math.log2(Number(`0b${front}`));
}

/** A row: the median over the questionnaires of a kind, and how many times ours the others take. */
function row(name: string, all: readonly Times[]): string[] {
  const median = (engine: number) => {
    const known = all.map((times) => times[engine] ?? null);
    if (known.includes(null)) return null;
    return (known as number[]).sort((a, b) => a - b)[Math.floor(known.length / 2)] ?? null;
  };
  const ours = median(0) ?? NaN;
  const others = (all[0] ?? []).slice(1).map((_, n) => {
    const ms = median(n + 1);
    return ms === null
      ? `over ${(MOST_SECONDS * 1000).toLocaleString('en')} (${times(MOST_SECONDS * 1000, ours)})`
      : `${milliseconds(ms)} (${times(ms, ours)})`;
  });
  return [name, milliseconds(ours), ...others];
}

export async function measureSolvers(): Promise<void> {
  const program = counter(process.cwd());
  const counting: string[][] = [];
  const reaching: string[][] = [];
  for (const [name, documents] of KINDS) {
    const plans = documents.map((document) => planOf(document));
    const inTurn = async (measure: (plan: Plan) => Promise<Times>) => {
      const all: Times[] = [];
      for (const plan of plans) all.push(await measure(plan));
      return row(name, all);
    };
    counting.push(await inTurn((plan) => counted(plan, program)));
    console.error(`… ${counting.at(-1)?.join(' | ')}`);
    const places = plans[0]?.sections.reduce((sum, { items }) => sum + items.length, 0) ?? 0;
    if (places > MOST_REACHED) continue;
    reaching.push(await inTurn(reached));
    console.error(`… ${reaching.at(-1)?.join(' | ')}`);
  }
  const text = `# Beside solvers

Written by \`npm run bench -- solvers\` on ${new Date().toISOString().slice(0, 10)}: milliseconds, of dense questionnaires the median over three (of 3,000
items, one), times to ours in brackets. All are given the same Boolean encoding, whose making is not timed.

## How many routes are there?

Ours is \`analyse\` from a plan, its own encoding included. BuDDy 2.4 (Debian's libbdd-dev) is a package of decision diagrams in
C++: it joins what is true of everybody place by place, forgets a variable once nothing further on reads it, and counts models
as seen through who is presented what and who arrives where. Whatever takes over ${MOST_SECONDS} seconds is stopped.

${markdown(['questionnaire', 'routes counted', 'BuDDy 2.4'], counting)}

## Can anybody be presented this item?

Every item, one after the other.

${markdown(['questionnaire', 'diagrams', 'logic-solver 2.0.1', 'z3-solver 5.2.0'], reaching)}
`;
  const page = path.join(process.cwd(), 'docs', 'performance-solvers.md');
  writeFileSync(page, await format(text, { ...(await resolveConfig(page)), filepath: page }));
  console.log(text);
}
