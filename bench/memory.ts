/**
 * How much memory a questionnaire of 3,000 items takes, each of ten in a process of its own: at its peak until everything that
 * is shown stands, and what is held when the rest has been given back. Writes docs/performance-memory.md.
 */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { sharesOf, transitionsOf } from '../src/core/analysis';
import { planOf } from '../src/core/routing/planner';
import { dense } from './families/dense';
import { edited, EDITS } from './families/edits';
import { Die } from './families/maker';
import { Screen } from './families/screen';
import { figureKeeper } from './figures';
import { markdown } from './timing';

const ITEMS = 3000;
const SEEDS = 10;
const EDITED = 6;

/** Megabytes. */
interface Taken {
  /** Of the whole process, Node itself among it, as the system counts them: until counts, bases, snags and flows stand. */
  readonly opened: number;
  /** The same after some edits, with what the collector has not been in need of yet. */
  readonly edited: number;
  /** Objects and buffers that are still reached after these. */
  readonly held: number;
}

const peak = () => process.resourceUsage().maxRSS / 1000;

/** In a process that has done nothing else. */
function taken(seed: number): Taken {
  const document = dense(ITEMS, seed);
  const screen = new Screen();
  screen.show(document);
  const plan = planOf(document);
  transitionsOf(plan, sharesOf(plan));
  const opened = peak();
  const die = new Die(seed);
  let current = document;
  for (let n = 0; n < EDITED; n += 1) {
    current = edited(current, EDITS[n % EDITS.length] ?? 'text', die) ?? current;
    screen.show(current);
  }
  const after = peak();
  globalThis.gc?.();
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  // Asked once more, so that nothing it holds was given back before it was measured.
  screen.show(document);
  return { opened, edited: after, held: (heapUsed + arrayBuffers) / 1e6 };
}

function inProcess(seed: number): Taken {
  const { stdout, status } = spawnSync(
    process.execPath,
    ['--expose-gc', process.argv[1] ?? '', String(seed)],
    {
      encoding: 'utf8',
    },
  );
  if (status !== 0) throw new Error(`seed ${seed} ended with ${String(status)}`);
  return JSON.parse(stdout) as Taken;
}

async function measureMemory(): Promise<void> {
  const keepFigures = await figureKeeper();
  const all = Array.from({ length: SEEDS }, (_, n) => inProcess(n + 1));
  const of = (name: keyof Taken) => {
    const sorted = all.map((each) => each[name]).sort((a, b) => a - b);
    return { reached: sorted[Math.floor(SEEDS / 2)] ?? NaN, worst: sorted.at(-1) ?? NaN };
  };
  const [opened, afterEdits, held] = [of('opened'), of('edited'), of('held')];
  await keepFigures({ memory: { ...opened, beside: `${Math.round(held.reached)} MB held` } });
  const row = (words: string, { reached, worst }: { reached: number; worst: number }) => [
    words,
    ...[reached, worst].map((megabytes) => `${Math.round(megabytes)} MB`),
  ];
  const rows = [
    row('peak of the process until counts, bases, snags, shares and flows stand', opened),
    row(`the same after ${EDITED} edits`, afterEdits),
    row('held after these, once the collector has run', held),
  ];
  const text = `# How much memory it takes

Written by \`npm run bench -- memory\` on ${new Date().toISOString().slice(0, 10)}: ${SEEDS} questionnaires of the dense
family with ${ITEMS.toLocaleString('en')} items, each in a process of its own, Node itself included (some 50 MB).

${markdown(['', 'median', 'worst'], rows)}

What an edit made useless is collected when the collector needs room, and Node gives it gigabytes: with a bound
(\`--max-old-space-size\`) the process stays smaller.
`;
  const page = path.join(process.cwd(), 'docs', 'performance-memory.md');
  writeFileSync(page, await format(text, { ...(await resolveConfig(page)), filepath: page }));
  console.log(text);
}

const seed = process.argv[2];
if (seed === undefined) await measureMemory();
else console.log(JSON.stringify(taken(Number(seed))));
