/**
 * The file formats that a study can be written in or read from: each with its name on the command line, what its files are
 * called, its writer and reader, and what it cannot hold. Whoever takes or gives a file asks here.
 */
import { analyse } from '../analysis';
import { WHOLE_STUDY, type Address } from '../document/addresses';
import { fileStem } from '../document/names';
import { problemText, readDocumentText, writeDocument } from '../document/read';
import type { Questionnaire } from '../document/types';
import { fromList } from '../exchange/from-list';
import { readScript } from '../exchange/script/read-script';
import { writeScript } from '../exchange/script/write-script';
import { planOf } from '../routing/planner';
import { testPack } from './test-pack';
import { testPackFiles } from './test-pack-files';
import { NO_WORK, readWork, WORK_PARTS, writeWork, type Work } from '../exchange/work-file';

/** What a file may hold. */
export interface StudyContent {
  readonly document: Questionnaire;
  readonly work: Work;
  /** Which version it is of, and is marked with; none of the draft. */
  readonly version?: VersionMark;
}

export interface VersionMark {
  readonly number: number;
  readonly frozen: boolean;
  /** When it was kept, in milliseconds since 1970. */
  readonly at: number;
}

/** “Version 2, frozen 2026-11-09”, or “Draft”: how a file says what it is of. */
export function versionWords(version: VersionMark | undefined): string {
  if (version === undefined) return 'Draft';
  const day = new Date(version.at).toISOString().slice(0, 10);
  return `Version ${version.number}, ${version.frozen ? 'frozen' : 'kept'} ${day}`;
}

/** One of several files that are written together. */
export interface WrittenFile {
  readonly name: string;
  readonly text: string;
}

/** One file, or the files of a folder. */
export type Written = string | Uint8Array | readonly WrittenFile[];

export type ReadStudy =
  /** `doubts`: what of the file was not understood, or not taken over. */
  | { readonly ok: true; readonly content: StudyContent; readonly doubts?: readonly Doubt[] }
  /** Sentences, the gravest first. */
  | { readonly ok: false; readonly problems: readonly string[] };

/** Something in a file that nothing was made of. */
export interface Doubt {
  /** From 1. */
  readonly line: number;
  /** A clause without a full stop. */
  readonly what: string;
}

/** Something that a format cannot hold. */
export interface Loss {
  readonly at: Address;
  readonly what: string;
}

export interface FileFormat {
  /** As it is offered to people. */
  readonly words: string;
  /** What the names of its files end with, without a dot before; the first is the one that is written. */
  readonly endings: readonly [string, ...string[]];
  readonly mediaType: string;
  /** Null: it is only read. A promise where what writes is loaded for it alone. */
  readonly write: ((content: StudyContent) => Written | Promise<Written>) | null;
  /** Null: it is only written. `name`: of the file. */
  readonly read: ((bytes: Uint8Array, name: string) => ReadStudy) | null;
  readonly losses: (content: StudyContent) => readonly Loss[];
}

const NONE = () => [];

/** Of a file that holds the questionnaire alone. */
const workLost = ({ work }: StudyContent): Loss[] =>
  WORK_PARTS.filter((part) => work[part].length > 0).map((part) => ({ at: WHOLE_STUDY, what: part }));

/** In bytes: as large as a questionnaire with pictures may be sent. */
const MOST_SCRIPT = 20_000_000;

export const FORMATS = {
  document: {
    words: 'Questionnaire',
    endings: ['fork.json', 'json'],
    mediaType: 'application/json; charset=utf-8',
    write: ({ document }) => writeDocument(document),
    read: (bytes) => {
      const read = readDocumentText(textOf(bytes));
      return read.ok
        ? { ok: true, content: { document: read.document, work: NO_WORK } }
        : { ok: false, problems: read.problems.map(problemText) };
    },
    losses: workLost,
  },
  work: {
    words: 'Questionnaire and work',
    endings: ['zip'],
    mediaType: 'application/zip',
    write: ({ document, work }) => writeWork(document, work),
    read: (bytes) => {
      const read = readWork(bytes);
      return read.ok ? { ok: true, content: read } : { ok: false, problems: [read.problem] };
    },
    losses: NONE,
  },
  script: {
    words: 'Plain-text script',
    endings: ['script.txt'],
    mediaType: 'text/plain; charset=utf-8',
    write: ({ document }) => writeScript(document),
    read: (bytes) => {
      if (bytes.length > MOST_SCRIPT)
        return { ok: false, problems: [`It is larger than ${MOST_SCRIPT / 1e6} MB, which no script is.`] };
      const text = utf8Of(bytes);
      if (text === null)
        return { ok: false, problems: ['It is no text in UTF-8: save it in that encoding, and try again.'] };
      const read = readScript(text);
      return read.ok
        ? { ok: true, content: { document: read.document, work: NO_WORK } }
        : { ok: false, problems: read.problems.map(({ line, what }) => `line ${line}: ${what}`) };
    },
    losses: workLost,
  },
  schema: {
    words: 'JSON Schema',
    endings: ['schema.json'],
    mediaType: 'application/schema+json; charset=utf-8',
    write: async () => (await import('../exchange/json-schema')).questionnaireJsonSchemaText(),
    read: null,
    losses: NONE,
  },
  'test-pack': {
    words: 'Test pack',
    endings: ['test-pack.zip'],
    mediaType: 'application/zip',
    write: ({ document, version }) => {
      const plan = planOf(document);
      return testPackFiles(plan, testPack(plan, analyse(plan)), versionWords(version));
    },
    read: null,
    losses: NONE,
  },
  list: {
    words: 'List of questions',
    endings: ['txt'],
    mediaType: 'text/plain; charset=utf-8',
    write: null,
    read: (bytes, name) => {
      const { document, questions, lines } = fromList(textOf(bytes), name.replace(/\.\w+$/, ''));
      if (questions === 0) return { ok: false, problems: ['There is no question in it.'] };
      const doubts = lines.flatMap(({ line, kind, says, doubt }) => {
        const what = doubt ?? (kind === 'trouble' ? says : null);
        return what === null ? [] : [{ line, what }];
      });
      return { ok: true, content: { document, work: NO_WORK }, doubts };
    },
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
): string {
  const of = version === undefined ? '' : `-v${version}`;
  return `${fileStem(title)}${of}.${FORMATS[format].endings[0]}`;
}

/** Null where the bytes are no text in this encoding. */
function utf8Of(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}

function textOf(bytes: Uint8Array): string {
  return new TextDecoder().decode(bytes);
}
