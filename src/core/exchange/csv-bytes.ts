/**
 * Rows as the bytes of a CSV file. Almost every cell of coded rows is a code or a blank, which is copied letter by letter;
 * how any other is written, the package is asked.
 */
import Papa from 'papaparse';

export interface CsvFormat {
  readonly delimiter: string;
  readonly quote: string;
}

/** Anything but a number, or a mere sign, that a spreadsheet would take for a formula. */
export const FORMULA = /^[=@\t\r\n]|^[+-](?!\d+([.,]\d+)?$|$)/;

/** Whole numbers that codes mostly are, as text. */
const LEAST = -99;
const SMALL = Array.from({ length: 1100 }, (_, n) => String(n + LEAST));

/** Of UTF-8, for a letter of JavaScript at most. */
const BYTES_A_LETTER = 3;
const [SPACE, MINUS, POINT, LINE, ZERO, NINE] = [32, 45, 46, 95, 48, 57];

/** Each row ended by a line break. */
export function csvBytes(
  rows: readonly (readonly (string | number)[])[],
  { delimiter, quote }: CsvFormat,
): Uint8Array {
  const config = { delimiter, quoteChar: quote, escapeFormulae: FORMULA };
  const out = new Bytes();
  for (const row of rows) {
    for (let n = 0; n < row.length; n += 1) {
      const cell = row[n] as string | number;
      if (n > 0) out.add(delimiter);
      if (typeof cell === 'number') out.add((Number.isInteger(cell) && SMALL[cell - LEAST]) || String(cell));
      else if (cell !== '' && !out.addPlain(cell)) out.add(Papa.unparse([[cell]], config));
    }
    out.add('\r\n');
  }
  return out.all();
}

class Bytes {
  private bytes = new Uint8Array(1 << 16);
  private length = 0;
  private readonly encoder = new TextEncoder();

  all(): Uint8Array {
    return this.bytes.slice(0, this.length);
  }

  add(text: string): void {
    const bytes = this.withRoomFor(text);
    const start = this.length;
    for (let at = 0; at < text.length; at += 1) {
      const unit = text.charCodeAt(at);
      if (unit > 127) {
        this.length = start + this.encoder.encodeInto(text, bytes.subarray(start)).written;
        return;
      }
      bytes[start + at] = unit;
    }
    this.length = start + text.length;
  }

  /**
   * Adds a text that is written as it stands whatever the delimiter: letters and digits, with spaces, points, signs and
   * lines between; or a whole number. False, and nothing added, where it is none.
   */
  addPlain(text: string): boolean {
    const bytes = this.withRoomFor(text);
    const start = this.length;
    const last = text.length - 1;
    const isSigned = last > 0 && text.charCodeAt(0) === MINUS;
    if (isSigned) bytes[start] = MINUS;
    for (let at = isSigned ? 1 : 0; at <= last; at += 1) {
      const unit = text.charCodeAt(at);
      const isDigit = unit >= ZERO && unit <= NINE;
      if (!isDigit && (isSigned || !(isLetter(unit) || (at > 0 && at < last && isBetween(unit)))))
        return false;
      bytes[start + at] = unit;
    }
    this.length = start + text.length;
    return true;
  }

  private withRoomFor({ length }: string): Uint8Array {
    const wanted = this.length + length * BYTES_A_LETTER;
    if (wanted > this.bytes.length) {
      const larger = new Uint8Array(Math.max(wanted, 2 * this.bytes.length));
      larger.set(this.bytes.subarray(0, this.length));
      this.bytes = larger;
    }
    return this.bytes;
  }
}

function isLetter(unit: number): boolean {
  return (unit >= 97 && unit <= 122) || (unit >= 65 && unit <= 90);
}

function isBetween(unit: number): boolean {
  return unit === SPACE || unit === MINUS || unit === POINT || unit === LINE;
}
