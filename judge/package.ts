/** The package of the demo, unpacked in a folder of its own, with the study and rows it was made of. */
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { spawnSync } from 'node:child_process';
import { readDocumentText } from '../src/core/document/read';
import type { Question, Questionnaire } from '../src/core/document/types';
import { madeUpRows, type DataRows } from '../src/core/release/data/rows';
import { planOf } from '../src/core/routing/planner';
import type { Plan } from '../src/core/routing/plan';
import { Dataset } from '../src/core/tables/dataset';
import { frequencyOf } from '../src/core/tables/frequency';
import { tableVariables } from '../src/core/tables/variables';

export interface Unpacked {
  readonly document: Questionnaire;
  readonly plan: Plan;
  readonly questions: readonly Question[];
  readonly rows: DataRows;
  /** Paths within `folder`. */
  readonly files: readonly string[];
  readonly folder: string;
  /** By column and code, as Tables counts them: codes and picks, and why there is no answer. */
  readonly counts: ReadonlyMap<string, number>;
}

const STUDY = path.join('demo', 'tern-valley-home-heating.fork.json');

export async function unpacked(): Promise<Unpacked> {
  const read = readDocumentText(readFileSync(STUDY, 'utf8'));
  if (!read.ok) throw new Error('the demo study cannot be read');
  const { document } = read;
  const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-judge-'));
  const zip = path.join(folder, 'package.zip');
  called('node', ['bin/jolly-fork', 'convert', STUDY, '--to', 'package', '--out', zip]);
  called('unzip', ['-q', zip, '-d', folder]);
  const plan = planOf(document);
  const rows = madeUpRows(plan, 1000, 1);
  return {
    document,
    plan,
    questions: document.sections
      .flatMap(({ items }) => items)
      .filter((item): item is Question => item.kind === 'question'),
    rows,
    files: listed(folder),
    folder,
    counts: countsOf(plan, rows),
  };
}

function listed(folder: string, within = ''): string[] {
  return readdirSync(path.join(folder, within), { withFileTypes: true }).flatMap((entry) => {
    const name = path.join(within, entry.name);
    return entry.isDirectory() ? listed(folder, name) : [name];
  });
}

/** What it printed; throws where it ends with anything but 0. */
export function called(program: string, args: readonly string[], cwd?: string): string {
  const { status, stdout, stderr } = spawnSync(program, args, { encoding: 'utf8', cwd, maxBuffer: 1e9 });
  if (status !== 0) throw new Error(`${program} ended with ${status}: ${stderr.slice(0, 2000)}`);
  return stdout;
}

function countsOf(plan: Plan, { rows }: DataRows): Map<string, number> {
  const data = Dataset.ofRows(plan, rows);
  const all = rows.map((_, n) => n);
  const counts = new Map<string, number>();
  for (const variable of tableVariables(plan)) {
    // Passes together, and picks together, are more than one column.
    if (variable.kind !== 'codes' || variable.passes.length !== 1) continue;
    const [columns = []] = variable.passes;
    const [only, ...others] = columns;
    if (only === undefined || others.length > 0) continue;
    const column = data.columns[only.index]?.name ?? '';
    const { rows: answers, missing } = frequencyOf(plan.document, data, variable, all);
    for (const { code, count } of [...answers, ...missing]) counts.set(`${column} ${code}`, count);
  }
  return counts;
}

/** The one file whose name ends so. */
export function fileOf({ files, folder }: Unpacked, ending: string): string {
  const found = files.find((file) => file.endsWith(ending));
  if (found === undefined) throw new Error(`the package has no file ending with ${ending}`);
  return path.join(folder, found);
}
