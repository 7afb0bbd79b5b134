/** What reads each format that is read: a questionnaire, or why it is none. */
import { readItems } from '../../exchange/items/read-items';
import { readScript } from '../../exchange/script/read-script';
import { cellsOf } from '../../exchange/sheet-cells';
import { NO_WORK, readWork } from '../../exchange/work-file';
import type { FormatReader } from '../format-types';
import { titleFrom } from './lost';
import type { ReadFormatName } from './known';
import { MOST_DOCUMENT, readDocumentFile } from './read-document';
import { readCsvwFile, readDataPackageFile, readDocx, readList } from './of-variables';

/** In bytes. */
const MOST_SCRIPT = MOST_DOCUMENT;

export const READERS = {
  document: (bytes) => {
    const read = readDocumentFile(bytes);
    return read.ok ? { ok: true, content: { document: read.document, work: NO_WORK } } : read;
  },
  work: (bytes) => {
    const read = readWork(bytes);
    return read.ok ? { ok: true, content: read } : { ok: false, problems: [read.problem] };
  },
  script: (bytes) => {
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
  items: async (bytes, name) => {
    const read = await cellsOf(bytes);
    if (!read.ok) return { ok: false, problems: [read.problem] };
    const items = readItems(read.cells, titleFrom(name));
    return items.ok
      ? { ok: true, content: { document: items.document, work: NO_WORK }, doubts: items.doubts }
      : items;
  },
  'ddi-lifecycle': async (bytes, name) =>
    (await import('../ddi/read-lifecycle')).readDdiLifecycle(bytes, titleFrom(name)),
  'ddi-codebook': async (bytes, name) =>
    (await import('../ddi/read-codebook')).readDdiCodebook(bytes, titleFrom(name)),
  docx: readDocx,
  list: readList,
  csvw: readCsvwFile,
  'data-package': readDataPackageFile,
} as const satisfies Readonly<Record<ReadFormatName, FormatReader>>;

/** Null where the bytes are no text in this encoding. */
function utf8Of(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}
