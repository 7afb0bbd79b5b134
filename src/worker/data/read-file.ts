/** A collected file in the browser, row by row: CSV as it streams in, or the first sheet of a workbook. */
import {
  CsvPieces,
  ENCODINGS,
  rowsInPiece,
  sniffBytes,
  sniffFormat,
  Utf8Check,
  type CsvFormat,
  type Encoding,
} from '../../core/exchange/csv';
import type { FilePiece } from '../../core/exchange/pieces';
import { cellText } from '../../core/exchange/spreadsheet';
import { workbookProblem } from '../../core/exchange/workbook-size';

/** Files larger than these are refused here: the shell takes any size. */
const MOST_BYTES = 300_000_000;
const MOST_WORKBOOK_BYTES = 40_000_000;
const HEAD = 65_536;

export interface RowSource {
  readonly readAs: string;
  readonly format: CsvFormat;
  readonly encoding: Encoding | null;
  /** In bytes. */
  readonly size: number;
  /** The rows in pieces, the header with the first; from the first row each time. */
  pieces(): AsyncIterable<FilePiece>;
}

export type Opening =
  { readonly ok: true; readonly source: RowSource } | { readonly ok: false; readonly problem: string };

export async function openFile(file: File, wanted: Encoding | null): Promise<Opening> {
  const refuse = (problem: string): Opening => ({ ok: false, problem });
  const size = sizeWords(file.size);
  if (file.size > MOST_BYTES)
    return refuse(
      `“${file.name}” holds ${size}. Here files of up to ${sizeWords(MOST_BYTES)} are audited; the shell takes any size: npx jolly-fork audit study.fork.json --data ${file.name} --out coded.csv`,
    );
  const head = new Uint8Array(await file.slice(0, HEAD).arrayBuffer());
  const found = sniffBytes(head);
  switch (found.is) {
    case 'empty':
      return refuse(`“${file.name}” is empty: export the rows again.`);
    case 'other':
      return refuse(`“${file.name}” is ${found.words}. A CSV or XLSX file of collected rows is needed.`);
    case 'xlsx':
      if (file.size > MOST_WORKBOOK_BYTES)
        return refuse(
          `“${file.name}” holds ${size}. Workbooks of up to ${sizeWords(MOST_WORKBOOK_BYTES)} are read here: save it as CSV.`,
        );
      return workbook(file);
    case 'text': {
      const encoding = wanted ?? (found.certain || (await isUtf8(file)) ? found.encoding : 'windows-1252');
      const format = sniffFormat(new TextDecoder(encoding).decode(head));
      const between = format.delimiter === '\t' ? 'tabs' : `“${format.delimiter}”`;
      return {
        ok: true,
        source: {
          readAs: `CSV with ${between} between cells, ${ENCODING_WORDS[encoding]}`,
          format,
          encoding,
          size: file.size,
          pieces: () => csvPieces(file, encoding, format),
        },
      };
    }
    default:
      return found satisfies never;
  }
}

const ENCODING_WORDS: Readonly<Record<(typeof ENCODINGS)[number], string>> = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16',
  'utf-16be': 'UTF-16 (big end first)',
  'windows-1252': 'Windows-1252',
};

export function sizeWords(bytes: number): string {
  if (bytes < 1e6) return `${Math.ceil(bytes / 1000)} kB`;
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB` : `${(bytes / 1e9).toFixed(1)} GB`;
}

async function* piecesOf(file: File): AsyncGenerator<Uint8Array> {
  const reader = file.stream().getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    yield value;
  }
}

async function isUtf8(file: File): Promise<boolean> {
  const check = new Utf8Check();
  for await (const piece of piecesOf(file)) {
    check.add(piece);
    if (!check.isUtf8) return false;
  }
  return check.end();
}

async function* csvPieces(file: File, encoding: Encoding, format: CsvFormat): AsyncGenerator<FilePiece> {
  const decoder = new TextDecoder(encoding);
  const pieces = new CsvPieces(format);
  let read = 0;
  for await (const bytes of piecesOf(file)) {
    read += bytes.length;
    const piece = pieces.push(decoder.decode(bytes, { stream: true }));
    yield { piece, newline: pieces.newline, share: read / file.size };
  }
  yield { piece: pieces.push(decoder.decode(), true), newline: pieces.newline, share: 1 };
}

/** All rows of a source, cell by cell, piece by piece. */
export async function* rowsOf(source: RowSource): AsyncGenerator<string[][]> {
  for await (const { piece, newline } of source.pieces()) yield rowsInPiece(piece, source.format, newline);
}

async function workbook(file: File): Promise<Opening> {
  const problem = await workbookProblem(piecesOf(file));
  if (problem !== null) return { ok: false, problem: `“${file.name}” cannot be opened here: ${problem}.` };
  const { default: ExcelJS } = await import('exceljs');
  const book = new ExcelJS.Workbook();
  try {
    await book.xlsx.load(await file.arrayBuffer());
  } catch {
    return {
      ok: false,
      problem: `“${file.name}” cannot be read as a workbook: open it in a spreadsheet and save it again, or as CSV.`,
    };
  }
  const sheet = book.worksheets[0];
  const rows: string[][] = [];
  let width = 0;
  sheet?.eachRow((row) => {
    const { values } = row;
    if (!Array.isArray(values)) return;
    const cells = Array.from(values.slice(1), cellText);
    if (width === 0) width = cells.length;
    // Empty cells at a row's end are not kept in a sheet.
    while (cells.length < width) cells.push('');
    if (cells.some((cell) => cell !== '')) rows.push(cells);
  });
  if (rows.length === 0)
    return { ok: false, problem: `The first sheet of “${file.name}” is empty: put the rows there.` };
  return {
    ok: true,
    source: {
      readAs: `workbook, its first sheet “${sheet?.name ?? ''}”`,
      format: { delimiter: ',', quote: '"' },
      encoding: null,
      size: file.size,
      pieces: () => inBunches(rows),
    },
  };
}

/** Rows of a workbook that are handed on at once. */
const BUNCH = 2000;

async function* inBunches(rows: readonly string[][]): AsyncGenerator<FilePiece> {
  for (let at = 0; at < rows.length; at += BUNCH) {
    const piece = rows.slice(at, at + BUNCH);
    yield await Promise.resolve({ piece, newline: undefined, share: (at + piece.length) / rows.length });
  }
}
