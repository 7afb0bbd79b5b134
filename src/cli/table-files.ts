/** Files of rows, read and written piece by piece: CSV in any common encoding, and XLSX. */
import {
  closeSync,
  createReadStream,
  openSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import { Readable } from 'node:stream';
import {
  csvLines,
  CsvPieces,
  ENCODINGS,
  rowsInPiece,
  sniffBytes,
  sniffFormat,
  Utf8Check,
  type CsvFormat,
  type Encoding,
} from '../core/exchange/csv';
import type { FilePiece } from '../core/exchange/pieces';
import { cellText, spreadsheetValue } from '../core/exchange/spreadsheet';
import { workbookProblem } from '../core/exchange/workbook-size';
import { Misuse } from './files';

export interface RowsFile {
  /** How it was read, in words. */
  readonly readAs: string;
  /** How a CSV file writes its rows; as commas and double quotes for a spreadsheet. */
  readonly format: CsvFormat;
  /** In bytes. */
  readonly size: number;
  /** The first row, and the others in bunches. */
  readonly rows: AsyncIterable<readonly string[][]>;
  /** The same as it comes, for whoever hands it on. */
  readonly pieces: AsyncIterable<FilePiece>;
}

/** Bytes looked at to find out what a file is, and read at once. */
const HEAD = 65_536;
const PIECE = 1 << 18;

/**
 * In milliseconds: while nothing more is read of a workbook and no row comes, so long, none will. What reads workbooks
 * waits for ever for the rest of some that are damaged.
 */
const MOST_SILENT = 30_000;

/** Opens a file of rows; refuses what is none, in one line. `mostSilent`: milliseconds without a sign of life of it. */
export async function openRows(file: string, encoding?: string, mostSilent = MOST_SILENT): Promise<RowsFile> {
  const head = readHead(file);
  const found = sniffBytes(head);
  switch (found.is) {
    case 'empty':
      throw new Misuse(`${file}: the file is empty`);
    case 'other':
      throw new Misuse(`${file}: this is ${found.words}; a CSV or XLSX file is needed`);
    case 'xlsx':
      return {
        readAs: 'XLSX, its first sheet',
        format: { delimiter: ',', quote: '"' },
        size: statSync(file).size,
        rows: sheetRows(file, mostSilent),
        pieces: inPieces(sheetRows(file, mostSilent)),
      };
    case 'text': {
      const said = encoding === undefined ? null : readEncoding(encoding);
      const sure = said ?? (found.certain || (await isUtf8(file)) ? found.encoding : 'windows-1252');
      const format = sniffFormat(new TextDecoder(sure).decode(head));
      const between = format.delimiter === '\t' ? 'tabs' : `“${format.delimiter}”`;
      return {
        readAs: `CSV with ${between}, ${sure}`,
        format,
        size: statSync(file).size,
        rows: csvRows(file, sure, format),
        pieces: csvPieces(file, sure, format),
      };
    }
    default:
      return found satisfies never;
  }
}

function readEncoding(text: string): Encoding {
  const found = ENCODINGS.find((each) => each === text.toLowerCase());
  if (found === undefined) throw new Misuse(`--encoding takes ${ENCODINGS.join(', ')}, not "${text}"`);
  return found;
}

function readHead(file: string): Uint8Array {
  try {
    if (statSync(file).isDirectory()) throw new Misuse(`${file}: this is a folder`);
    const descriptor = openSync(file, 'r');
    const buffer = new Uint8Array(HEAD);
    const length = readSync(descriptor, buffer, 0, HEAD, 0);
    closeSync(descriptor);
    return buffer.subarray(0, length);
  } catch (error) {
    if (error instanceof Misuse) throw error;
    const code = (error as NodeJS.ErrnoException).code;
    throw new Misuse(`${file}: ${code === 'ENOENT' ? 'there is no such file' : `cannot be read (${code})`}`);
  }
}

async function isUtf8(file: string): Promise<boolean> {
  const check = new Utf8Check();
  for await (const piece of createReadStream(file, { highWaterMark: PIECE })) {
    check.add(piece as Uint8Array);
    if (!check.isUtf8) return false;
  }
  return check.end();
}

async function* csvPieces(file: string, encoding: Encoding, format: CsvFormat): AsyncGenerator<FilePiece> {
  const decoder = new TextDecoder(encoding);
  const pieces = new CsvPieces(format);
  const { size } = statSync(file);
  let read = 0;
  for await (const bytes of createReadStream(file, { highWaterMark: PIECE })) {
    read += (bytes as Uint8Array).length;
    const piece = pieces.push(decoder.decode(bytes as Uint8Array, { stream: true }));
    yield { piece, newline: pieces.newline, share: read / size };
  }
  yield { piece: pieces.push(decoder.decode(), true), newline: pieces.newline, share: 1 };
}

async function* csvRows(file: string, encoding: Encoding, format: CsvFormat): AsyncGenerator<string[][]> {
  for await (const { piece, newline } of csvPieces(file, encoding, format))
    yield rowsInPiece(piece, format, newline);
}

/** How far a workbook has been read nobody can tell. */
async function* inPieces(rows: AsyncIterable<string[][]>): AsyncGenerator<FilePiece> {
  for await (const piece of rows) yield { piece, newline: undefined, share: 0 };
}

async function* sheetRows(file: string, mostSilent: number): AsyncGenerator<string[][]> {
  const problem = await workbookProblem(createReadStream(file) as AsyncIterable<Uint8Array>);
  if (problem !== null) throw new Misuse(`${file}: ${problem}`);
  const { default: ExcelJS } = await import('exceljs');
  const signs = new SignsOfLife(mostSilent);
  const workbook = new ExcelJS.stream.xlsx.WorkbookReader(Readable.from(signs.seen(createReadStream(file))), {
    sharedStrings: 'cache',
    styles: 'cache',
    hyperlinks: 'ignore',
    worksheets: 'emit',
    entries: 'emit',
  });
  let width = 0;
  try {
    for await (const sheet of signs.untilSilent(workbook)) {
      for await (const row of signs.untilSilent(sheet)) {
        const { values } = row;
        if (!Array.isArray(values)) continue;
        const cells = Array.from(values.slice(1), cellText);
        // Empty cells at a row's end are not kept in a sheet.
        while (cells.length < width) cells.push('');
        if (width === 0) width = cells.length;
        if (cells.some((cell) => cell !== '')) yield [cells];
      }
      return;
    }
  } catch (error) {
    throw new Misuse(
      `${file}: this workbook cannot be read (${error instanceof Error ? error.message : String(error)})`,
    );
  }
}

/** Whether something still goes on. */
class SignsOfLife {
  private last = performance.now();

  constructor(private readonly mostSilent: number) {}

  /** Passes on what is read, which is a sign of life. */
  async *seen(pieces: AsyncIterable<unknown>): AsyncGenerator<unknown> {
    for await (const piece of pieces) {
      this.last = performance.now();
      yield piece;
    }
  }

  /** Passes on what comes; throws where there was no sign of life for too long. */
  async *untilSilent<Item>(items: AsyncIterable<Item>): AsyncGenerator<Item> {
    const iterator = items[Symbol.asyncIterator]();
    for (;;) {
      let timer: NodeJS.Timeout | undefined;
      const silence = new Promise<never>((_, reject) => {
        timer = setInterval(() => {
          if (performance.now() - this.last > this.mostSilent)
            reject(new Error('it is damaged, and its end never comes'));
        }, this.mostSilent / 4);
      });
      const next = await Promise.race([iterator.next(), silence]).finally(() => clearInterval(timer));
      this.last = performance.now();
      if (next.done === true) return;
      yield next.value;
    }
  }
}

export interface RowsWriter {
  /** Rows, or the bytes of rows that are written already. */
  write(rows: RowsWritten): void;
  /** Puts the file in its place; until then there is nothing under its name. */
  end(): Promise<void>;
  /** Takes away what was written. */
  abandon(): void;
}

export type RowsWritten = Uint8Array | readonly (readonly (string | number)[])[];

/** Whether a file of this name is written as a workbook, and not as CSV. */
export function isWorkbookName(file: string): boolean {
  return /\.xlsx$/i.test(file);
}

/**
 * A file that appears under its name only once all of it is written; XLSX by its name's ending, else CSV. Whoever is stopped
 * meanwhile either has it to abandon, or nothing was begun.
 */
export async function createRows(file: string, format: CsvFormat): Promise<RowsWriter> {
  const ExcelJS = isWorkbookName(file) ? (await import('exceljs')).default : null;
  const part = `${file}.part`;
  let descriptor: number;
  try {
    descriptor = openSync(part, 'w');
  } catch (error) {
    throw new Misuse(`--out ${file}: cannot be written (${(error as NodeJS.ErrnoException).code})`);
  }
  if (ExcelJS === null) {
    return {
      write: (rows) =>
        void (rows instanceof Uint8Array
          ? writeWhole(descriptor, rows)
          : writeSync(descriptor, csvLines(rows, format))),
      end: () => {
        closeSync(descriptor);
        renameSync(part, file);
        return Promise.resolve();
      },
      abandon: () => {
        closeSync(descriptor);
        rmSync(part, { force: true });
      },
    };
  }
  closeSync(descriptor);
  const workbook = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: part });
  const sheet = workbook.addWorksheet('Coded');
  return {
    write: (rows) => {
      if (rows instanceof Uint8Array) throw new Error('a workbook is written row by row');
      for (const row of rows) sheet.addRow(row.map(spreadsheetValue)).commit();
    },
    end: async () => {
      sheet.commit();
      await workbook.commit();
      renameSync(part, file);
    },
    abandon: () => rmSync(part, { force: true }),
  };
}

/** A disk may take less than it is given at once. */
function writeWhole(descriptor: number, bytes: Uint8Array): void {
  for (let at = 0; at < bytes.length;) at += writeSync(descriptor, bytes, at);
}
