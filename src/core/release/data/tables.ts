/** The rows as CSV, and the list of codes that goes with them. */
import { csvLines } from '../../exchange/csv';
import type { DataField } from './fields';
import type { DataRows } from './rows';

/** What the file with the rows is called, beside whatever tells of it. */
export const DATA_FILE = 'data.csv';
export const CODES_FILE = 'codes.csv';
export const CODES_HEAD = ['variable', 'code', 'label', 'missing'] as const;

/** The rows go beside several files that tell of them, and are written once. */
const written = new WeakMap<DataRows, string>();

export function dataCsv(fields: readonly DataField[], data: DataRows): string {
  let text = written.get(data);
  if (text === undefined) {
    text = csvLines([fields.map(({ name }) => name), ...data.rows]);
    written.set(data, text);
  }
  return text;
}

/** Of every variable: its codes, with the reason where one stands for no answer. */
export function codesCsv(fields: readonly DataField[]): string {
  const rows = fields.flatMap(({ name, values, missing }) => [
    ...values.map(({ code, label }) => [name, code, label, '']),
    ...missing.map(({ code, label, reason }) => [name, code, label, reason]),
  ]);
  return csvLines([[...CODES_HEAD], ...rows]);
}
