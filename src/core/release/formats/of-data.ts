/** Files of data: rows with what their columns and codes mean. */
import { planOf } from '../../routing/planner';
import type { AboutData } from '../data/csvw';
import { dataFields, type DataField } from '../data/fields';
import type { DataRows } from '../data/rows';
import type { FormatWriter, StudyContent } from '../format-types';
import { versionWords } from '../version-words';
import type { FormatName } from './known';
import { NONE } from './lost';

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
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('../data/csvw')).csvwFiles(fields, data, about);
    },
    losses: NONE,
  },
  'data-package': {
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('../data/data-package')).dataPackageFiles(fields, data, about);
    },
    losses: NONE,
  },
  parquet: {
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('../data/parquet')).parquetFile(fields, data, about);
    },
    losses: NONE,
  },
  r: {
    write: async (content) => {
      const { fields, data, about } = dataOf(content);
      return (await import('../data/r-script')).rFiles(fields, data, about);
    },
    losses: NONE,
  },
} as const satisfies Partial<Record<FormatName, FormatWriter>>;
