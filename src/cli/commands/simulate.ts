/** `jolly-fork simulate FILE -n N --seed S --out rows.csv`: coded data of made-up respondents. */
import { closeSync, openSync, writeSync } from 'node:fs';
import { columnsOf } from '../../core/coding/columns';
import { csvLines } from '../../core/exchange/csv';
import { planOf } from '../../core/routing/planner';
import { madeUpRespondents } from '../../core/simulate/respondents';
import { Misuse, readCall, readQuestionnaire, readWhole } from '../files';
import { exitCode, judge } from '../judged';
import { table } from '../table';

const OPTIONS = {
  n: { type: 'string', short: 'n' },
  seed: { type: 'string' },
  out: { type: 'string' },
} as const;

/** Rows written at once. */
const CHUNK = 500;

export function command(args: readonly string[]): number {
  const { file, values } = readCall(args, OPTIONS);
  const count = readWhole(values.n, '-n', 1);
  const seed = readWhole(values.seed ?? '1', '--seed', 0);
  if (typeof values.out !== 'string') throw new Misuse('simulate needs --out rows.csv');
  const plan = planOf(readQuestionnaire(file));
  const columns = columnsOf(plan);
  const endings = new Map<string, number>(plan.endings.map(({ ending }) => [ending.id, 0]));
  let stopped = 0;

  const out = openOut(values.out);
  writeSync(out, csvLines([columns.map(({ name }) => name)]));
  let rows: (number | string)[][] = [];
  for (const respondent of madeUpRespondents(plan, count, seed)) {
    rows.push([...respondent.row()]);
    const id = respondent.ending === null ? undefined : plan.endings[respondent.ending]?.ending.id;
    if (id === undefined) stopped += 1;
    else endings.set(id, (endings.get(id) ?? 0) + 1);
    if (rows.length < CHUNK) continue;
    writeSync(out, csvLines(rows));
    rows = [];
  }
  if (rows.length > 0) writeSync(out, csvLines(rows));
  closeSync(out);

  const judged = judge(plan);
  const { provisional } = judged;
  const output = {
    ...(provisional ? { provisional } : {}),
    respondents: count,
    columns: columns.length,
    endings: [...endings].map(([id, respondents]) => ({ id, respondents })),
    stopped,
  };
  process.stdout.write(values.json ? `${JSON.stringify(output, null, 2)}\n` : report(values.out, output));
  return exitCode(['simulate', ...args], judged);
}

function openOut(path: string): number {
  try {
    return openSync(path, 'w');
  } catch (error) {
    throw new Misuse(`--out ${path}: cannot be written (${(error as NodeJS.ErrnoException).code})`);
  }
}

function report(
  file: string,
  output: {
    respondents: number;
    columns: number;
    endings: { id: string; respondents: number }[];
    stopped: number;
    provisional?: boolean;
  },
): string {
  const share = (count: number) => `${((100 * count) / output.respondents).toFixed(1)}%`;
  const rows = output.endings.map(({ id, respondents }) => [id, String(respondents), share(respondents)]);
  if (output.stopped > 0) rows.push(['(stuck part-way)', String(output.stopped), share(output.stopped)]);
  return [
    `${output.respondents} made-up respondents in ${output.columns} columns, written to ${file}.`,
    ...(output.provisional ? ['Provisional: the questionnaire has errors (see jolly-fork check).'] : []),
    '',
    table(['ending', 'respondents', 'share'], rows, [1, 2]),
    '',
  ].join('\n');
}
