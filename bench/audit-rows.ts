/**
 * What auditing a row costs on one thread, apart from any file, beside reading and writing the same rows with the CSV
 * package alone; and tables of a million audited rows. Least times of several runs: the machine does other things, too.
 */
import Papa from 'papaparse';
import { auditorHere, type AuditSetting } from '../src/core/collected/piece';
import { AuditRun } from '../src/core/audit/run';
import { CsvRows } from '../src/core/exchange/csv';
import { csvBytes } from '../src/core/exchange/csv-bytes';
import type { Plan } from '../src/core/routing/plan';
import { CellTable } from '../src/core/tables/cell-columns';
import { crossOf } from '../src/core/tables/cross';
import { Dataset } from '../src/core/tables/dataset';
import { filterRows } from '../src/core/tables/filter';
import { frequencyOf } from '../src/core/tables/frequency';
import { tableVariables } from '../src/core/tables/variables';
import { markdown, times } from './timing';

const FORMAT = { delimiter: ',', quote: '"' };
const RUNS = 7;
const PIECE = 1 << 18;
const MILLION = 1_000_000;
const CROSS = 'one variable against another';
/** As a spreadsheet takes for a formula: the package is asked to look, as an audit is. */
const escapeFormulae = /^[=@\t\r\n]|^[+-](?!\d+([.,]\d+)?$|$)/;

/** Microseconds a row. */
interface Costs {
  readonly read: number;
  readonly judge: number;
  readonly write: number;
}

function least(of: () => Costs): Costs {
  let found = of();
  for (let n = 1; n < RUNS; n += 1) {
    const { read, judge, write } = of();
    found = {
      read: Math.min(found.read, read),
      judge: Math.min(found.judge, judge),
      write: Math.min(found.write, write),
    };
  }
  return found;
}

function costs(
  text: string,
  judge: (rows: string[][]) => (string | number)[][],
  write: (rows: (string | number)[][]) => unknown,
): Costs {
  const reader = new CsvRows(FORMAT);
  const took = { read: 0, judge: 0, write: 0 };
  let rows = 0;
  for (let at = 0; at < text.length; at += PIECE) {
    const start = performance.now();
    const piece = reader.push(text.slice(at, at + PIECE), at + PIECE >= text.length);
    const read = performance.now();
    const judged = judge(piece);
    const then = performance.now();
    write(judged);
    took.write += performance.now() - then;
    took.read += read - start;
    took.judge += then - read;
    rows += piece.length;
  }
  const each = (ms: number) => (1000 * ms) / rows;
  return { read: each(took.read), judge: each(took.judge), write: each(took.write) };
}

/** Every row with one cell that holds something else, here and there. */
function withFaults(rows: readonly string[][]): string[][] {
  return rows.map((row, n) => {
    const full = row.flatMap((cell, at) => (cell !== '' && at < row.length - 1 ? [at] : []));
    const other = row.slice();
    other[full[(n * 7) % full.length] ?? 0] = n % 2 === 0 ? '' : '777';
    return other;
  });
}

/** The table, and what of it is held against targets. */
export function costOfRows(
  plan: Plan,
  head: readonly string[],
  body: readonly string[][],
): { readonly table: string; readonly judged: number; readonly faulty: number; readonly toPackage: number } {
  const textOf = (rows: readonly string[][]) =>
    `${Papa.unparse(rows as string[][], { newline: '\r\n' })}\r\n`;
  const audited = (rows: readonly string[][]) => {
    const run = new AuditRun(plan, head);
    const text = textOf(rows);
    return least(() =>
      costs(
        text,
        (piece) => piece.map((row) => run.row(row).cells as (string | number)[]),
        (judged) => csvBytes(judged, FORMAT),
      ),
    );
  };
  const clean = audited(body);
  const faulty = audited(withFaults(body.slice(0, 2000)));
  const text = textOf(body);
  const plain = least(() =>
    costs(
      text,
      (piece) => piece,
      (rows) => Buffer.from(Papa.unparse(rows, { newline: '\r\n', escapeFormulae })),
    ),
  );
  const all = ({ read, judge, write }: Costs) => read + judge + write;
  const line = (words: string, of: Costs) => [
    words,
    of.read.toFixed(1),
    of.judge < 0.1 ? '' : of.judge.toFixed(1),
    of.write.toFixed(1),
    of.judge < 0.1 ? '' : Math.round(1e6 / of.judge).toLocaleString('en-GB'),
    Math.round(1e6 / all(of)).toLocaleString('en-GB'),
    times(all(of), all(plain)),
  ];
  const table = markdown(
    [
      'rows',
      'read, µs a row',
      'judged',
      'written',
      'judged a second',
      'in all a second',
      'to the package alone',
    ],
    [
      line('without a fault', clean),
      line('with one fault each', faulty),
      line('read and written by the package alone', plain),
    ],
  );
  return {
    table,
    judged: 1e6 / clean.judge,
    faulty: all(faulty) / all(clean),
    toPackage: all(clean) / all(plain),
  };
}

export async function tablesOfAMillion(
  plan: Plan,
  head: readonly string[],
  body: readonly string[][],
): Promise<{ readonly table: string; readonly cross: number }> {
  const setting: AuditSetting = {
    ...{ header: head, options: {}, said: {}, caseColumn: null, format: FORMAT, newline: '\r\n' },
    ...{ keepsRows: false, tabulates: true },
  };
  const { columns } = await auditorHere(plan, setting).audit(body as string[][]);
  const table = new CellTable(head.length);
  while (table.count < MILLION) table.append(columns ?? []);
  const timesOf: [string, number][] = [];
  const measure = <Result>(words: string, work: () => Result): Result => {
    const start = performance.now();
    const result = work();
    timesOf.push([words, performance.now() - start]);
    return result;
  };
  const data = measure('read for tables', () => new Dataset(plan, table.columns()));
  const variables = tableVariables(plan);
  const every = Uint32Array.from({ length: data.count }, (_, row) => row);
  const of = (id: string) => variables.find((each) => each.id === id) ?? variables[0];
  measure(`frequencies of every variable (${variables.length})`, () =>
    variables.map((variable) => frequencyOf(plan.document, data, variable, every)),
  );
  const [tenure, other] = [of('tenure'), of('heat_say')];
  measure(CROSS, () =>
    tenure === undefined || other === undefined ? null : crossOf(data, tenure, other, every),
  );
  measure('rows for which `tenure = 2 and adult = 1` holds', () =>
    filterRows(plan, data, 'tenure = 2 and adult = 1'),
  );
  const told = markdown(
    [`${data.count.toLocaleString('en-GB')} rows, ${head.length} columns`, 'milliseconds'],
    timesOf.map(([words, ms]) => [words, Math.round(ms).toLocaleString('en-GB')]),
  );
  const cross = timesOf.find(([words]) => words === CROSS)?.[1] ?? NaN;
  return { table: told, cross };
}
