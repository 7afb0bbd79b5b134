/** Files of data: rows with what their columns and codes mean. */
import { planOf } from '../../routing/planner';
import type { AboutData } from '../data/csvw';
import { dataFields, type DataField } from '../data/fields';
import type { DataRows } from '../data/rows';
import type { FileFormat, StudyContent } from '../format-types';
import { versionWords } from '../version-words';
import { NONE } from './lost';
import { readCsvwFile, readDataPackageFile } from './of-variables';

/** What a format of data is written of. */
function dataOf({ document, data, version }: StudyContent): {
  readonly fields: readonly DataField[];
  readonly data: DataRows;
  readonly about: AboutData;
} {
  if (data === undefined) throw new Error('a file of data needs rows');
  const plan = planOf(document);
  const { title, language } = document;
  return {
    fields: dataFields(plan),
    data,
    about: { title, language, version: versionWords(version) },
  };
}

export const OF_DATA = {
  csvw: {
    words: 'Data with CSVW',
    endings: ['csvw.zip'],
    ofData: true,
    mediaType: 'application/zip',
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('../data/csvw')).csvwFiles(fields, data, about);
    },
    read: readCsvwFile,
    losses: NONE,
  },
  'data-package': {
    words: 'Data Package',
    endings: ['data-package.zip'],
    ofData: true,
    mediaType: 'application/zip',
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('../data/data-package')).dataPackageFiles(fields, data, about);
    },
    read: readDataPackageFile,
    losses: NONE,
  },
  parquet: {
    words: 'Data as Parquet',
    endings: ['parquet'],
    ofData: true,
    mediaType: 'application/vnd.apache.parquet',
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('../data/parquet')).parquetFile(fields, data, about);
    },
    read: null,
    losses: NONE,
  },
  r: {
    words: 'Data for R',
    endings: ['r.zip'],
    ofData: true,
    mediaType: 'application/zip',
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('../data/r-script')).rFiles(fields, data, about);
    },
    read: null,
    losses: NONE,
  },
} as const satisfies Readonly<Record<string, FileFormat>>;
