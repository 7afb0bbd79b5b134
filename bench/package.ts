/** How long the hand-over package takes, file by file, on questionnaires of growing size; into docs/performance-package.md. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import type { Questionnaire } from '../src/core/document/types';
import { NO_WORK } from '../src/core/exchange/work-file';
import type { FileFormat, StudyContent } from '../src/core/release/format-types';
import { FORMATS } from '../src/core/release/formats';
import { HANDED_OVER, kindsOf } from '../src/core/release/formats/known';
import { madeUpRows } from '../src/core/release/data/rows';
import { planOf } from '../src/core/routing/planner';
import { figureKeeper, type Figure } from './figures';
import { generate } from './generate';
import { markdown, milliseconds, timed, times } from './timing';
import { demo } from '../tests/support/demo';

const root = process.cwd();

const DEMO = 'Tern Valley demo';
const MANY = '1,000 items, 2 far drivers';
const SIZES: readonly (readonly [name: string, make: () => Questionnaire])[] = [
  [DEMO, demo],
  ['120 items, 3 far drivers', () => generate({ items: 120, longRange: 3 })],
  [MANY, () => generate({ items: 1000, longRange: 2 })],
];

interface Packed {
  readonly ms: number;
  readonly bytes: number;
}

/** As it is asked for in the shell: from the call to its end, nothing loaded before, in two threads. */
function packed(document: Questionnaire): Packed {
  const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-package-'));
  const [file, out] = [path.join(folder, 'study.fork.json'), path.join(folder, 'study.zip')];
  writeFileSync(file, JSON.stringify(document));
  const call = ['bin/jolly-fork', 'convert', file, '--to', 'package', '--out', out];
  const start = performance.now();
  const { status, stderr } = spawnSync(process.execPath, call, { cwd: root, encoding: 'utf8' });
  const ms = performance.now() - start;
  if (status !== 0) throw new Error(stderr);
  const bytes = statSync(out).size;
  rmSync(folder, { recursive: true });
  return { ms, bytes };
}

const RUNS = 3;

/** Starts Node and ends it: by how much a machine is slower than another, or than at another time. */
function nodeAlone(): number {
  const start = performance.now();
  spawnSync(process.execPath, ['-e', '0']);
  return performance.now() - start;
}

export async function measurePackage(): Promise<void> {
  const keepFigures = await figureKeeper();
  const whole: string[][] = [];
  const single: string[][] = [];
  const reached = new Map<string, Figure>();
  for (const [name, make] of SIZES) {
    const document = make();
    const alone: number[] = [];
    const runs = Array.from({ length: RUNS }, () => {
      alone.push(nodeAlone(), nodeAlone());
      return packed(document);
    }).sort((a, b) => a.ms - b.ms);
    const least = Math.min(...alone);
    const [ms, bytes] = [runs[Math.floor(RUNS / 2)]?.ms ?? NaN, runs[0]?.bytes ?? NaN];
    whole.push([
      name,
      milliseconds(ms),
      milliseconds(runs[0]?.ms ?? NaN),
      times(runs[0]?.ms ?? NaN, least),
      `${(bytes / 1e6).toFixed(1)} MB`,
    ]);
    const content: StudyContent = { document, work: NO_WORK, data: madeUpRows(planOf(document), 1000, 1) };
    for (const format of Object.keys(HANDED_OVER) as (keyof typeof HANDED_OVER)[]) {
      const { write, losses }: FileFormat = FORMATS[format];
      for (const kind of kindsOf(format)) {
        const made = await timed(async () => write?.(content, kind), 1);
        const lost = await timed(() => losses(content), 1);
        single.push([
          name,
          `${format} .${kind.split('.').at(-1)}`,
          milliseconds(made.ms),
          milliseconds(lost.ms),
        ]);
      }
    }
    reached.set(name, { reached: ms, beside: `${times(runs[0]?.ms ?? NaN, least)} Node alone` });
    console.error(`… ${name}`);
  }
  const [ofDemo, ofMany] = [reached.get(DEMO), reached.get(MANY)];
  await keepFigures({ ...(ofDemo && { packed: ofDemo }), ...(ofMany && { packedMany: ofMany }) });
  const text = `# How long a package takes

Written by \`npm run bench -- package\` on ${new Date().toISOString().slice(0, 10)}, on a machine shared with others. The
package is asked for as \`jolly-fork convert --to package\`, from the call to its end, ${RUNS} times; it has every file,
1,000 made-up respondents among them. Two threads make it, and each works out once what several of its files are made of. _To Node
alone_: the least of them to the least time in which Node starts and ends, of six.

${markdown(['questionnaire', 'package, median', 'least', 'to Node alone', 'size'], whole)}

## File by file

In one process, one run each, once the questionnaire is analysed; *losses*: finding what the format cannot hold, by reading the file again.

${markdown(['questionnaire', 'file', 'made', 'losses'], single)}
`;
  const page = path.join(root, 'docs', 'performance-package.md');
  writeFileSync(page, await format(text, { ...(await resolveConfig(page)), filepath: page }));
  console.log(text);
}
