/** All cells of a small table as text: a CSV file in any common encoding, or the first sheet of a workbook. */
import { CsvRows, sniffBytes, sniffFormat, Utf8Check } from './csv';
import { cellText } from './spreadsheet';
import { workbookProblem } from './workbook-size';

export type CellsRead =
  | { readonly ok: true; readonly cells: readonly (readonly string[])[] }
  /** A sentence. */
  | { readonly ok: false; readonly problem: string };

/** In bytes: lists of questions and codes are far smaller. */
const MOST_BYTES = 20_000_000;
/** A workbook of this kind, unpacked, and the texts that its cells share. */
const LIMITS = { unpacked: 100_000_000, texts: 300_000 };

export async function cellsOf(bytes: Uint8Array): Promise<CellsRead> {
  if (bytes.length > MOST_BYTES)
    return {
      ok: false,
      problem: `It is larger than ${MOST_BYTES / 1e6} MB: leave out what is no list of items.`,
    };
  const found = sniffBytes(bytes.subarray(0, 65_536));
  switch (found.is) {
    case 'empty':
      return { ok: false, problem: 'It is empty.' };
    case 'other':
      return { ok: false, problem: `It is ${found.words}. A table is needed, as CSV or XLSX.` };
    case 'xlsx':
      return workbookCells(bytes);
    case 'text': {
      const check = new Utf8Check();
      check.add(bytes);
      const encoding = found.certain || check.end() ? found.encoding : 'windows-1252';
      const text = new TextDecoder(encoding).decode(bytes);
      return { ok: true, cells: new CsvRows(sniffFormat(text.slice(0, 65_536))).push(text, true) };
    }
    default:
      return found satisfies never;
  }
}

async function workbookCells(bytes: Uint8Array): Promise<CellsRead> {
  const problem = await workbookProblem(once(bytes), LIMITS);
  if (problem !== null) return { ok: false, problem: `It cannot be opened: ${problem}.` };
  const { default: ExcelJS } = await import('exceljs');
  const book = new ExcelJS.Workbook();
  try {
    await book.xlsx.load(new Uint8Array(bytes).buffer);
  } catch {
    return {
      ok: false,
      problem: 'It cannot be read as a workbook: open it in a spreadsheet and save it again, or as CSV.',
    };
  }
  const cells: string[][] = [];
  book.worksheets[0]?.eachRow(({ values }) => {
    if (Array.isArray(values)) cells.push(Array.from(values.slice(1), cellText));
  });
  return { ok: true, cells };
}

async function* once(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}
