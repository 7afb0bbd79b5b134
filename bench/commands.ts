/**
 * `npm run bench -- commands`: how soon the command line answers, beside a program that does nothing; into
 * docs/performance-commands.md.
 */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { figureKeeper } from './figures';
import { markdown, times } from './timing';

const RUNS = 21;
const SMALL = 'tests/findings/times-in-words.fork.json';
const DEMO = 'demo/tern-valley-home-heating.fork.json';

const CALLS: readonly (readonly [words: string, args: readonly string[]])[] = [
  ['`--help`', ['bin/jolly-fork', '--help']],
  ['`check`, 4 items', ['bin/jolly-fork', 'check', SMALL]],
  ['`analyse`, 4 items', ['bin/jolly-fork', 'analyse', SMALL]],
  ['`check`, the demo', ['bin/jolly-fork', 'check', DEMO]],
  ['`analyse`, the demo', ['bin/jolly-fork', 'analyse', DEMO]],
  ['`routes`, the demo', ['bin/jolly-fork', 'routes', DEMO]],
];
const NOTHING = ['-e', '0'];

function run(args: readonly string[]): number {
  const start = performance.now();
  spawnSync(process.execPath, [...args], { stdio: 'ignore' });
  return performance.now() - start;
}

/** By call, sorted. All calls in turn, so that a busy moment of the machine meets each alike. */
function measured(calls: readonly (readonly string[])[]): number[][] {
  for (const call of calls) run(call);
  const all = calls.map((): number[] => []);
  for (let n = 0; n < RUNS; n += 1) calls.forEach((call, at) => all[at]?.push(run(call)));
  return all.map((each) => each.sort((a, b) => a - b));
}

export async function measureCommands(): Promise<void> {
  const keepFigures = await figureKeeper();
  const [nothing = [], ...called] = measured([NOTHING, ...CALLS.map(([, args]) => args)]);
  const [median, least] = [Math.floor(RUNS / 2), 0];
  const row = (words: string, sorted: readonly number[]) => [
    words,
    String(Math.round(sorted[median] ?? NaN)),
    String(Math.round(sorted[least] ?? NaN)),
    times(sorted[median] ?? NaN, nothing[median] ?? NaN),
    String(Math.round((sorted[median] ?? NaN) - (nothing[median] ?? NaN))),
  ];
  const text = `# How soon the command line answers

Written by \`npm run bench -- commands\` on ${new Date().toISOString().slice(0, 10)}: milliseconds from the call to its end, of ${RUNS} runs in
turn, on a machine shared with others. _Beside_: more than Node takes to start and end without doing anything, which
is most of what is measured. To reach: \`check\` of a small file within 150 ms.

${markdown(
  ['call', 'median', 'least', 'to Node alone', 'beside'],
  [row('Node alone', nothing), ...called.map((sorted, n) => row(CALLS[n]?.[0] ?? '', sorted))],
)}
`;
  const target = path.join(process.cwd(), 'docs', 'performance-commands.md');
  writeFileSync(target, await format(text, { ...(await resolveConfig(target)), parser: 'markdown' }));
  console.log(text);
  const check = called[CALLS.findIndex(([, args]) => args[1] === 'check')]?.[median] ?? NaN;
  await keepFigures({
    check: { reached: check, beside: `${times(check, nothing[median] ?? NaN)} Node alone` },
  });
}
