/** `jolly-fork audit FILE --data rows.csv --out coded.csv`: collected rows held against the routing, row by row. */
import { headerProblem, raggedProblem } from '../../core/audit/matching';
import { AuditRun } from '../../core/audit/run';
import type { RowProblem } from '../../core/audit/types';
import { planOf } from '../../core/routing/planner';
import { problemAt, problemWords } from '../../core/wording/audit';
import { Misuse, readCall, readQuestionnaire } from '../files';
import { exitCode, judge } from '../judged';
import { table } from '../table';
import { createRows, openRows, type RowsWriter } from '../table-files';

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

  let run: AuditRun | null = null;
  let writer: RowsWriter | null = null;
  try {
    for await (const bunch of source.rows) {
      const written: (string | number)[][] = [];
      for (const cells of bunch) {
        if (run === null) {
          const refused = headerProblem(cells);
          if (refused !== null) throw new Misuse(`${data}: ${refused}`);
          if (caseColumn !== null && !cells.some((name) => name.trim() === caseColumn))
            throw new Misuse(`${data}: there is no column “${caseColumn}” for --case`);
          const said = Object.fromEntries(keep.map((name) => [name, null]));
          run = new AuditRun(plan, cells, options, said, caseColumn);
          for (const problem of run.columnProblems) problems.add(0, problem);
          writer = await createRows(out, source.format);
          writer.write([run.outHeader]);
          continue;
        }
        const ragged = raggedProblem(run.counts.rows + 1, cells, run.matching.header.length);
        if (ragged !== null) throw new Misuse(`${data}: ${ragged}`);
        const audited = run.row(cells);
        for (const problem of audited.problems) problems.add(audited.row, problem);
        written.push(audited.cells as (string | number)[]);
      }
      writer?.write(written);
    }
    if (run === null || writer === null) throw new Misuse(`${data}: there is no row in this file`);
    await writer.end();
  } catch (error) {
    writer?.abandon();
    throw error;
  }
  const judged = judge(plan);
  const { provisional } = judged;
  const { rows, clean, filled, recoded } = run.counts;
  if (values.json)
    problems.end({
      ...(provisional ? { provisional } : {}),
      rows,
      clean,
      filled,
      recoded,
      readAs: source.readAs,
    });
  else process.stdout.write(report(run, source.readAs, out, problems.told, provisional));
  return exitCode(['audit', ...args], judged);
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
  { counts }: AuditRun,
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
