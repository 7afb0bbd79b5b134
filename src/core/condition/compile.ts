/**
 * Conditions compiled for walking many respondents: names are looked up once, not at every test. A comparison with a number,
 * a pick or a state is an instruction (`test-code.ts`); what compares variables with each other, or texts, is a function.
 */
import { compareValues, exactDecimal, literalValue } from './evaluate';
import { bitOf, isMissingIn, UNSEEN, valueIn, type Memory, type Picks } from './memory';
import type { CompareOperator, Condition, Operand } from './syntax';
import { FAILS, HOLDS, isOperand, TEST, type Entry, type Test, type TestCode } from './test-code';

export type Calculation = (memory: Memory) => number | string | null;

/** What a name means where a condition stands. */
export type Meaning =
  | {
      readonly of: 'slot';
      readonly slot: number;
      /** Codes and numbers, which instructions compare. */
      readonly isNumeric: boolean;
      /** Of a list of which several can be picked. */
      readonly picks: Picks | null;
    }
  /** A grid as a whole. */
  | { readonly of: 'rows'; readonly slots: readonly number[] }
  | { readonly of: 'derived'; readonly value: Calculation }
  | { readonly of: 'nothing' };

export interface CompileScope {
  readonly tests: TestCode;
  readonly meaning: (name: string) => Meaning;
  readonly pass: number | null;
  readonly each: Calculation;
  /** The passes that a counted condition goes over; null where it goes over none. */
  readonly passes: (
    condition: Condition,
  ) => { readonly section: number; readonly scopes: readonly CompileScope[] } | null;
}

/** The tree must have no problems in its scope; what it compiles to never throws. */
export function compileTest(node: Condition, scope: CompileScope): Entry {
  return compileInto(node, scope, HOLDS, FAILS);
}

/** The entry of a test that goes on with `yes` or `no`, which are compiled before: from the end to the beginning. */
function compileInto(node: Condition, scope: CompileScope, yes: Entry, no: Entry): Entry {
  switch (node.kind) {
    case 'constant':
      return node.value ? yes : no;
    case 'and':
      return node.parts.reduceRight((next, part) => compileInto(part, scope, next, no), yes);
    case 'or':
      return node.parts.reduceRight((next, part) => compileInto(part, scope, yes, next), no);
    case 'not':
      return compileInto(node.part, scope, no, yes);
    case 'compare':
      return compileCompare(node, scope, yes, no);
    case 'in':
      return compileIn(node, scope, yes, no);
    case 'has':
      return compileHas(node, scope, yes, no);
    case 'state':
      return compileState(node, scope, yes, no);
    default:
      return node satisfies never;
  }
}

const COMPARISONS: Readonly<Record<CompareOperator, Test>> = {
  '=': TEST.equal,
  '<>': TEST.other,
  '<': TEST.less,
  '<=': TEST.atMost,
  '>': TEST.more,
  '>=': TEST.atLeast,
};

function compileCompare(
  { left, operator, right }: Extract<Condition, { kind: 'compare' }>,
  scope: CompileScope,
  yes: Entry,
  no: Entry,
): Entry {
  const slot = numericSlot(left, scope);
  const { tests } = scope;
  if (slot !== null && right.kind === 'number' && isOperand(right.value))
    return tests.add(COMPARISONS[operator], slot, right.value, 0, yes, no);
  const [a, b] = [compileCalculation(left, scope), compileCalculation(right, scope)];
  // The very code of a don't-know, written out, is seen; to the other comparisons there is no value.
  const seen =
    operator === '='
      ? [writtenCode(left, right, scope), writtenCode(right, left, scope)].filter((test) => test !== null)
      : [];
  return tests.addFunction(
    (memory) => {
      if (seen.some((is) => is(memory))) return true;
      const [x, y] = [a(memory), b(memory)];
      return x !== null && y !== null && compareValues(x, operator, y);
    },
    yes,
    no,
  );
}

function writtenCode(
  side: Operand,
  other: Operand,
  scope: CompileScope,
): ((memory: Memory) => boolean) | null {
  const slot = slotOf(side, scope);
  if (slot === null || other.kind !== 'number') return null;
  const { value: number } = other;
  return (memory) => isMissingIn(memory, slot) && valueIn(memory, slot) === number;
}

function compileIn(
  node: Extract<Condition, { kind: 'in' }>,
  scope: CompileScope,
  yes: Entry,
  no: Entry,
): Entry {
  const { name, negated, members } = node;
  const slot = numericSlot(name, scope);
  const { tests } = scope;
  const bounds = members.map((member) =>
    member.kind === 'range'
      ? ([literalValue(member.from), literalValue(member.to)] as const)
      : ([literalValue(member)] as const),
  );
  const areOperands = bounds.every((each) => each.every((end) => typeof end === 'number' && isOperand(end)));
  if (slot === null || !areOperands) return tests.addFunction(isAmong(node, bounds, scope), yes, no);
  const [within, without] = negated ? [no, yes] : [yes, no];
  const first = bounds.reduceRight((next, [from, to]) => {
    const [a, b] = [Number(from), Number(to)];
    return to === undefined
      ? tests.add(TEST.equal, slot, a, 0, within, next)
      : tests.add(TEST.between, slot, a, b, within, next);
  }, without);
  // What has no value is neither in a list nor out of it.
  return negated ? tests.add(TEST.known, slot, 0, 0, first, no) : first;
}

function isAmong(
  { name, negated }: Extract<Condition, { kind: 'in' }>,
  bounds: readonly (readonly [number | string] | readonly [number | string, number | string])[],
  scope: CompileScope,
): (memory: Memory) => boolean {
  const slot = slotOf(name, scope);
  const calculated = compileCalculation(name, scope);
  return (memory) => {
    const written = slot !== null && isMissingIn(memory, slot) ? valueIn(memory, slot) : null;
    if (written !== null)
      return !negated && bounds.some(([from, to]) => to === undefined && from === written);
    const value = calculated(memory);
    if (value === null) return false;
    const within = bounds.some(([from, to]) =>
      to === undefined ? from === value : value >= from && value <= to,
    );
    return within !== negated;
  };
}

function compileHas(
  { name, quantifier, values }: Extract<Condition, { kind: 'has' }>,
  scope: CompileScope,
  yes: Entry,
  no: Entry,
): Entry {
  const meaning = scope.meaning(name.name);
  if (meaning.of !== 'slot' || meaning.picks === null) return no;
  const { slot, picks } = meaning;
  const { tests } = scope;
  const bits = values.map((literal) => bitOf(picks, literal.kind === 'number' ? literal.value : NaN));
  const masks = new Map<number, number>();
  for (const bit of bits) {
    const word = picks.word + (bit >> 5);
    if (bit >= 0) masks.set(word, (masks.get(word) ?? 0) | (1 << (bit & 31)));
  }
  const any = (picked: Entry, none: Entry) =>
    [...masks].reduceRight(
      (next, [word, mask]) => tests.add(TEST.anyPicked, slot, word, mask, picked, next),
      none,
    );
  switch (quantifier) {
    case 'single':
    case 'any':
      return any(yes, no);
    case 'all':
      if (bits.includes(-1)) return no;
      return [...masks].reduceRight(
        (next, [word, mask]) => tests.add(TEST.allPicked, slot, word, mask, next, no),
        yes,
      );
    case 'none':
      // Without a substantive value only the very code picked is seen, and it is picked.
      return tests.add(TEST.known, slot, 0, 0, any(no, yes), no);
    default:
      return quantifier satisfies never;
  }
}

function compileState(
  { name, state }: Extract<Condition, { kind: 'state' }>,
  scope: CompileScope,
  yes: Entry,
  no: Entry,
): Entry {
  const meaning = scope.meaning(name.name);
  const slots = meaning.of === 'slot' ? [meaning.slot] : meaning.of === 'rows' ? meaning.slots : [];
  const some = (test: Test, holds: Entry, none: Entry) =>
    slots.reduceRight((next, slot) => scope.tests.add(test, slot, 0, 0, holds, next), none);
  switch (state) {
    case 'asked':
      return some(TEST.asked, yes, no);
    case 'not asked':
      return some(TEST.asked, no, yes);
    case 'answered':
      return some(TEST.answered, yes, no);
    case 'unanswered':
      return some(TEST.asked, some(TEST.answered, no, yes), no);
    default:
      return state satisfies never;
  }
}

/** What an operand comes to: null where it has no value. */
export function compileCalculation(node: Operand, scope: CompileScope): Calculation {
  switch (node.kind) {
    case 'name': {
      const meaning = scope.meaning(node.name);
      if (meaning.of === 'derived') return meaning.value;
      // How many were picked of a list is no value of it.
      if (meaning.of !== 'slot' || meaning.picks !== null) return () => null;
      const { slot } = meaning;
      return ({ seen, codes, numbers, texts }) => {
        if (seen[slot] === UNSEEN) return null;
        if (codes[slot] === Infinity) return texts[slot] ?? null;
        const number = numbers[slot] ?? NaN;
        return Number.isNaN(number) ? null : number;
      };
    }
    case 'count': {
      const meaning = scope.meaning(node.name.name);
      if (meaning.of !== 'slot' || meaning.picks === null) return () => null;
      const { slot } = meaning;
      return ({ seen, numbers }) => {
        const picked = numbers[slot] ?? NaN;
        return seen[slot] === UNSEEN || Number.isNaN(picked) ? null : picked;
      };
    }
    case 'count-passes': {
      const over = scope.passes(node.condition);
      if (over === null) return () => 0;
      const { section } = over;
      const { tests } = scope;
      const entries = over.scopes.map((inside) => compileTest(node.condition, inside));
      return (memory) => {
        let count = 0;
        const begun = memory.begun[section] ?? 0;
        for (let pass = 0; pass < begun; pass += 1)
          if (tests.holds(entries[pass] ?? FAILS, memory)) count += 1;
        return count;
      };
    }
    case 'pass': {
      const { pass } = scope;
      return () => pass;
    }
    case 'each':
      return scope.each;
    case 'arithmetic': {
      const [left, right] = [compileCalculation(node.left, scope), compileCalculation(node.right, scope)];
      const { operator } = node;
      return (memory) => {
        const [a, b] = [left(memory), right(memory)];
        if (typeof a !== 'number' || typeof b !== 'number') return null;
        return exactDecimal(operator === '+' ? a + b : operator === '-' ? a - b : a * b);
      };
    }
    default: {
      const value = literalValue(node);
      return () => value;
    }
  }
}

function slotOf(node: Operand, scope: CompileScope): number | null {
  if (node.kind !== 'name') return null;
  const meaning = scope.meaning(node.name);
  return meaning.of === 'slot' ? meaning.slot : null;
}

/** Of a variable of codes or numbers. */
function numericSlot(node: Operand, scope: CompileScope): number | null {
  if (node.kind !== 'name') return null;
  const meaning = scope.meaning(node.name);
  return meaning.of === 'slot' && meaning.isNumeric ? meaning.slot : null;
}
