/**
 * Rows with CSVW metadata (“Metadata Vocabulary for Tabular Data”, W3C 2015): types, limits and codes for no answer.
 * Labels of codes are a table of their own beside it, since a column there can say which codes are none, but not why.
 */
import type { WrittenFile } from '../format-types';
import type { DataField, Holds } from './fields';
import type { DataRows } from './rows';
import { CODES_FILE, CODES_HEAD, codesCsv, DATA_FILE, dataCsv } from './tables';

const DATATYPES: Readonly<Record<Holds, { readonly base: string; readonly format?: string }>> = {
  whole: { base: 'integer' },
  number: { base: 'decimal' },
  date: { base: 'date', format: 'yyyy-MM-dd' },
  time: { base: 'time', format: 'HH:mm' },
  datetime: { base: 'dateTime', format: 'yyyy-MM-ddTHH:mm' },
  text: { base: 'string' },
};

export interface AboutData {
  readonly title: string;
  readonly language: string;
  /** “Version 2, frozen 2026-11-09”, or “Draft”. */
  readonly version: string;
}

export function csvwFiles(fields: readonly DataField[], data: DataRows, about: AboutData): WrittenFile[] {
  return [
    { name: DATA_FILE, text: dataCsv(fields, data) },
    { name: CODES_FILE, text: codesCsv(fields) },
    { name: 'csv-metadata.json', text: `${JSON.stringify(metadata(fields, data, about), null, 2)}\n` },
  ];
}

function metadata(fields: readonly DataField[], data: DataRows, { title, language, version }: AboutData) {
  return {
    '@context': ['http://www.w3.org/ns/csvw', { '@language': language }],
    'dc:title': title,
    'dc:description': `${version}. Rows: ${data.about}.`,
    dialect: { header: true, encoding: 'utf-8' },
    tables: [
      { url: DATA_FILE, 'dc:title': 'Rows', tableSchema: { columns: fields.map(columnOf) } },
      {
        url: CODES_FILE,
        'dc:title': 'Codes of the variables; “missing” says why one is no answer',
        tableSchema: {
          columns: CODES_HEAD.map((name) => ({ name, titles: name, datatype: 'string' })),
          primaryKey: ['variable', 'code'],
        },
      },
    ],
  };
}

function columnOf({ name, label, question, holds, missing, least, most }: DataField) {
  const nulls = ['', ...missing.map(({ code }) => String(code))];
  return {
    name,
    titles: name,
    'rdfs:label': label,
    ...(question === '' ? {} : { 'dc:description': question }),
    datatype: {
      ...DATATYPES[holds],
      ...(least === null ? {} : { minimum: least }),
      ...(most === null ? {} : { maximum: most }),
    },
    null: nulls,
  };
}
