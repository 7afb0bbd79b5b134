/** What tells of the data and of the questionnaire, read by programs for just that: JSON Schema, Table Schema, CSVW. */
import { createReadStream, readFileSync } from 'node:fs';
import path from 'node:path';
import CsvwParser from '@zazuko/rdf-parser-csvw';
import Ajv from 'ajv/dist/2020.js';
import jsonld from 'jsonld';
import Papa from 'papaparse';
import { Schema } from 'tableschema';
import { dataFields, type DataField } from '../src/core/release/data/fields';
import { fileOf, type Unpacked } from './package';
import { datasetOf } from './rdf';
import { lackingWords, type Verdict } from './verdict';

const jsonOf = (file: string) => JSON.parse(readFileSync(file, 'utf8')) as Record<string, unknown>;

export function byJsonSchema(study: Unpacked): Verdict[] {
  const validate = new Ajv({ strict: false, allErrors: true }).compile(jsonOf(fileOf(study, '.schema.json')));
  const ok = validate(jsonOf(fileOf(study, '.fork.json')));
  const wrong = validate({ ...jsonOf(fileOf(study, '.fork.json')), colour: 'red' });
  return [
    {
      file: 'fork.json, schema.json',
      reader: 'ajv',
      saw: ok
        ? 'the questionnaire fits its schema, and with an unknown property it does not'
        : 'it does not fit',
      ok: ok && !wrong,
    },
  ];
}

export async function byTableSchema(study: Unpacked): Promise<Verdict[]> {
  const { resources } = jsonOf(fileOf(study, 'datapackage.json')) as {
    resources: [{ schema: { fields: { name: string; missingValues: { value: string }[] }[] } }];
  };
  const [{ schema: descriptor }] = resources;
  // It knows version 1: missing values there are those of the whole table, so each column's own go first.
  const schema = await Schema.load({ ...descriptor, missingValues: [''] });
  const { data } = Papa.parse<string[]>(readFileSync(fileOf(study, 'data.csv'), 'utf8').trim());
  const missing = descriptor.fields.map(
    ({ missingValues }) => new Set(missingValues.map(({ value }) => value)),
  );
  const [head = [], ...rows] = data;
  const wrong: string[] = [...(schema.errors as Error[])].map(String);
  if (head.join() !== (schema.fieldNames as string[]).join()) wrong.push('columns are other');
  rows.forEach((row, n) => {
    try {
      schema.castRow(row.map((cell, at) => (missing[at]?.has(cell) ? '' : cell)));
    } catch (error) {
      wrong.push(`row ${n + 1}: ${String((error as { errors?: unknown[] }).errors?.[0] ?? error)}`);
    }
  });
  return [
    {
      file: 'datapackage.json, data.csv',
      reader: 'tableschema',
      saw: `${head.length} fields, ${rows.length.toLocaleString('en')} rows cast to their types; ${lackingWords(wrong)}`,
      ok: wrong.length === 0,
    },
  ];
}

const XSD: Partial<Record<DataField['holds'], string>> = {
  whole: 'integer',
  number: 'decimal',
  date: 'date',
  time: 'time',
  datetime: 'dateTime',
};

/** What the W3C's context for CSVW says of the terms that are used here; the original is fetched from the net. */
const CONTEXT = {
  '@context': {
    '@vocab': 'http://www.w3.org/ns/csvw#',
    csvw: 'http://www.w3.org/ns/csvw#',
    dc: 'http://purl.org/dc/terms/',
    rdfs: 'http://www.w3.org/2000/01/rdf-schema#',
    xsd: 'http://www.w3.org/2001/XMLSchema#',
    url: { '@id': 'csvw:url', '@type': 'xsd:anyURI' },
    tables: { '@id': 'csvw:table', '@type': '@id', '@container': '@set' },
    tableSchema: { '@id': 'csvw:tableSchema', '@type': '@id' },
    columns: { '@id': 'csvw:column', '@type': '@id', '@container': '@list' },
    titles: { '@id': 'csvw:title' },
    name: { '@id': 'csvw:name', '@language': null },
    null: { '@id': 'csvw:null', '@language': null },
    datatype: { '@id': 'csvw:datatype', '@type': '@vocab' },
    base: { '@id': 'csvw:base', '@language': null },
    format: { '@id': 'csvw:format', '@language': null },
    dialect: { '@id': 'csvw:dialect', '@type': '@id' },
  },
};

export async function byCsvw(study: Unpacked): Promise<Verdict[]> {
  const metadata = jsonOf(fileOf(study, 'csv-metadata.json')) as { tables: Record<string, unknown>[] };
  const [rows] = metadata.tables;
  const quads = (await jsonld.toRDF(
    { ...rows, '@context': [CONTEXT['@context']], '@type': 'Table' },
    { base: `file://${path.dirname(fileOf(study, 'data.csv'))}/` },
  )) as never;
  const parser = new CsvwParser({ metadata: datasetOf(quads), baseIRI: 'http://example.org/data.csv' });
  const cells = new Map<string, { count: number; readonly types: Set<string> }>();
  for await (const quad of parser.import(
    createReadStream(fileOf(study, 'data.csv'), 'utf8'),
  ) as AsyncIterable<{
    predicate: { value: string };
    object: { datatype?: { value: string } };
  }>) {
    const column = decodeURIComponent(quad.predicate.value.slice(quad.predicate.value.indexOf('#') + 1));
    const found = cells.get(column) ?? { count: 0, types: new Set<string>() };
    found.count += 1;
    found.types.add((quad.object.datatype?.value ?? '').replace(/^.*#/, ''));
    cells.set(column, found);
  }
  // This reader knows one code for no answer a column: where there are several, it takes them for values.
  const fields = dataFields(study.plan);
  const wrong = fields.flatMap(({ name }, at) => {
    const values = study.rows.rows.filter((row) => String(row[at] ?? '') !== '').length;
    const found = cells.get(name) ?? { count: 0, types: new Set<string>() };
    return found.count === values ? [] : [`${name}: ${found.count} for ${values}`];
  });
  const typed = fields.filter(({ name, holds }) => {
    const [type = '', ...others] = cells.get(name)?.types ?? [];
    return others.length === 0 && type === (XSD[holds] ?? 'string');
  });
  const untyped =
    fields.filter(({ name }) => cells.has(name)).length - typed.filter(({ name }) => cells.has(name)).length;
  return [
    {
      file: 'csv-metadata.json, data.csv',
      reader: 'rdf-parser-csvw',
      saw: `${fields.length} columns, each value of the type that is said of its column${untyped === 0 ? '' : ` but for ${untyped}`}; ${lackingWords(wrong)}. It knows one code for no answer a column, and takes further ones for values`,
      ok: wrong.length === 0 && untyped === 0,
    },
  ];
}
