/**
 * Conditions as code for one loop, for walking many respondents. Every single test is an instruction that says where to go
 * on if it holds and where if not, so that “and”, “or” and “not” are no work of their own. Means just what `evaluate.ts`
 * means.
 */
import { ASKED, UNSEEN, type Memory } from './memory';

/** Where a condition begins: an instruction, or how it comes out. */
export type Entry = number;
export const HOLDS: Entry = -1;
export const FAILS: Entry = -2;

/** What an instruction tests. Operands `a` and `b` are numbers to compare with, unless it says something else. */
export const TEST = {
  /** The very number or code `a`, that of a don't-know as well. */
  equal: 0,
  other: 1,
  less: 2,
  atMost: 3,
  more: 4,
  atLeast: 5,
  /** From `a` to `b`, both included. */
  between: 6,
  /** It has a substantive value. */
  known: 7,
  /** In the word `a` of picks, any bit of `b`; all of them. */
  anyPicked: 8,
  allPicked: 9,
  asked: 10,
  answered: 11,
  /** The function `a`. */
  function: 12,
} as const;
export type Test = (typeof TEST)[keyof typeof TEST];

/** Whether a number can be an operand; with others a function compares. */
export function isOperand(value: number): boolean {
  return Object.is(value | 0, value);
}

/** Numbers of an instruction: its test and slot in one, `a`, where to go on if it holds, and where if not, `b`. */
const WIDTH = 5;
const YES = 2;
const NO = 3;
const B = 4;
/** Bits of the test, below those of the slot. */
const TEST_BITS = 4;
const TEST_MASK = 15;

/** The code of all conditions of a questionnaire, which grows as they are compiled. */
export class TestCode {
  private code = new Int32Array(64 * WIDTH);
  private size = 0;
  private readonly functions: ((memory: Memory) => boolean)[] = [];

  /** One test; the entry that begins with it. */
  add(test: Test, slot: number, a: number, b: number, yes: Entry, no: Entry): Entry {
    const at = this.size;
    if (at + WIDTH > this.code.length) {
      const longer = new Int32Array(2 * this.code.length);
      longer.set(this.code);
      this.code = longer;
    }
    this.code.set([test | (slot << TEST_BITS), a, yes, no, b], at);
    this.size += WIDTH;
    return at;
  }

  /** A test for which there is no instruction. */
  addFunction(holds: (memory: Memory) => boolean, yes: Entry, no: Entry): Entry {
    return this.add(TEST.function, 0, this.functions.push(holds) - 1, 0, yes, no);
  }

  holds(entry: Entry, memory: Memory): boolean {
    const { code } = this;
    let at = entry;
    // Places in these arrays are all made above.
    while (at >= 0) {
      const head = code[at] as number;
      const slot = head >> TEST_BITS;
      const a = code[at + 1] as number;
      const test = head & TEST_MASK;
      // By far the most of all tests.
      const holds =
        test === TEST.equal
          ? memory.seen[slot] !== UNSEEN && memory.codes[slot] === a
          : this.isSo(test, slot, a, code[at + B] as number, memory);
      at = code[at + (holds ? YES : NO)] as number;
    }
    return at === HOLDS;
  }

  /** NaN, which is no number, compares with none. */
  private isSo(test: number, slot: number, a: number, b: number, memory: Memory): boolean {
    if (test === TEST.function) return this.functions[a]?.(memory) === true;
    const seen = memory.seen[slot];
    if (seen === UNSEEN) return false;
    const number = memory.numbers[slot] as number;
    switch (test) {
      case TEST.anyPicked:
        return ((memory.picks[a] as number) & b) !== 0;
      case TEST.other:
        return number === number && number !== a;
      case TEST.less:
        return number < a;
      case TEST.atMost:
        return number <= a;
      case TEST.more:
        return number > a;
      case TEST.atLeast:
        return number >= a;
      case TEST.between:
        return number >= a && number <= b;
      case TEST.known:
        return number === number;
      case TEST.allPicked:
        return ((memory.picks[a] as number) & b) === b;
      case TEST.asked:
        return seen === ASKED;
      case TEST.answered:
        return seen === ASKED && !Number.isNaN(memory.codes[slot]);
      default:
        return false;
    }
  }
}
