/** Rows as a Data Package (version 2): fields with labels, categories, limits, and missing values with their labels. */
import { fileStem } from '../../document/names';
import type { WrittenFile } from '../format-types';
import type { AboutData } from './csvw';
import { isCoded, type DataField, type Holds } from './fields';
import type { DataRows } from './rows';
import { DATA_FILE, dataCsv } from './tables';

const TYPES: Readonly<Record<Holds, { readonly type: string; readonly format?: string }>> = {
  whole: { type: 'integer' },
  number: { type: 'number' },
  date: { type: 'date', format: '%Y-%m-%d' },
  time: { type: 'time', format: '%H:%M' },
  datetime: { type: 'datetime', format: '%Y-%m-%dT%H:%M' },
  text: { type: 'string' },
};

export function dataPackageFiles(
  fields: readonly DataField[],
  data: DataRows,
  about: AboutData,
): WrittenFile[] {
  return [
    { name: DATA_FILE, text: dataCsv(fields, data) },
    { name: 'datapackage.json', text: `${JSON.stringify(descriptor(fields, data, about), null, 2)}\n` },
  ];
}

function descriptor(fields: readonly DataField[], data: DataRows, { title, language, version }: AboutData) {
  return {
    $schema: 'https://datapackage.org/profiles/2.0/datapackage.json',
    name: fileStem(title),
    title,
    description: `${version}. Rows: ${data.about}.`,
    languages: [language],
    resources: [
      {
        name: 'data',
        type: 'table',
        path: DATA_FILE,
        format: 'csv',
        mediatype: 'text/csv',
        encoding: 'utf-8',
        dialect: { delimiter: ',', lineTerminator: '\r\n', quoteChar: '"', doubleQuote: true, header: true },
        schema: {
          $schema: 'https://datapackage.org/profiles/2.0/tableschema.json',
          fields: fields.map(fieldOf),
          missingValues: [''],
        },
      },
    ],
  };
}

function fieldOf(field: DataField) {
  const { name, label, question, holds, missing, measure, values, least, most } = field;
  const constraints = {
    ...(least === null ? {} : { minimum: least }),
    ...(most === null ? {} : { maximum: most }),
    ...(isCoded(field) ? { enum: values.map(({ code }) => code) } : {}),
  };
  return {
    name,
    title: label,
    ...(question === '' ? {} : { description: question }),
    ...TYPES[holds],
    ...(Object.keys(constraints).length === 0 ? {} : { constraints }),
    ...(isCoded(field)
      ? {
          categories: values.map(({ code, label: words }) => ({ value: code, label: words })),
          ...(measure === 'ordinal' ? { categoriesOrdered: true } : {}),
        }
      : {}),
    missingValues: [
      { value: '', label: 'Empty' },
      ...missing.map(({ code, label: words }) => ({ value: String(code), label: words })),
    ],
  };
}
