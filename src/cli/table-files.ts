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
  CsvRows,
  ENCODINGS,
  sniffBytes,
  sniffFormat,
  Utf8Check,
  type CsvFormat,
  type Encoding,
} from '../core/exchange/csv';
import { cellText, spreadsheetValue } from '../core/exchange/spreadsheet';
import { workbookProblem } from '../core/exchange/workbook-size';
import { Misuse } from './files';

export interface RowsFile {
  /** How it was read, in words. */
  readonly readAs: string;
  /** How a CSV file writes its rows; as commas and double quotes for a spreadsheet. */
  readonly format: CsvFormat;
  /** The first row, and the others in bunches. */
  readonly rows: AsyncIterable<readonly string[][]>;
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
        rows: sheetRows(file, mostSilent),
      };
    case 'text': {
      const said = encoding === undefined ? null : readEncoding(encoding);
      const sure = said ?? (found.certain || (await isUtf8(file)) ? found.encoding : 'windows-1252');
      const format = sniffFormat(new TextDecoder(sure).decode(head));
      const between = format.delimiter === '\t' ? 'tabs' : `“${format.delimiter}”`;
      return { readAs: `CSV with ${between}, ${sure}`, format, rows: csvRows(file, sure, format) };
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

async function* csvRows(file: string, encoding: Encoding, format: CsvFormat): AsyncGenerator<string[][]> {
  const decoder = new TextDecoder(encoding);
  const rows = new CsvRows(format);
  for await (const piece of createReadStream(file, { highWaterMark: PIECE }))
    yield rows.push(decoder.decode(piece as Uint8Array, { stream: true }));
  yield rows.push(decoder.decode(), true);
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
  write(rows: readonly (readonly (string | number)[])[]): void;
  /** Puts the file in its place; until then there is nothing under its name. */
  end(): Promise<void>;
  /** Takes away what was written. */
  abandon(): void;
}

/** A file that appears under its name only once all of it is written; XLSX by its name's ending, else CSV. */
export async function createRows(file: string, format: CsvFormat): Promise<RowsWriter> {
  const part = `${file}.part`;
  let descriptor: number;
  try {
    descriptor = openSync(part, 'w');
  } catch (error) {
    throw new Misuse(`--out ${file}: cannot be written (${(error as NodeJS.ErrnoException).code})`);
  }
  if (!/\.xlsx$/i.test(file)) {
    return {
      write: (rows) => void writeSync(descriptor, csvLines(rows, format)),
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
  const { default: ExcelJS } = await import('exceljs');
  const workbook = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: part });
  const sheet = workbook.addWorksheet('Coded');
  return {
    write: (rows) => {
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
