/** CSVW metadata as variables; with a table of codes beside it, as we write one, with their labels. */
import * as v from 'valibot';
import { fromVariables, tablesLeft, type DataVariable, type VariablesRead } from './from-variables';

const Words = v.union([v.string(), v.array(v.string()), v.record(v.string(), v.unknown())]);
const Limit = v.optional(v.union([v.string(), v.number()]));
const Column = v.looseObject({
  name: v.optional(v.string()),
  titles: v.optional(Words),
  'dc:title': v.optional(Words),
  'dc:description': v.optional(Words),
  'rdfs:label': v.optional(Words),
  datatype: v.optional(
    v.union([
      v.string(),
      v.looseObject({
        base: v.optional(v.string()),
        minimum: Limit,
        maximum: Limit,
        minInclusive: Limit,
        maxInclusive: Limit,
      }),
    ]),
  ),
  null: v.optional(v.union([v.string(), v.array(v.string())])),
  virtual: v.optional(v.boolean()),
});
const Table = v.looseObject({
  url: v.optional(v.string()),
  tableSchema: v.looseObject({ columns: v.array(Column) }),
});
const Metadata = v.looseObject({ 'dc:title': v.optional(Words), '@context': v.optional(v.unknown()) });
const Group = v.looseObject({ tables: v.array(v.unknown()) });

type ColumnRead = v.InferOutput<typeof Column>;
/** A row of the table of codes: variable, code, label, and why it is none. */
export type CodeRow = readonly [variable: string, code: string, label: string, missing: string];

/** `json`: as it was parsed; whatever it is. `codes`: without its head. */
export function readCsvw(json: unknown, title: string, codes: readonly CodeRow[] = []): VariablesRead {
  const group = v.safeParse(Group, json);
  const tables = (group.success ? group.output.tables : [json]).flatMap((each) => {
    const table = v.safeParse(Table, each);
    return table.success ? [table.output] : [];
  });
  const [first, ...others] = tables;
  const about = v.safeParse(Metadata, json);
  if (first === undefined || !about.success)
    return {
      ok: false,
      problems: ['It says of no table what its columns are: “tableSchema” with “columns” is needed.'],
    };
  const byVariable = new Map<string, CodeRow[]>();
  for (const row of codes) byVariable.set(row[0], [...(byVariable.get(row[0]) ?? []), row]);
  const columns = first.tableSchema.columns.filter(({ virtual }) => virtual !== true);
  const read = fromVariables(
    wordsOf(about.output['dc:title']) || title,
    languageOf(about.output['@context']),
    columns.map((column, n) => variableOf(column, n, byVariable)),
  );
  // A table of codes is ours, and was read.
  const more = others.filter(({ url }) => codes.length === 0 || url !== 'codes.csv');
  const told = tablesLeft(more.length, columns.length + 1);
  return read.ok && told !== null ? { ...read, doubts: [...read.doubts, told] } : read;
}

function wordsOf(words: v.InferOutput<typeof Words> | undefined): string {
  if (words === undefined) return '';
  if (typeof words === 'string') return words;
  const [first] = Array.isArray(words) ? words : Object.values(words).flat();
  return typeof first === 'string' ? first : '';
}

function languageOf(context: unknown): string | null {
  const found = Array.isArray(context)
    ? context.map((each: unknown) => v.safeParse(v.looseObject({ '@language': v.string() }), each))
    : [];
  for (const each of found) if (each.success) return each.output['@language'];
  return null;
}

const HOLDS: Readonly<Record<string, DataVariable['holds']>> = {
  integer: 'whole',
  int: 'whole',
  long: 'whole',
  short: 'whole',
  byte: 'whole',
  nonNegativeInteger: 'whole',
  positiveInteger: 'whole',
  decimal: 'number',
  number: 'number',
  double: 'number',
  float: 'number',
  date: 'date',
  time: 'time',
  dateTime: 'datetime',
  datetime: 'datetime',
};

function variableOf(
  column: ColumnRead,
  n: number,
  codes: ReadonlyMap<string, readonly CodeRow[]>,
): DataVariable {
  const titles = wordsOf(column.titles);
  const name = column.name ?? (titles || `column_${n + 1}`);
  const { datatype, null: nulls } = column;
  const type = typeof datatype === 'object' ? datatype : { base: datatype };
  const limits = typeof datatype === 'object' ? datatype : {};
  const limit = (value: string | number | undefined) => (value === undefined ? null : String(value));
  const known = codes.get(name) ?? [];
  const label =
    wordsOf(column['rdfs:label']) || wordsOf(column['dc:title']) || (titles === name ? '' : titles);
  const none = (nulls === undefined ? [] : [nulls].flat()).filter((code) => code !== '');
  return {
    name,
    label,
    question: wordsOf(column['dc:description']),
    holds: HOLDS[type.base ?? 'string'] ?? 'text',
    measure: '',
    values: known.flatMap(([, code, words, missing]) => (missing === '' ? [{ code, label: words }] : [])),
    missing: none.map((code) => ({ code, label: known.find((row) => row[1] === code)?.[2] ?? '' })),
    least: limit(limits.minimum ?? limits.minInclusive),
    most: limit(limits.maximum ?? limits.maxInclusive),
  };
}
