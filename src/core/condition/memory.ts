/** What is known of one respondent while many are walked, in flat arrays: conditions are tested on it without looking anything up. */
import type { Value } from '../document/types';

/** Of a variable that conditions see nothing of. */
export const UNSEEN = 0;
/** Known before the start. */
export const GIVEN = 1;
/** Presented, answered or left blank. */
export const ASKED = 2;

/**
 * By slot: one for each variable, and each pass of a repeated one. Answers may lie here before they are given: what a
 * respondent has not come to is `UNSEEN`.
 */
export interface Memory {
  readonly seen: Uint8Array;
  /** The code or number that was answered, how many were picked of a list, `Infinity` for a text; NaN where left blank. */
  readonly codes: Float64Array;
  /** The same where it is a substantive value; NaN where not: an option or special with `missing`, a text, a blank. */
  readonly numbers: Float64Array;
  /** As they were answered, where `codes` has something. */
  readonly values: (Value | null)[];
  /** Texts as conditions compare them: dates and times with their seconds. */
  readonly texts: (string | null)[];
  /** What was picked of lists, a bit for each option, in words of 32 bits (`Picks`). */
  readonly picks: Int32Array;
  /** Passes begun, by section. */
  readonly begun: Int32Array;
}

/** Where in `Memory.picks` the options of a list have their bits. */
export interface Picks {
  /** Index of the first word. */
  readonly word: number;
  /** Of the options, in the order of their bits. */
  readonly codes: readonly number[];
  /** By code, as far as codes are small: its bit, or -1. */
  readonly bits: Int16Array;
}

/** Codes below this find their bit at once. */
const SMALL = 1024;

export function picksAt(word: number, codes: readonly number[]): Picks {
  const bits = new Int16Array(Math.min(SMALL, Math.max(0, ...codes) + 1)).fill(-1);
  codes.forEach((code, bit) => {
    if (code < bits.length) bits[code] = bit;
  });
  return { word, codes, bits };
}

/** -1 for a code that no option has. */
export function bitOf({ codes, bits }: Picks, code: number): number {
  return bits[code] ?? codes.indexOf(code);
}

export function newMemory(slots: number, words: number, sections: number): Memory {
  return {
    seen: new Uint8Array(slots),
    codes: new Float64Array(slots).fill(NaN),
    numbers: new Float64Array(slots).fill(NaN),
    values: new Array<Value | null>(slots).fill(null),
    texts: new Array<string | null>(slots).fill(null),
    picks: new Int32Array(words),
    begun: new Int32Array(sections),
  };
}

/** What is known of a variable; null where nothing is, or it was left blank. */
export function valueIn({ seen, codes, values }: Memory, slot: number): Value | null {
  return seen[slot] === UNSEEN || Number.isNaN(codes[slot]) ? null : (values[slot] ?? null);
}

/** Whether the answer is an option or special with `missing`, among picks too. */
export function isMissingIn({ codes, numbers }: Memory, slot: number): boolean {
  return Number.isFinite(codes[slot]) && Number.isNaN(numbers[slot]);
}
