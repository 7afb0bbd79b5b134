/** Files that hold the questionnaire as it is, to be opened, read, compared or programmed. */
import { fileStem } from '../../document/names';
import { problemText, readDocumentText, writeDocument } from '../../document/read';
import type { Questionnaire } from '../../document/types';
import { csvLines } from '../../exchange/csv';
import { readItems } from '../../exchange/items/read-items';
import { itemRows } from '../../exchange/items/write-items';
import { readScript } from '../../exchange/script/read-script';
import { writeScript } from '../../exchange/script/write-script';
import { cellsOf } from '../../exchange/sheet-cells';
import { NO_WORK, readWork, writeWork } from '../../exchange/work-file';
import type { FileFormat } from '../format-types';
import { testPack } from '../test-pack';
import { testPackFiles } from '../test-pack-files';
import { versionWords } from '../version-words';
import { readDocx, readList } from './of-variables';
import { lostByReading, NONE, titleFrom, workLost } from './lost';
import { preparedFor } from './prepared';

/** In bytes: as large as a questionnaire with pictures may be sent, and its script. */
const MOST_DOCUMENT = 20_000_000;
const MOST_SCRIPT = MOST_DOCUMENT;

export const OF_QUESTIONNAIRE = {
  document: {
    words: 'Questionnaire',
    endings: ['fork.json', 'json'],
    mediaType: 'application/json; charset=utf-8',
    write: ({ document }) => writeDocument(document),
    read: (bytes) => {
      if (bytes.length > MOST_DOCUMENT)
        return {
          ok: false,
          problems: [`it is larger than ${MOST_DOCUMENT / 1e6} MB: make its pictures smaller`],
        };
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
  items: {
    words: 'List of items',
    endings: ['items.xlsx', 'items.csv', 'xlsx', 'csv'],
    kinds: ['items.xlsx', 'items.csv'],
    mediaType: 'application/octet-stream',
    write: async ({ document, version }, kind) => {
      if (kind.endsWith('csv')) return csvLines(itemRows(document));
      return (await import('../sheets/items-workbook')).itemsWorkbook(document, versionWords(version));
    },
    read: async (bytes, name) => {
      const read = await cellsOf(bytes);
      if (!read.ok) return { ok: false, problems: [read.problem] };
      const items = readItems(read.cells, titleFrom(name));
      return items.ok
        ? { ok: true, content: { document: items.document, work: NO_WORK }, doubts: items.doubts }
        : items;
    },
    losses: (content) => [...workLost(content), ...lostByReading(content, itemsBack)],
  },
  schema: {
    words: 'JSON Schema',
    endings: ['schema.json'],
    mediaType: 'application/schema+json; charset=utf-8',
    write: async () => (await import('../../exchange/json-schema')).questionnaireJsonSchemaText(),
    read: null,
    losses: NONE,
  },
  'test-pack': {
    words: 'Test pack',
    endings: ['test-pack.zip'],
    mediaType: 'application/zip',
    write: ({ document, version }) => {
      const { plan, analysis } = preparedFor(document);
      return testPackFiles(plan, testPack(plan, analysis), versionWords(version));
    },
    read: null,
    losses: NONE,
  },
  docx: {
    words: 'Questionnaire of a word processor',
    endings: ['docx'],
    mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
    write: null,
    read: readDocx,
    losses: NONE,
  },
  list: {
    words: 'List of questions',
    endings: ['txt'],
    mediaType: 'text/plain; charset=utf-8',
    write: null,
    read: readList,
    losses: NONE,
  },
} as const satisfies Readonly<Record<string, FileFormat>>;

function itemsBack(document: Questionnaire): Questionnaire | null {
  const cells = itemRows(document).map((row) => row.map(String));
  const read = readItems(cells, fileStem(document.title));
  return read.ok ? read.document : null;
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
