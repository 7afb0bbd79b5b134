/** CSV files piece by piece: bytes to text, text to rows, and rows to text that no spreadsheet takes for a formula. */
import Papa from 'papaparse';
import { csvBytes, FORMULA, type CsvFormat } from './csv-bytes';

export type { CsvFormat } from './csv-bytes';

export const ENCODINGS = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const;
export type Encoding = (typeof ENCODINGS)[number];

export type BytesSniffed =
  | { readonly is: 'text'; readonly encoding: Encoding; readonly certain: boolean }
  | { readonly is: 'xlsx' }
  | { readonly is: 'empty' }
  /** Something else, in words: “a PNG picture”. */
  | { readonly is: 'other'; readonly words: string };

const MAGIC: readonly (readonly [string, string])[] = [
  ['89504e47', 'a PNG picture'],
  ['ffd8ff', 'a JPEG picture'],
  ['47494638', 'a GIF picture'],
  ['25504446', 'a PDF document'],
  ['d0cf11e0', 'an old Excel or Word file: save it as XLSX or CSV first'],
  ['1f8b', 'a gzip archive: unpack it first'],
  ['52494646', 'a sound, film or picture'],
];

/**
 * What the first bytes of a file are (some thousand will do). `certain` false: UTF-8 unless a later byte says
 * otherwise, see `isUtf8`.
 */
export function sniffBytes(head: Uint8Array): BytesSniffed {
  if (head.length === 0) return { is: 'empty' };
  const hex = [...head.slice(0, 4)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  if (hex === '504b0304') return { is: 'xlsx' };
  if (hex.startsWith('efbbbf')) return { is: 'text', encoding: 'utf-8', certain: true };
  if (hex.startsWith('fffe')) return { is: 'text', encoding: 'utf-16le', certain: true };
  if (hex.startsWith('feff')) return { is: 'text', encoding: 'utf-16be', certain: true };
  const known = MAGIC.find(([magic]) => hex.startsWith(magic));
  if (known !== undefined) return { is: 'other', words: known[1] };
  const zeros = [0, 1].map((odd) => head.filter((byte, at) => byte === 0 && at % 2 === odd).length);
  const [even = 0, odd = 0] = zeros;
  if (odd > head.length / 4 && even === 0) return { is: 'text', encoding: 'utf-16le', certain: true };
  if (even > head.length / 4 && odd === 0) return { is: 'text', encoding: 'utf-16be', certain: true };
  if (even + odd > 0) return { is: 'other', words: 'no text file: it holds bytes that no text has' };
  return { is: 'text', encoding: 'utf-8', certain: false };
}

/** Whether all pieces of a file together are UTF-8. */
export class Utf8Check {
  private readonly decoder = new TextDecoder('utf-8', { fatal: true });
  isUtf8 = true;

  add(bytes: Uint8Array): void {
    if (this.isUtf8) this.decode(bytes, true);
  }

  end(): boolean {
    if (this.isUtf8) this.decode(new Uint8Array(), false);
    return this.isUtf8;
  }

  private decode(bytes: Uint8Array, stream: boolean): void {
    try {
      this.decoder.decode(bytes, { stream });
    } catch {
      this.isUtf8 = false;
    }
  }
}

/** The delimiter and quote that the first lines of a file use. */
export function sniffFormat(head: string): CsvFormat {
  const lines = head
    .split(/\r\n|\r|\n/)
    .filter((line) => line !== '')
    .slice(0, 50);
  const { delimiter } = Papa.parse<string[]>(lines.join('\n'), { preview: 40 }).meta;
  const single = new RegExp(`(^|${escaped(delimiter)})'[^']*'(${escaped(delimiter)}|$)`, 'm');
  return { delimiter, quote: !head.includes('"') && single.test(lines.join('\n')) ? "'" : '"' };
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}

/** A first line longer than this is taken for one with a stray quote in it. */
const LONGEST_LINE = 1_000_000;

/** Rows that follow each other: as text that holds whole rows, or cell by cell. */
export type RowsPiece = string | string[][];

/** Text that comes piece by piece, cut where rows end. */
export class CsvPieces {
  private rest = '';
  /** How lines end, once that is known. */
  newline: string | undefined;

  constructor(private readonly format: CsvFormat) {}

  /**
   * The rows that are complete with this piece; with `last`, all that are left. As text, unless there are quotes in it: a
   * line break within them ends no row, and only whoever reads the cells can tell.
   */
  push(text: string, last = false): RowsPiece {
    this.rest += text;
    // A return at the very end may be half of a line's end.
    if (!last && this.rest.endsWith('\r')) return '';
    this.newline ??= this.findNewline();
    if (this.newline === undefined && !last) return '';
    if (this.rest.includes(this.format.quote)) {
      const { data, meta } = parse(this.rest, this.format, this.newline, last);
      this.rest = last ? '' : this.rest.slice(meta.cursor);
      return data.filter(isNoEmptyLine);
    }
    const { newline } = this;
    const at = newline === undefined ? -1 : this.rest.lastIndexOf(newline);
    const end = last || newline === undefined ? this.rest.length : at < 0 ? 0 : at + newline.length;
    const whole = this.rest.slice(0, end);
    this.rest = this.rest.slice(end);
    return whole;
  }

  /** The first line break that stands outside quotes; in a long text without one, the first of all. */
  private findNewline(): string | undefined {
    const quoted = new RegExp(`${this.format.quote}[^${this.format.quote}]*(${this.format.quote}|$)`, 'g');
    const text = this.rest.length > LONGEST_LINE ? this.rest : this.rest.replace(quoted, '');
    return /\r\n|\n|\r/.exec(text)?.[0];
  }
}

/** `last`: the text ends with a row, whether or not a line break follows. */
function parse(text: string, { delimiter, quote }: CsvFormat, newline: string | undefined, last: boolean) {
  const parser = new Papa.Parser({
    delimiter,
    quoteChar: quote,
    newline: (newline ?? '\n') as '\n',
  });
  return parser.parse(text, 0, !last) as Papa.ParseResult<string[]>;
}

function isNoEmptyLine(row: readonly string[]): boolean {
  return row.length > 1 || (row[0] ?? '') !== '';
}

/** The rows of a piece, without empty lines. `newline`: as `CsvPieces` found it. */
export function rowsInPiece(piece: RowsPiece, format: CsvFormat, newline: string | undefined): string[][] {
  if (typeof piece !== 'string') return piece;
  return piece === '' ? [] : parse(piece, format, newline, true).data.filter(isNoEmptyLine);
}

/** Rows of text that comes piece by piece. */
export class CsvRows {
  private readonly pieces: CsvPieces;

  constructor(private readonly format: CsvFormat) {
    this.pieces = new CsvPieces(format);
  }

  /** Rows that are complete with this piece; with `last`, all that are left. */
  push(text: string, last = false): string[][] {
    return rowsInPiece(this.pieces.push(text, last), this.format, this.pieces.newline);
  }
}

/** Whether a cell is written with an apostrophe in front, so that no spreadsheet runs it. */
export function isDefused(cell: string | number): boolean {
  return typeof cell === 'string' && FORMULA.test(cell);
}

/** Rows as text, each ended by a line break. */
export function csvLines(
  rows: readonly (readonly (string | number)[])[],
  format: CsvFormat = { delimiter: ',', quote: '"' },
): string {
  return rows.length === 0 ? '' : new TextDecoder().decode(csvBytes(rows, format));
}
