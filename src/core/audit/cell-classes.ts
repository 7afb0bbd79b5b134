/** The cells of a row as numbers, for the judge of clean rows: what kind of thing each holds, and which. */
import type { CellReader } from './readings';

/** Of a cell. Anything that needs a closer look, a label or something wrong, is odd. */
export const CELL = {
  /** Not looked at yet. */
  unread: 0,
  blank: 1,
  /** A code or a number. */
  value: 2,
  /** A text, a date or a time. */
  text: 3,
  notApplicable: 4,
  notDrawn: 5,
  noAnswer: 6,
  /** Another code of the missing plan that somebody who was asked can be given. */
  otherReason: 7,
  odd: 8,
} as const;
export type CellClass = (typeof CELL)[keyof typeof CELL];

const BY_REASON: Readonly<Record<string, CellClass>> = {
  not_applicable: CELL.notApplicable,
  not_drawn: CELL.notDrawn,
  no_answer: CELL.noAnswer,
  // Somebody stopped, or their time ran out: such rows are walked with a record.
  not_reached: CELL.odd,
};

/** Whole numbers of up to three letters as they are plainly written, which codes mostly are, are known at once. */
const LEAST = -99;
const MOST = 999;
const SPAN = MOST - LEAST + 1;
const NONE = MOST + 1;

export class CellClasses {
  /** Of the last row, by column; `numbers` holds the value or the code of the reason. */
  readonly classes: Uint8Array;
  readonly numbers: Float64Array;
  /** Of a text, a date or a time: as it is read. */
  readonly texts: string[];
  private readonly known: Uint8Array;

  constructor(private readonly readers: readonly CellReader[]) {
    this.classes = new Uint8Array(readers.length);
    this.numbers = new Float64Array(readers.length);
    this.texts = readers.map(() => '');
    this.known = new Uint8Array(readers.length * SPAN);
  }

  /** The first `count` cells; false at the first that is odd. */
  read(texts: readonly string[], count: number): boolean {
    const { classes, numbers, known } = this;
    for (let column = 0; column < count; column += 1) {
      const text = texts[column] ?? '';
      let found: number;
      if (text === '') found = CELL.blank;
      else {
        const number = smallIn(text);
        if (number === NONE) found = this.look(column, text);
        else {
          const at = column * SPAN + number - LEAST;
          found = known[at] as number;
          // A text may be a number, too: it is looked at every time.
          if (found === CELL.unread) {
            found = this.look(column, text);
            if (found !== CELL.text) known[at] = found;
          }
          numbers[column] = number;
        }
      }
      if (found === CELL.odd) return false;
      classes[column] = found;
    }
    return true;
  }

  /** As the column's reader has it. */
  private look(column: number, text: string): CellClass {
    const reading = this.readers[column]?.(text) ?? { kind: 'blank' };
    switch (reading.kind) {
      case 'blank':
        return CELL.blank;
      case 'wrong':
        return CELL.odd;
      case 'reason':
        this.numbers[column] = Number(text);
        return BY_REASON[reading.reason] ?? CELL.otherReason;
      case 'value':
        if (reading.recoded) return CELL.odd;
        if (typeof reading.value === 'string') {
          this.texts[column] = reading.value;
          return CELL.text;
        }
        this.numbers[column] = reading.value;
        return CELL.value;
      default:
        return reading satisfies never;
    }
  }
}

const [ZERO, NINE, MINUS] = [48, 57, 45];

/** A whole number from `LEAST` to `MOST` as it is plainly written; `NONE` for any other text, which is not empty. */
function smallIn(text: string): number {
  const { length } = text;
  if (length > 3) return NONE;
  const isNegative = text.charCodeAt(0) === MINUS;
  const start = isNegative ? 1 : 0;
  const first = text.charCodeAt(start);
  // Neither -0 nor 07: these are other texts of the same number.
  if (first === ZERO) return length === 1 ? 0 : NONE;
  let number = 0;
  for (let at = start; at < length; at += 1) {
    const unit = text.charCodeAt(at);
    if (unit < ZERO || unit > NINE) return NONE;
    number = number * 10 + unit - ZERO;
  }
  if (start === length) return NONE;
  return isNegative ? -number : number;
}
