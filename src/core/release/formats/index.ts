/**
 * The file formats that a study can be written in or read from: each with its name on the command line, what its files are
 * called, its writer and reader, and what it cannot hold. Whoever takes or gives a file asks here.
 */
import { fileStem } from '../../document/names';
import type { Questionnaire } from '../../document/types';
import { zipped } from '../../exchange/zipped';
import type { FileFormat, Progress, StudyContent } from '../format-types';
import type { Packed } from '../package';
import { FOR_ARCHIVES } from './for-archives';
import { NONE } from './lost';
import { OF_DATA } from './of-data';
import { OF_MAP } from './of-map';
import { OF_QUESTIONNAIRE } from './of-questionnaire';
import { TO_PRINT } from './to-print';

const SINGLE = {
  ...OF_QUESTIONNAIRE,
  ...TO_PRINT,
  ...OF_MAP,
  ...FOR_ARCHIVES,
  ...OF_DATA,
} as const satisfies Readonly<Record<string, FileFormat>>;

/** In which folder of the package each lies, and for whom it is, in the order in which they are offered. */
export const HANDED_OVER = {
  document: ['questionnaire', 'to open it elsewhere, or to keep it'],
  script: ['questionnaire', 'to read in a mail, and to compare line by line'],
  items: ['questionnaire', 'a question a row, to work on in a spreadsheet'],
  schema: ['questionnaire', 'for whoever reads the questionnaire by program'],
  paper: ['print', 'the script with where to go, for the board and to edit'],
  form: ['print', 'to be filled in by hand'],
  codebook: ['print', 'every column of the data: asked of whom, codes, labels'],
  'route-book': ['print', 'few routes that take every fork, as sentences'],
  map: ['map', 'who goes where: pictures, and a graph to reckon with'],
  'test-pack': ['test-pack', 'for whoever programs it: every fork, step by step'],
  'ddi-lifecycle': ['archive', 'questions, instrument, universes and variables'],
  'ddi-codebook': ['archive', 'variables with their questions, for a catalogue'],
  csvw: ['data', 'CSV, with what its columns are as the W3C has it'],
  'data-package': ['data', 'CSV, for an archive: labels, limits, codes'],
  parquet: ['data', 'for large data, and for databases'],
  r: ['data', 'CSV and a script: labels, factors, why it is missing'],
} as const satisfies Partial<Record<keyof typeof SINGLE, readonly [folder: string, forWhom: string]>>;

const PACKED = (Object.keys(HANDED_OVER) as (keyof typeof HANDED_OVER)[]).map((name): Packed => {
  const [folder, forWhom] = HANDED_OVER[name];
  return { name, format: SINGLE[name], folder, forWhom };
});

export const FORMATS = {
  ...SINGLE,
  package: {
    words: 'Hand-over package',
    endings: ['package.zip'],
    mediaType: 'application/zip',
    write: async (content: StudyContent, _kind?: string, progress?: Progress) =>
      zipped(await (await import('../package')).packageFiles(content, PACKED, progress)),
    read: null,
    losses: NONE,
  },
} as const satisfies Readonly<Record<string, FileFormat>>;

export type FormatName = keyof typeof FORMATS;

/** One that can be read, by what the file is called; a document where nothing else fits, so that what is wrong is said. */
export function formatOfFile(name: string): FormatName {
  const known = (Object.keys(FORMATS) as FormatName[]).find(
    (format) =>
      FORMATS[format].read !== null &&
      FORMATS[format].endings.some((ending) => name.toLowerCase().endsWith(`.${ending}`)),
  );
  return known ?? 'document';
}

/** What a file of a study is called, with the number of the version it is of, if it is of one. */
export function fileNameFor(
  { title }: Pick<Questionnaire, 'title'>,
  format: FormatName,
  version?: number,
  kind: string = FORMATS[format].endings[0],
): string {
  const of = version === undefined ? '' : `-v${version}`;
  return `${fileStem(title)}${of}.${kind}`;
}

/** The kinds of file that a format is written as, by their endings; the first where nothing else is asked for. */
export function kindsOf(format: FormatName): readonly string[] {
  const { kinds, endings }: FileFormat = FORMATS[format];
  return kinds ?? [endings[0]];
}
