/**
 * `npm run bench -- audit`: what auditing a row costs, how fast `jolly-fork audit` is on files of growing length on one
 * core and on all, how much memory it takes at most, and tables of a million rows. Writes docs/performance-audit.md.
 */
import { spawn, spawnSync } from 'node:child_process';
import {
  closeSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import path from 'node:path';
import Papa from 'papaparse';
import { format, resolveConfig } from 'prettier';
import type { Questionnaire } from '../src/core/document/types';
import { planOf } from '../src/core/routing/planner';
import { costOfRows, tablesOfAMillion } from './audit-rows';
import { figureKeeper } from './figures';
import { markdown } from './timing';

const root = process.cwd();
const study = path.join(root, 'demo', 'tern-valley-home-heating.fork.json');
const command = path.join(root, 'bin', 'jolly-fork');
const LENGTHS = [10_000, 100_000, 1_000_000] as const;
/** Rows made up; longer files hold them again and again. */
const DIFFERENT = 10_000;

interface Measured {
  readonly rows: number;
  readonly cores: number;
  readonly megabytes: number;
  readonly seconds: number;
  readonly peak: number;
}

export async function measureAudit(): Promise<void> {
  const keepFigures = await figureKeeper();
  const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-bench-'));
  const data = path.join(folder, 'rows.csv');
  const plan = planOf(JSON.parse(readFileSync(study, 'utf8')) as Questionnaire);
  const { head, rows: body } = collectedRows(folder);
  const costs = costOfRows(plan, head, body);
  const tables = await tablesOfAMillion(plan, head, body);
  const text = `${Papa.unparse(body, { newline: '\r\n' })}\r\n`;
  const measured: Measured[] = [];
  for (const rows of LENGTHS) {
    const file = openSync(data, 'w');
    writeSync(file, `${head.join(',')}\r\n`);
    for (let n = 0; n < rows / DIFFERENT; n += 1) writeSync(file, text);
    closeSync(file);
    const megabytes = statSync(data).size / 1e6;
    for (const cores of new Set([1, availableParallelism()]))
      measured.push({ rows, cores, megabytes, ...(await audit(data, folder, cores)) });
  }
  rmSync(folder, { recursive: true });
  const page = `# How fast an audit is

Written by \`npm run bench -- audit\`. The heating study, ${head.length} columns; made-up respondents with every code for what
was not asked taken away, held against the routing. Times depend on the machine, which does other things, too; ratios
within one run say more.

## A row, on one thread

What is read is text in memory, and what is written are bytes: no file is in it. Least of several runs. To reach: 80,000
rows without a fault judged a second, a tenth of that with one each, and in all at most three times the package alone.

${costs.table}

## \`jolly-fork audit\`, from a file to a file

With the start of the command in it. A file of less than 4 MB is audited by one thread.

${markdown(
  ['rows', 'cores', 'MB of CSV', 'seconds', 'rows a second', 'peak memory'],
  measured.map((each) => [
    each.rows.toLocaleString('en-GB'),
    String(each.cores),
    each.megabytes.toFixed(0),
    each.seconds.toFixed(1),
    Math.round(each.rows / each.seconds).toLocaleString('en-GB'),
    `${each.peak.toFixed(0)} MB`,
  ]),
)}

## Tables

Of the same rows a hundred times, once they are read. Times of one run. To reach: a table within 2,000.

${tables.table}
`;
  const file = path.join(root, 'docs', 'performance-audit.md');
  writeFileSync(file, await format(page, { ...(await resolveConfig(file)), parser: 'markdown' }));
  process.stdout.write(page);
  await keepFigures({
    audited: { reached: costs.judged },
    faulty: { reached: costs.faulty },
    packageAlone: { reached: costs.toPackage },
    tabulated: { reached: tables.cross },
  });
}

/** As somebody collected them: blank where nothing was asked. */
function collectedRows(folder: string): { head: string[]; rows: string[][] } {
  const file = path.join(folder, 'made-up.csv');
  spawnSync('node', [command, 'simulate', study, '-n', String(DIFFERENT), '--seed', '1', '--out', file]);
  const [head = [], ...rows] = Papa.parse<string[]>(readFileSync(file, 'utf8').trimEnd()).data;
  const blank = rows.map((row) => row.map((cell) => (cell === '-1' || cell === '-2' ? '' : cell)));
  return { head, rows: blank };
}

/** Seconds, and megabytes of memory at the peak, as the system counts them. */
async function audit(
  data: string,
  folder: string,
  cores: number,
): Promise<{ seconds: number; peak: number }> {
  const args = [
    '-c',
    cores === 1 ? '0' : `0-${cores - 1}`,
    'node',
    command,
    'audit',
    study,
    '--data',
    data,
    '--out',
    path.join(folder, 'coded.csv'),
    '--json',
  ];
  const start = performance.now();
  const child = spawn('taskset', args, { stdio: ['ignore', 'ignore', 'inherit'] });
  let peak = 0;
  const look = setInterval(() => {
    try {
      const found = /VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'));
      peak = Math.max(peak, Number(found?.[1] ?? 0) / 1024);
    } catch {
      // It has just ended.
    }
  }, 50);
  const code = await new Promise((resolve) => child.on('close', resolve));
  clearInterval(look);
  if (code !== 0) throw new Error(`the audit ended with ${String(code)}`);
  return { seconds: (performance.now() - start) / 1000, peak };
}
