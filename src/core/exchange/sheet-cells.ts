/** All cells of a small table as text: a CSV file in any common encoding, or the first sheet of a workbook. */
import { CsvRows, sniffBytes, sniffFormat } from './csv';
import { decoded } from './decoded';
import { cellText } from './spreadsheet';
import { atHand, workbookProblem } from './workbook-size';

export type CellsRead =
  | { readonly ok: true; readonly cells: readonly (readonly string[])[] }
  /** A sentence. */
  | { readonly ok: false; readonly problem: string };

/** In bytes: lists of questions and codes are far smaller. */
const MOST_BYTES = 20_000_000;
/** A workbook of this kind, unpacked, and the texts that its cells share. */
const LIMITS = { unpacked: 100_000_000, texts: 300_000 };

export async function cellsOf(bytes: Uint8Array): Promise<CellsRead> {
  if (bytes.length <= MOST_BYTES && sniffBytes(bytes.subarray(0, 4)).is === 'xlsx')
    return workbookCells(bytes);
  const read = decoded(bytes, MOST_BYTES, 'A table is needed, as CSV or XLSX.');
  if (!read.ok) return read;
  const { text } = read;
  return { ok: true, cells: new CsvRows(sniffFormat(text.slice(0, 65_536))).push(text, true) };
}

async function workbookCells(bytes: Uint8Array): Promise<CellsRead> {
  const problem = await workbookProblem(atHand(bytes), LIMITS);
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
