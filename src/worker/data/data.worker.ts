/** Collected rows off the main thread: files held against the routing, and tables of rows. */
import { expose } from 'comlink';
import * as v from 'valibot';
import { PROBLEM_KINDS } from '../../core/audit/problems';
import { columnsOf } from '../../core/coding/columns';
import { documentGiven } from '../../core/document/read';
import { ENCODINGS } from '../../core/exchange/csv';
import { spreadsheetValue } from '../../core/exchange/spreadsheet';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { madeUpRespondents } from '../../core/simulate/respondents';
import { CellTable, rowsOfColumns } from '../../core/tables/cell-columns';
import { crossOf } from '../../core/tables/cross';
import { Dataset } from '../../core/tables/dataset';
import { filterRows } from '../../core/tables/filter';
import { frequencyOf } from '../../core/tables/frequency';
import { tableVariables, type TableVariable } from '../../core/tables/variables';
import { AuditTask } from './audit-task';
import { openAuditors } from './auditors';
import { openFile, rowsOf } from './read-file';
import type { Counted, DataApi, DataReply, RowSource } from './types';

const Said = v.record(v.string(), v.nullable(v.string()));
const Options = v.strictObject({ codeBlanks: v.optional(v.boolean()), blankPicks: v.optional(v.boolean()) });
const Where = v.strictObject({
  problem: v.optional(v.picklist(PROBLEM_KINDS)),
  column: v.optional(v.string()),
  row: v.optional(v.number()),
});
const Index = v.pipe(v.number(), v.integer(), v.minValue(0));
const SourceSchema = v.variant('of', [
  v.strictObject({
    of: v.literal('made-up'),
    count: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100_000)),
    seed: v.pipe(v.number(), v.integer(), v.minValue(0)),
  }),
  v.strictObject({ of: v.literal('audited') }),
  v.strictObject({ of: v.literal('rows'), key: v.string() }),
]);
const Rows = v.array(v.array(v.union([v.string(), v.number()])));

let plan: Plan | null = null;
let variables: readonly TableVariable[] = [];
let task: AuditTask | null = null;
/** The rows that were tabulated last, read for the questionnaire as it is. */
let tabulated: { readonly key: string; readonly data: Dataset } | null = null;
const handed = new Map<
  string,
  { header: readonly string[]; rows: readonly (readonly (string | number)[])[] }
>();

function current(): Plan {
  if (plan === null) throw new Error('no questionnaire is loaded yet');
  return plan;
}

function dataOf(source: RowSource): Dataset | string {
  const of = current();
  const key = JSON.stringify(source);
  if (tabulated?.key === key) return tabulated.data;
  const data = datasetOf(of, source);
  if (typeof data !== 'string') tabulated = { key, data };
  return data;
}

function datasetOf(of: Plan, source: RowSource): Dataset | string {
  switch (source.of) {
    case 'made-up':
      return Dataset.ofRows(of, rowsMadeUp(of, source.count, source.seed));
    case 'audited': {
      const columns = task?.tabulated() ?? null;
      return columns === null ? 'No file has been audited here yet.' : new Dataset(of, columns);
    }
    case 'rows': {
      const given = handed.get(source.key);
      if (given === undefined) return 'These rows are not there any more.';
      const places = columnsOf(of).map(({ name }) => given.header.indexOf(name));
      const table = new CellTable(places.length);
      for (const row of given.rows) table.add(row, places);
      return new Dataset(of, table.columns());
    }
    default:
      return source satisfies never;
  }
}

function* rowsMadeUp(of: Plan, count: number, seed: number) {
  for (const person of madeUpRespondents(of, count, seed)) yield person.row();
}

/** A table of the rows that a filter leaves. */
function counted<Table>(
  source: RowSource,
  filter: string,
  table: (data: Dataset, rows: Uint32Array) => Table | string,
): DataReply<Counted<Table>> {
  const data = dataOf(source);
  if (typeof data === 'string') return { ok: false, problem: data };
  const left = filterRows(current(), data, filter);
  if (!left.ok) return { ok: false, problem: left.problem.message, span: left.problem.span };
  const made = table(data, left.rows);
  if (typeof made === 'string') return { ok: false, problem: made };
  return { ok: true, answer: { table: made, rows: data.count, kept: left.rows.length } };
}

function variableOf(id: string): TableVariable {
  const found = variables.find((each) => each.id === id);
  if (found === undefined) throw new Error(`there is no variable ${id}`);
  return found;
}

const api: DataApi = {
  load(document) {
    plan = planOf(documentGiven(document));
    variables = tableVariables(plan);
    tabulated = null;
  },
  async open(file, encoding) {
    const opening = await openFile(
      v.parse(v.instance(File), file),
      v.parse(v.nullable(v.picklist(ENCODINGS)), encoding),
    );
    if (!opening.ok) return opening;
    const made = await AuditTask.open(opening.source);
    if (typeof made === 'string') return { ok: false, problem: made };
    task = made;
    tabulated = null;
    return { ok: true, answer: made.opened };
  },
  async cells(file) {
    const opening = await openFile(v.parse(v.instance(File), file), null);
    if (!opening.ok) return opening;
    const cells: string[][] = [];
    for await (const rows of rowsOf(opening.source)) cells.push(...rows);
    return { ok: true, answer: cells };
  },
  matching: (said) => task?.matching(current(), v.parse(Said, said)) ?? [],
  audit: async (options, said, caseColumn, progress) => {
    if (task === null) return { ok: false, problem: 'Choose a file first.' };
    const { codeBlanks = false, blankPicks = false } = v.parse(Options, options);
    tabulated = null;
    return task.audit(
      current(),
      { codeBlanks, blankPicks },
      v.parse(Said, said),
      v.parse(v.nullable(v.string()), caseColumn),
      progress,
      openAuditors,
    );
  },
  problems(where, from, count) {
    if (task === null) return { problems: [], total: 0 };
    return task.listed(v.parse(Where, where), v.parse(Index, from), v.parse(Index, count));
  },
  walked: async (row) => (await task?.walked(v.parse(v.pipe(Index, v.minValue(1)), row))) ?? null,
  file(which) {
    if (task === null) throw new Error('no file has been audited');
    return task.file(v.parse(v.picklist(['coded-csv', 'coded-xlsx', 'problems', 'changes']), which));
  },
  coded: () => ({
    header: columnsOf(current()).map(({ name }) => name),
    rows: [...rowsOfColumns(task?.tabulated() ?? [])],
  }),
  hand(key, header, rows) {
    handed.set(v.parse(v.string(), key), {
      header: v.parse(v.array(v.string()), header),
      rows: v.parse(Rows, rows),
    });
    tabulated = null;
  },
  frequency: (source, variable, filter) =>
    counted(v.parse(SourceSchema, source), v.parse(v.string(), filter), (data, rows) =>
      frequencyOf(current().document, data, variableOf(variable), rows),
    ),
  cross: (source, row, column, filter) =>
    counted(
      v.parse(SourceSchema, source),
      v.parse(v.string(), filter),
      (data, rows) =>
        crossOf(data, variableOf(row), variableOf(column), rows) ??
        'These two are not of the same cases: passes of a section go only with passes of the same section.',
    ),
  async sheet(name, rows) {
    const { default: ExcelJS } = await import('exceljs');
    const book = new ExcelJS.Workbook();
    const sheet = book.addWorksheet(v.parse(v.string(), name).slice(0, 31));
    for (const row of v.parse(Rows, rows)) sheet.addRow(row.map(spreadsheetValue));
    const bytes = await book.xlsx.writeBuffer();
    return new Blob([bytes], { type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' });
  },
};

expose(api);
