/**
 * The file formats that there are: each with its name on the command line, how it is offered, and what its files are called.
 * What writes and reads them is apart (`writers.ts`, `readers.ts`), so that whoever only names them loads none of it.
 */
import { fileStem } from '../../document/names';
import type { Questionnaire } from '../../document/types';
import type { KnownFormat } from '../format-types';

const OF_MANY_KINDS = 'application/octet-stream';

/** A format that is written in several kinds, and read in none. */
const ofKinds = <const Kinds extends readonly [string, ...string[]]>(words: string, kinds: Kinds) => ({
  words,
  endings: kinds,
  kinds,
  mediaType: OF_MANY_KINDS,
});

export const KNOWN = {
  document: {
    words: 'Questionnaire',
    endings: ['fork.json', 'json'],
    mediaType: 'application/json; charset=utf-8',
    isRead: true,
  },
  work: { words: 'Questionnaire and work', endings: ['zip'], mediaType: 'application/zip', isRead: true },
  script: {
    words: 'Plain-text script',
    endings: ['script.txt'],
    mediaType: 'text/plain; charset=utf-8',
    isRead: true,
  },
  items: {
    words: 'List of items',
    endings: ['items.xlsx', 'items.csv', 'xlsx', 'csv'],
    kinds: ['items.xlsx', 'items.csv'],
    mediaType: OF_MANY_KINDS,
    isRead: true,
  },
  schema: {
    words: 'JSON Schema',
    endings: ['schema.json'],
    mediaType: 'application/schema+json; charset=utf-8',
  },
  'test-pack': { words: 'Test pack', endings: ['test-pack.zip'], mediaType: 'application/zip' },
  docx: {
    words: 'Questionnaire of a word processor',
    endings: ['docx'],
    mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
    isRead: true,
  },
  list: {
    words: 'List of questions',
    endings: ['txt'],
    mediaType: 'text/plain; charset=utf-8',
    isRead: true,
  },
  paper: ofKinds('Paper script', ['paper.html', 'paper.pdf', 'paper.docx']),
  form: ofKinds('Paper form', ['form.html', 'form.pdf', 'form.docx']),
  codebook: ofKinds('Codebook', ['codebook.xlsx', 'codebook.html', 'codebook.pdf']),
  'route-book': ofKinds('Route book', ['routes.html', 'routes.pdf']),
  forecast: ofKinds('Forecast', ['forecast.xlsx', 'forecast.csv', 'forecast.html', 'forecast.pdf']),
  map: ofKinds('Fork map', ['map.svg', 'map.png', 'map.graphml', 'map.dot']),
  instrument: {
    words: 'Stand-alone instrument',
    endings: ['instrument.html'],
    mediaType: 'text/html; charset=utf-8',
  },
  'ddi-lifecycle': {
    words: 'DDI-Lifecycle 3.3',
    endings: ['ddi33.xml'],
    mediaType: 'application/xml; charset=utf-8',
    isRead: true,
  },
  'ddi-codebook': {
    words: 'DDI-Codebook 2.5',
    endings: ['ddi25.xml'],
    mediaType: 'application/xml; charset=utf-8',
    isRead: true,
  },
  csvw: {
    words: 'Data with CSVW',
    endings: ['csvw.zip'],
    ofData: true,
    mediaType: 'application/zip',
    isRead: true,
  },
  'data-package': {
    words: 'Data Package',
    endings: ['data-package.zip'],
    ofData: true,
    mediaType: 'application/zip',
    isRead: true,
  },
  parquet: {
    words: 'Data as Parquet',
    endings: ['parquet'],
    ofData: true,
    mediaType: 'application/vnd.apache.parquet',
  },
  r: { words: 'Data for R', endings: ['r.zip'], ofData: true, mediaType: 'application/zip' },
  package: { words: 'Hand-over package', endings: ['package.zip'], mediaType: 'application/zip' },
} as const satisfies Readonly<Record<string, KnownFormat>>;

export type FormatName = keyof typeof KNOWN;

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
  forecast: ['forecast', 'how many are asked what, how long it takes, and from which shares'],
  map: ['map', 'who goes where: pictures, and a graph to reckon with'],
  instrument: ['field', 'runs by itself on a phone or a desktop, without a network'],
  'test-pack': ['test-pack', 'for whoever programs it: every fork, step by step'],
  'ddi-lifecycle': ['archive', 'questions, instrument, universes and variables'],
  'ddi-codebook': ['archive', 'variables with their questions, for a catalogue'],
  csvw: ['data', 'CSV, with what its columns are as the W3C has it'],
  'data-package': ['data', 'CSV, for an archive: labels, limits, codes'],
  parquet: ['data', 'for large data, and for databases'],
  r: ['data', 'CSV and a script: labels, factors, why it is missing'],
} as const satisfies Partial<Record<FormatName, readonly [folder: string, forWhom: string]>>;

/**
 * Kinds of file that are made beside the others of a package, each with its format: what shares least with the rest, and
 * takes half of the time, of the demo as of a thousand items.
 */
export const BESIDE = {
  'map.svg': 'map',
  'map.png': 'map',
  'map.graphml': 'map',
  'map.dot': 'map',
  'instrument.html': 'instrument',
  'paper.docx': 'paper',
  'form.docx': 'form',
  'ddi33.xml': 'ddi-lifecycle',
} as const satisfies Readonly<Record<string, keyof typeof HANDED_OVER>>;
export type BesideKind = keyof typeof BESIDE;
export type BesideName = (typeof BESIDE)[BesideKind];

export function isBeside(kind: string): kind is BesideKind {
  return Object.hasOwn(BESIDE, kind);
}

/** Some of its files, at least, are made there. */
export function isOfBeside(format: string): format is BesideName {
  return Object.values<string>(BESIDE).includes(format);
}

/** One that can be read, by what the file is called; a document where nothing else fits, so that what is wrong is said. */
export function formatOfFile(name: string): FormatName {
  const known = (Object.keys(KNOWN) as FormatName[]).find(
    (format) =>
      isRead(format) && KNOWN[format].endings.some((ending) => name.toLowerCase().endsWith(`.${ending}`)),
  );
  return known ?? 'document';
}

/** What a file of a study is called, with the number of the version it is of, if it is of one. */
export function fileNameFor(
  { title }: Pick<Questionnaire, 'title'>,
  format: FormatName,
  version?: number,
  kind: string = KNOWN[format].endings[0],
): string {
  const of = version === undefined ? '' : `-v${version}`;
  return `${fileStem(title)}${of}.${kind}`;
}

/** The kinds of file that a format is written as, by their endings; the first where nothing else is asked for. */
export function kindsOf(format: FormatName): readonly string[] {
  return kindsOfKnown(KNOWN[format]);
}

/** The same of a format that is at hand. */
export function kindsOfKnown({ kinds, endings }: KnownFormat): readonly string[] {
  return kinds ?? [endings[0]];
}

/** Those that are read. */
export type ReadFormatName = {
  [Name in FormatName]: (typeof KNOWN)[Name] extends { readonly isRead: true } ? Name : never;
}[FormatName];

export function isRead(format: FormatName): format is ReadFormatName {
  const { isRead: is }: KnownFormat = KNOWN[format];
  return is === true;
}
