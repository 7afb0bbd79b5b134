/** Files of data: what each says of a column holds for every cell of it, and none of them loses a value. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { parquetMetadata, parquetReadObjects } from 'hyparquet';
import Papa from 'papaparse';
import { FEATURED } from '../../../../tests/agree/featured';
import { isDefused } from '../../exchange/csv';
import type { Questionnaire } from '../../document/types';
import { planOf } from '../../routing/planner';
import { csvwFiles } from './csvw';
import { dataPackageFiles } from './data-package';
import { dataFields, type DataField } from './fields';
import { PARQUET_KEY, parquetFile } from './parquet';
import { rFiles } from './r-script';
import { madeUpRows, rowsOfCsv, rowsUnder, type DataRows } from './rows';
import { dataCsv } from './tables';
import { demo as demoStudy } from '../../../../tests/support/demo';

const demo = demoStudy();
const ABOUT = { title: 'Homes “and” warmth', language: 'en', version: 'Draft' };

function made(document: Questionnaire) {
  const plan = planOf(document);
  return { plan, fields: dataFields(plan), data: madeUpRows(plan, 60, 3) };
}

const fileOf = (files: readonly { name: string; text: string | Uint8Array }[], name: string): string => {
  const found = files.find((file) => file.name === name);
  assert.ok(found !== undefined && typeof found.text === 'string');
  return found.text;
};

/** The cells of each column as they stand in the CSV. */
function cellsOf(csv: string, fields: readonly DataField[]): readonly (readonly string[])[] {
  const [header, ...rows] = Papa.parse<string[]>(csv.trimEnd()).data;
  assert.deepEqual(
    header,
    fields.map(({ name }) => name),
  );
  return fields.map((_, at) => rows.map((row) => row[at] ?? ''));
}

describe('what is said of a column holds for its cells', () => {
  const SHAPES: Readonly<Record<string, RegExp>> = {
    integer: /^-?\d+$/,
    decimal: /^-?\d+(\.\d+)?$/,
    number: /^-?\d+(\.\d+)?$/,
    date: /^\d{4}-\d\d-\d\d$/,
    time: /^\d\d:\d\d$/,
    dateTime: /^\d{4}-\d\d-\d\dT\d\d:\d\d$/,
    datetime: /^\d{4}-\d\d-\d\dT\d\d:\d\d$/,
    string: /^/,
  };
  /** Numbers as numbers, moments as text: as their type is ordered. */
  const within = (cell: string, least?: number | string, most?: number | string) => {
    const isNumber = typeof (least ?? most) === 'number';
    const order = (a: string, b: number | string) =>
      isNumber ? Number(a) - Number(b) : a < b ? -1 : a > b ? 1 : 0;
    return (least === undefined || order(cell, least) >= 0) && (most === undefined || order(cell, most) <= 0);
  };

  it('in a Data Package', () => {
    for (const document of [demo, ...(FEATURED as readonly Questionnaire[])]) {
      const { fields, data } = made(document);
      const files = dataPackageFiles(fields, data, ABOUT);
      const told = JSON.parse(fileOf(files, 'datapackage.json')) as {
        resources: [{ path: string; schema: { fields: Record<string, never>[] } }];
      };
      const [{ path, schema }] = told.resources;
      const cells = cellsOf(fileOf(files, path), fields);
      schema.fields.forEach((field, at) => {
        const {
          type,
          missingValues,
          constraints = {},
        } = field as unknown as {
          type: string;
          missingValues: { value: string }[];
          constraints?: { minimum?: number | string; maximum?: number | string; enum?: unknown[] };
        };
        const none = new Set(missingValues.map(({ value }) => value));
        for (const cell of cells[at] ?? []) {
          if (none.has(cell)) continue;
          assert.match(cell, SHAPES[type] ?? /^$/, `${String(field.name)}: ${cell}`);
          assert.ok(within(cell, constraints.minimum, constraints.maximum), `${String(field.name)}: ${cell}`);
          if (constraints.enum !== undefined) assert.ok(constraints.enum.map(String).includes(cell));
        }
      });
    }
  });

  it('in CSVW, whose table of codes names every code', () => {
    for (const document of [demo, ...(FEATURED as readonly Questionnaire[])]) {
      const { fields, data } = made(document);
      const files = csvwFiles(fields, data, ABOUT);
      const { tables } = JSON.parse(fileOf(files, 'csv-metadata.json')) as {
        tables: { url: string; tableSchema: { columns: Record<string, never>[] } }[];
      };
      const [rows, codes] = tables;
      assert.ok(rows !== undefined && codes !== undefined);
      const named = new Set(
        Papa.parse<string[]>(fileOf(files, codes.url)).data.map(([variable, code]) => `${variable} ${code}`),
      );
      const cells = cellsOf(fileOf(files, rows.url), fields);
      rows.tableSchema.columns.forEach((column, at) => {
        const { datatype, null: none } = column as unknown as {
          datatype: { base: string; minimum?: number | string; maximum?: number | string };
          null: string[];
        };
        const field = fields[at] as DataField;
        for (const cell of cells[at] ?? []) {
          if (none.includes(cell)) {
            assert.ok(cell === '' || named.has(`${field.name} ${cell}`));
            continue;
          }
          assert.match(cell, SHAPES[datatype.base] ?? /^$/, `${field.name}: ${cell}`);
          assert.ok(within(cell, datatype.minimum, datatype.maximum), `${field.name}: ${cell}`);
          if (field.values.length > 0 && field.holds !== 'number')
            assert.ok(named.has(`${field.name} ${cell}`), `${field.name}: ${cell}`);
        }
      });
    }
  });
});

it('Parquet holds every value as it is in the CSV, and what it means', async () => {
  for (const document of [demo, ...(FEATURED as readonly Questionnaire[])]) {
    const { fields, data } = made(document);
    const bytes = await parquetFile(fields, data, ABOUT);
    const file = bytes.buffer as ArrayBuffer;
    const rows = await parquetReadObjects({ file });
    assert.equal(rows.length, data.rows.length);
    rows.forEach((row, n) =>
      fields.forEach(({ name }, at) => {
        const value: unknown = row[name];
        const back = value === null ? '' : String(value as string | number | bigint);
        assert.equal(back, String(data.rows[n]?.[at] ?? ''), name);
      }),
    );
    const told = parquetMetadata(file).key_value_metadata?.find(({ key }) => key === PARQUET_KEY)?.value;
    const meaning = JSON.parse(told ?? '') as { variables: { name: string }[] };
    assert.deepEqual(
      meaning.variables.map(({ name }) => name),
      fields.map(({ name }) => name),
    );
    assert.deepEqual(await parquetFile(fields, data, ABOUT), bytes);
  }
});

it('a script for R is ASCII alone, closes every quote, and lists every column', () => {
  const title = 'Ünï "quoted" \\ back\nline \u{1F525} \ud800\0\x01\x7f';
  for (const document of [demo, { ...demo, title }]) {
    const { fields, data } = made(document);
    const odd = fields.map((field) => ({ ...field, label: `${field.label}${title}` }));
    const script = fileOf(rFiles(odd, data, { ...ABOUT, title }), 'read-data.R');
    assert.doesNotMatch(script, /[^\n\x20-\x7e]/);
    const bare = script.replace(/"(?:[^"\\\n]|\\.)*"/g, '').replace(/^ *#.*$/gm, '');
    assert.doesNotMatch(bare, /"/);
    assert.equal(script.match(/^ {2}list\(name = /gm)?.length, fields.length);
    // Between quotes every sign stands as R reads it; in a comment on one line.
    const words = String.raw`\u00dcn\u00ef \"quoted\" \\ back\nline \U0001f525 \ufffd\u0001\u007f`;
    assert.ok(script.includes(`label = "${fields[0]?.label}${words}"`));
    assert.match(script, /# .*\?n\? "quoted" \\ back line \? \? \?\. /);
  }
});

describe('rows that were given', () => {
  const { plan, fields, data } = made(demo);
  const header = fields.map(({ name }) => name);

  it('come back as they are from their own CSV, in whatever order of columns', () => {
    const csv = dataCsv(fields, data);
    const back = rowsOfCsv(plan, 'rows.csv', csv);
    assert.ok(back.ok);
    const same = (rows: DataRows['rows']) =>
      rows.map((row) => row.map((cell) => (isDefused(cell) ? `'${cell}` : cell)));
    assert.deepEqual(back.data.rows, same(data.rows));
    const turned = rowsUnder(
      plan,
      '',
      [...header].reverse(),
      data.rows.map((row) => [...row].reverse()),
    );
    assert.ok(turned.ok);
    assert.deepEqual(turned.data.rows, data.rows);
  });

  it('are refused where a column lacks or is another, and where a cell is no value of its column', () => {
    const many = rowsUnder(plan, '', header.slice(7), []);
    assert.deepEqual(many.ok ? [] : many.problems.slice(0, 1), [
      `It has no column ${header.slice(0, 6).join(', ')} and 1 more.`,
    ]);
    const six = rowsUnder(plan, '', header.slice(6), []);
    assert.deepEqual(six.ok ? [] : six.problems.slice(0, 1), [
      `It has no column ${header.slice(0, 6).join(', ')}.`,
    ]);
    const lacking = rowsUnder(plan, '', ['one', ...header.slice(1)], []);
    assert.ok(!lacking.ok);
    assert.match(lacking.problems.join(' '), new RegExp(`no column ${header[0]}\\..*no column one\\.`));
    const at = header.indexOf('tenure');
    const wrong = data.rows.slice(0, 30).map((row) => row.with(at, 77));
    const refused = rowsUnder(plan, '', header, wrong);
    assert.ok(!refused.ok);
    assert.equal(refused.problems[0], 'Row 2: “77” is no value of tenure.');
    assert.equal(refused.problems.length, 22);
  });
});
