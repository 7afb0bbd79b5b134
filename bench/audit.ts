/**
 * `npm run bench -- audit`: how fast `jolly-fork audit` is on files of growing length, and how much memory it takes at
 * most, on one core. Writes docs/performance-audit.md.
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
import { markdown } from './timing';

const root = process.cwd();
const study = path.join(root, 'demo', 'tern-valley-home-heating.fork.json');
const command = path.join(root, 'bin', 'jolly-fork');
const LENGTHS = [10_000, 100_000, 1_000_000] as const;
/** Rows made up; longer files hold them again and again. */
const DIFFERENT = 10_000;

interface Measured {
  readonly rows: number;
  readonly megabytes: number;
  readonly seconds: number;
  readonly peak: number;
}

export async function measureAudit(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-bench-'));
  const data = path.join(folder, 'rows.csv');
  const measured: Measured[] = [];
  const { head, body } = collectedRows(folder);
  const columns = head.split(',').length;
  for (const rows of LENGTHS) {
    const file = openSync(data, 'w');
    writeSync(file, `${head}\r\n`);
    for (let n = 0; n < rows / DIFFERENT; n += 1) writeSync(file, body);
    closeSync(file);
    measured.push({ rows, megabytes: statSync(data).size / 1e6, ...(await audit(data, folder)) });
  }
  rmSync(folder, { recursive: true });
  const [first] = measured as [Measured];
  const perRow = ({ seconds, rows }: Measured) => seconds / rows;
  const text = `# How fast an audit is

Written by \`npm run bench -- audit\`. The heating study, ${columns} columns; made-up respondents with every code for what
was not asked taken away, held against the routing by \`jolly-fork audit\`, reading and writing CSV, on one core of
${availableParallelism()}. Times depend on the machine; that time a row and memory do not grow with the file is what
matters.

${markdown(
  ['rows', 'MB of CSV', 'seconds', 'rows a second', 'time a row, to the first', 'peak memory'],
  measured.map((each) => [
    each.rows.toLocaleString('en-GB'),
    each.megabytes.toFixed(0),
    each.seconds.toFixed(1),
    Math.round(each.rows / each.seconds).toLocaleString('en-GB'),
    `${(perRow(each) / perRow(first)).toFixed(2)}×`,
    `${each.peak.toFixed(0)} MB`,
  ]),
)}
`;
  const page = path.join(root, 'docs', 'performance-audit.md');
  writeFileSync(page, await format(text, { ...(await resolveConfig(page)), parser: 'markdown' }));
  process.stdout.write(text);
}

/** As somebody collected them: blank where nothing was asked. */
function collectedRows(folder: string): { head: string; body: string } {
  const file = path.join(folder, 'made-up.csv');
  spawnSync('node', [command, 'simulate', study, '-n', String(DIFFERENT), '--seed', '1', '--out', file]);
  const [head = [], ...rows] = Papa.parse<string[]>(readFileSync(file, 'utf8').trimEnd()).data;
  const blank = rows.map((row) => row.map((cell) => (cell === '-1' || cell === '-2' ? '' : cell)));
  return { head: head.join(','), body: `${Papa.unparse(blank, { newline: '\r\n' })}\r\n` };
}

/** Seconds, and megabytes of memory at the peak, as the system counts them. */
async function audit(data: string, folder: string): Promise<{ seconds: number; peak: number }> {
  const args = [
    '-c',
    '0',
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
