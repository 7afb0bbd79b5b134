/** `jolly-fork audit FILE --data rows.csv --out coded.csv`: collected rows held against the routing, row by row. */
import { availableParallelism } from 'node:os';
import { auditedInOrder } from '../../core/collected/in-order';
import { headerProblem } from '../../core/audit/matching';
import type { AuditSetting } from '../../core/collected/piece';
import { AuditRun, type AuditCounts } from '../../core/audit/run';
import { AuditTotals } from '../../core/collected/totals';
import type { RowProblem } from '../../core/audit/types';
import { takeHeader } from '../../core/exchange/pieces';
import { planOf } from '../../core/routing/planner';
import { problemAt, problemWords } from '../../core/wording/audit';
import { openAuditors } from '../auditors';
import { Misuse, readCall, readQuestionnaire } from '../files';
import { exitCode, judge } from '../judged';
import { table } from '../table';
import { createRows, isWorkbookName, openRows, type RowsWriter } from '../table-files';

const OPTIONS = {
  data: { type: 'string' },
  out: { type: 'string' },
  keep: { type: 'string' },
  case: { type: 'string' },
  encoding: { type: 'string' },
  'code-blanks': { type: 'boolean' },
  'blank-picks': { type: 'boolean' },
} as const;

/** Problems told in the readable report. */
const TOLD = 20;
/** Text gathered before it is written. */
const PIECE = 65_536;
/** Bytes from which on it pays to start threads, which load and work out the questionnaire first. */
const WORTH_THREADS = 4_000_000;
/** As a shell has it of what was stopped by Ctrl+C. */
const STOPPED = 130;
/** Milliseconds before anything is told of how far it has come, and between two times. */
const TELL_AFTER = 1000;
const TELL_EVERY = 200;

export async function command(args: readonly string[]): Promise<number> {
  const { file, values } = readCall(args, OPTIONS);
  const { data, out } = values;
  if (typeof data !== 'string') throw new Misuse('audit needs --data rows.csv');
  if (typeof out !== 'string') throw new Misuse('audit needs --out coded.csv');
  if (out === data) throw new Misuse('--out would overwrite --data: give it another name');
  const plan = planOf(readQuestionnaire(file));
  const source = await openRows(data, typeof values.encoding === 'string' ? values.encoding : undefined);
  const keep = typeof values.keep === 'string' ? values.keep.split(',').map((name) => name.trim()) : [];
  const options = { codeBlanks: values['code-blanks'] === true, blankPicks: values['blank-picks'] === true };
  const caseColumn = typeof values.case === 'string' ? values.case.trim() : null;
  const problems = values.json ? jsonProblems() : firstProblems();
  const progress = progressLine();

  const { format } = source;
  const taken = await takeHeader(source.pieces, format);
  if (taken === null) throw new Misuse(`${data}: there is no row in this file`);
  const { header, newline, rest } = taken;
  const refused = headerProblem(header);
  if (refused !== null) throw new Misuse(`${data}: ${refused}`);
  if (caseColumn !== null && !header.some((name) => name.trim() === caseColumn))
    throw new Misuse(`${data}: there is no column “${caseColumn}” for --case`);
  const said = Object.fromEntries(keep.map((name) => [name, null]));
  const setting: AuditSetting = {
    header,
    options,
    said,
    caseColumn,
    format,
    newline,
    keepsRows: false,
    tabulates: false,
  };
  const run = new AuditRun(plan, header, options, said, caseColumn);
  const totals = new AuditTotals(header.length, run.caseColumn, run.columnProblems);
  for (const problem of run.columnProblems) problems.add(0, problem);
  // Rows of a workbook go into it cell by cell, and writing it takes longer than all the rest.
  const cores = availableParallelism();
  const threads = isWorkbookName(out) || source.size < WORTH_THREADS || cores < 2 ? 0 : cores;
  const auditors = openAuditors(plan, setting, isWorkbookName(out) ? 'cells' : 'csv', threads);
  let begun: RowsWriter | null = null;
  const stop = () => {
    begun?.abandon();
    process.exit(STOPPED);
  };
  // From before there is anything that could stay behind.
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  const writer = await createRows(out, format);
  begun = writer;
  try {
    writer.write([run.outHeader]);
    for await (const { from, audited } of auditedInOrder(rest, auditors)) {
      const added = totals.add(audited);
      if (added.refused !== null) throw new Misuse(`${data}: ${added.refused}`);
      for (const { row, ...problem } of added.problems) problems.add(row, problem);
      writer.write(audited.written);
      progress.tell(from.share, totals.counts.rows);
    }
    await writer.end();
  } catch (error) {
    writer.abandon();
    throw error;
  } finally {
    process.off('SIGINT', stop);
    process.off('SIGTERM', stop);
    progress.end();
    for (const auditor of auditors) auditor.end();
  }
  const judged = judge(plan);
  const { provisional } = judged;
  const { rows, clean, filled, recoded } = totals.counts;
  if (values.json)
    problems.end({
      ...(provisional ? { provisional } : {}),
      rows,
      clean,
      filled,
      recoded,
      readAs: source.readAs,
    });
  else process.stdout.write(report(totals.counts, source.readAs, out, problems.told, provisional));
  return exitCode(['audit', ...args], judged);
}

/** A line that says how far it has come, for whoever watches a terminal. */
function progressLine(): { tell(share: number, rows: number): void; end(): void } {
  if (!process.stderr.isTTY) return { tell: () => undefined, end: () => undefined };
  const started = Date.now();
  let told = 0;
  return {
    tell(share, rows) {
      const now = Date.now();
      if (now - started < TELL_AFTER || now - told < TELL_EVERY) return;
      told = now;
      const words = share === 0 ? '' : `${Math.floor(100 * share)}% of the file, `;
      process.stderr.write(`\r${words}${rows.toLocaleString('en')} rows\u001B[K`);
    },
    end: () => void (told > 0 && process.stderr.write('\r\u001B[K')),
  };
}

interface Problems {
  readonly told: readonly (RowProblem & { readonly row: number })[];
  add(row: number, problem: RowProblem): void;
  end(rest: object): void;
}

/** Written as they come, so that any number of them takes no memory. */
function jsonProblems(): Problems {
  let text = '{\n  "problems": [';
  let first = true;
  const flush = () => {
    process.stdout.write(text);
    text = '';
  };
  return {
    told: [],
    add: (row, { column, problem, value }) => {
      text += `${first ? '' : ','}\n    ${JSON.stringify({ row, column, problem, value })}`;
      first = false;
      if (text.length > PIECE) flush();
    },
    end: (rest) => {
      text += `${first ? '' : '\n  '}],\n${JSON.stringify(rest, null, 2).slice(2)}\n`;
      flush();
    },
  };
}

function firstProblems(): Problems {
  const told: (RowProblem & { row: number })[] = [];
  return {
    told,
    add: (row, problem) => {
      if (told.length < TOLD) told.push({ row, ...problem });
    },
    end: () => {},
  };
}

function report(
  counts: AuditCounts,
  readAs: string,
  out: string,
  told: Problems['told'],
  provisional: boolean,
): string {
  const { rows, clean, filled, recoded, byProblem, byEnding, byColumn } = counts;
  const lines = [
    `${rows} rows, read as ${readAs}; ${clean} of them without a problem.`,
    `${filled} blanks filled in that follow from the routing, ${recoded} labels written as codes, in ${out}.`,
    ...(provisional ? ['Provisional: the questionnaire has errors (see jolly-fork check).'] : []),
    '',
    table(
      ['ended', 'rows'],
      [...byEnding].map(([id, count]) => [id === '' ? '(stopped part-way)' : id, String(count)]),
      [1],
    ),
    '',
  ];
  if (byProblem.size === 0) return [...lines, 'No problems.', ''].join('\n');
  const kinds = [...byProblem]
    .sort((a, b) => b[1] - a[1])
    .map(([kind, count]) => [kind, String(count), problemWords(kind)]);
  const columns = [...byColumn].map(([name, own]) => [
    name,
    String([...own.values()].reduce((a, b) => a + b, 0)),
  ]);
  columns.sort((a, b) => Number(b[1]) - Number(a[1]));
  return [
    ...lines,
    table(['problem', 'times', 'what it means'], kinds, [1]),
    '',
    table(['column', 'problems'], columns.slice(0, TOLD), [1]),
    ...(columns.length > TOLD ? [`and ${columns.length - TOLD} columns more`] : []),
    '',
    table(
      ['row', 'column', 'problem', 'value'],
      told.map((each) => [
        each.row === 0 ? '' : String(each.row),
        each.column,
        problemAt(each, (id) => id),
        each.value,
      ]),
      [0],
    ),
    ...(counts.problems > told.length
      ? [`and ${counts.problems - told.length} more; all of them with --json`]
      : []),
    '',
  ].join('\n');
}
