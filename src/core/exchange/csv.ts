/** CSV files piece by piece: bytes to text, text to rows, and rows to text that no spreadsheet takes for a formula. */
import Papa from 'papaparse';

export const ENCODINGS = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const;
export type Encoding = (typeof ENCODINGS)[number];

export interface CsvFormat {
  readonly delimiter: string;
  readonly quote: string;
}

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

/** Rows of text that comes piece by piece; empty lines are left out. */
export class CsvRows {
  private rest = '';
  private newline: string | undefined;

  constructor(private readonly format: CsvFormat) {}

  /** Rows that are complete with this piece; with `last`, all that are left. */
  push(text: string, last = false): string[][] {
    this.rest += text;
    // A return at the very end may be half of a line's end.
    if (!last && this.rest.endsWith('\r')) return [];
    this.newline ??= this.findNewline();
    if (this.newline === undefined && !last) return [];
    const parser = new Papa.Parser({
      delimiter: this.format.delimiter,
      quoteChar: this.format.quote,
      newline: (this.newline ?? '\n') as '\n',
    });
    const result = parser.parse(this.rest, 0, !last) as Papa.ParseResult<string[]>;
    this.rest = last ? '' : this.rest.slice(result.meta.cursor);
    return result.data.filter((row) => row.length > 1 || (row[0] ?? '') !== '');
  }

  /** The first line break that stands outside quotes; in a long text without one, the first of all. */
  private findNewline(): string | undefined {
    const quoted = new RegExp(`${this.format.quote}[^${this.format.quote}]*(${this.format.quote}|$)`, 'g');
    const text = this.rest.length > LONGEST_LINE ? this.rest : this.rest.replace(quoted, '');
    return /\r\n|\n|\r/.exec(text)?.[0];
  }
}

/** Anything but a number, or a mere sign, that a spreadsheet would take for a formula. */
const FORMULA = /^[=@\t\r\n]|^[+-](?!\d+([.,]\d+)?$|$)/;

/** Whether a cell is written with an apostrophe in front, so that no spreadsheet runs it. */
export function isDefused(cell: string | number): boolean {
  return typeof cell === 'string' && FORMULA.test(cell);
}

/**
 * Whether a text is written as it stands, whatever the delimiter: letters and digits, with spaces, points, signs and lines
 * between; or a whole number. Almost every cell of coded rows is one, and to tell it is all that most rows cost.
 */
function isPlain(text: string): boolean {
  const last = text.length - 1;
  const first = text.charCodeAt(0);
  const isSigned = first === MINUS && last > 0;
  if (!isSigned && last >= 0 && !isLetterOrDigit(first)) return false;
  for (let at = 1; at <= last; at += 1) {
    const unit = text.charCodeAt(at);
    if (unit >= ZERO && unit <= NINE) continue;
    if (isSigned || (!isLetterOrDigit(unit) && (at === last || !BETWEEN.includes(unit)))) return false;
  }
  return true;
}

const [ZERO, NINE, MINUS] = [48, 57, 45];
/** Space, minus, point and line. */
const BETWEEN = [32, MINUS, 46, 95];

function isLetterOrDigit(unit: number): boolean {
  return (unit >= 97 && unit <= 122) || (unit >= 65 && unit <= 90) || (unit >= ZERO && unit <= NINE);
}

/** Whole numbers that codes mostly are, as text. */
const LEAST = -99;
const SMALL = Array.from({ length: 1100 }, (_, n) => String(n + LEAST));

/** Rows as text, each ended by a line break. */
export function csvLines(
  rows: readonly (readonly (string | number)[])[],
  { delimiter, quote }: CsvFormat = { delimiter: ',', quote: '"' },
): string {
  if (rows.length === 0) return '';
  const config = { delimiter, quoteChar: quote, escapeFormulae: FORMULA };
  const written = (cell: string | number): string => {
    if (typeof cell === 'number') return (Number.isInteger(cell) && SMALL[cell - LEAST]) || String(cell);
    return isPlain(cell) ? cell : Papa.unparse([[cell]], config);
  };
  // Joining lists is many times faster than adding text to text.
  return `${rows.map((row) => row.map(written).join(delimiter)).join('\r\n')}\r\n`;
}
