/** Files that tell of an existing data set, and those of a word processor: read as a start, and never written so. */
import { strFromU8, unzipSync } from 'fflate';
import { numberWords } from '../../document/words';
import { decoded, type Decoded } from '../../exchange/decoded';
import { docxLines } from '../../exchange/docx-lines';
import { CsvRows } from '../../exchange/csv';
import { fromList } from '../../exchange/from-list';
import type { VariablesRead } from '../../exchange/variables/from-variables';
import { readCsvw, type CodeRow } from '../../exchange/variables/read-csvw';
import { readDataPackage } from '../../exchange/variables/read-data-package';
import { NO_WORK } from '../../exchange/work-file';
import { CODES_FILE } from '../data/tables';
import type { ReadStudy } from '../format-types';
import { titleFrom } from './lost';

/** In bytes: what tells of thousands of variables is smaller. */
const MOST_TOLD = 50_000_000;

/** The one file of a zip that a test finds, as text; the bytes themselves where they are no zip. Null where it is not there. */
function toldIn(bytes: Uint8Array, isIt: (name: string) => boolean): string | null {
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b)
    return bytes.length > MOST_TOLD ? null : new TextDecoder().decode(bytes).replace(/^\uFEFF/, '');
  const files = unzipSync(bytes, {
    filter: ({ name, originalSize }) => isIt(name) && originalSize < MOST_TOLD,
  });
  const [found] = Object.values(files);
  return found === undefined ? null : strFromU8(found);
}

function parsed(text: string | null): { readonly json: unknown } | { readonly problem: string } {
  if (text === null) return { problem: 'What tells of the data is not in it, or is too large.' };
  try {
    return { json: JSON.parse(text) as unknown };
  } catch {
    return { problem: 'It is no sound JSON: fetch it again, or look at it in an editor.' };
  }
}

function asStudy(read: VariablesRead): ReadStudy {
  return read.ok
    ? { ok: true, content: { document: read.document, work: NO_WORK }, doubts: read.doubts }
    : read;
}

/** A zip that is cut off, or none at all inside, is told in one way. */
function safely(read: () => ReadStudy): ReadStudy {
  try {
    return read();
  } catch {
    return { ok: false, problems: ['It cannot be opened: fetch it again.'] };
  }
}

export const isCsvwFile = (name: string) => /(^|\/)(csv-metadata|[^/]*-metadata)\.json$/.test(name);
export const isDataPackageFile = (name: string) => /(^|\/)datapackage\.json$/.test(name);

export function readCsvwFile(bytes: Uint8Array, name: string): ReadStudy {
  return safely(() => {
    const told = parsed(toldIn(bytes, isCsvwFile));
    if ('problem' in told) return { ok: false, problems: [told.problem] };
    const isZip = bytes[0] === 0x50;
    const codes = isZip ? toldIn(bytes, (each) => each.endsWith(CODES_FILE)) : null;
    const rows = codes === null ? [] : new CsvRows({ delimiter: ',', quote: '"' }).push(codes, true).slice(1);
    const known = rows.map(([variable = '', code = '', label = '', missing = '']): CodeRow => [
      variable,
      code,
      label,
      missing,
    ]);
    return asStudy(readCsvw(told.json, titleFrom(name), known));
  });
}

export function readDataPackageFile(bytes: Uint8Array, name: string): ReadStudy {
  return safely(() => {
    const told = parsed(toldIn(bytes, isDataPackageFile));
    return 'problem' in told
      ? { ok: false, problems: [told.problem] }
      : asStudy(readDataPackage(told.json, titleFrom(name)));
  });
}

export async function readDocx(bytes: Uint8Array, name: string): Promise<ReadStudy> {
  const read = await docxLines(bytes);
  return read.ok ? readListText(read.text, name) : { ok: false, problems: [read.problem] };
}

/** In bytes: thousands of questions are smaller. */
const MOST_LIST = 2_000_000;
const MOST_LINES = 20_000;
const TOO_LONG = `It has more than ${numberWords(MOST_LINES)} lines: divide it.`;

/** Lines as people write them, in any common encoding. */
export function listLines(bytes: Uint8Array): Decoded {
  const read = decoded(bytes, MOST_LIST, 'A list of questions is needed, as text.');
  if (!read.ok) return read;
  return read.text.split('\n', MOST_LINES + 1).length > MOST_LINES ? { ok: false, problem: TOO_LONG } : read;
}

export function readList(bytes: Uint8Array, name: string): ReadStudy {
  const read = listLines(bytes);
  return read.ok ? readListText(read.text, name) : { ok: false, problems: [read.problem] };
}

function readListText(text: string, name: string): ReadStudy {
  if (text.length > MOST_LIST || text.split('\n', MOST_LINES + 1).length > MOST_LINES)
    return { ok: false, problems: [TOO_LONG] };
  const { document, questions, lines } = fromList(text, titleFrom(name));
  if (questions === 0) return { ok: false, problems: ['There is no question in it.'] };
  const doubts = lines.flatMap(({ line, kind, says, doubt }) => {
    const what = doubt ?? (kind === 'trouble' ? says : null);
    return what === null ? [] : [{ line, what }];
  });
  return { ok: true, content: { document, work: NO_WORK }, doubts };
}
