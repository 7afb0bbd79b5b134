/**
 * Conditions made into functions, for walking many respondents: names are looked up once, not at every test. Means
 * just what `evaluate.ts` means.
 */
import { normalDate } from '../document/dates';
import type { Value } from '../document/types';
import { compareValues, exactDecimal } from './evaluate';
import type { CompareOperator, Condition, Literal, Operand } from './syntax';

/** What is known of one respondent, by slot: one for each variable, and each pass of a repeated one. */
export interface Memory {
  /** As conditions compare it; null where blank, or not asked. */
  readonly values: (Value | null)[];
  /** 1 where the value is an option or special with `missing`. */
  readonly missing: Uint8Array;
  /** 1 where presented. */
  readonly asked: Uint8Array;
  /** Passes begun, by section. */
  readonly begun: Int32Array;
}

export type CompiledTest = (memory: Memory) => boolean;
export type Calculation = (memory: Memory) => number | string | null;

/** What a name means where a condition stands. */
export type Meaning =
  | { readonly of: 'slot'; readonly slot: number }
  /** A grid as a whole. */
  | { readonly of: 'rows'; readonly slots: readonly number[] }
  | { readonly of: 'derived'; readonly value: Calculation }
  | { readonly of: 'nothing' };

export interface CompileScope {
  readonly meaning: (name: string) => Meaning;
  readonly pass: number | null;
  readonly each: Calculation;
  /** The passes that a counted condition goes over; null where it goes over none. */
  readonly passes: (
    condition: Condition,
  ) => { readonly section: number; readonly scopes: readonly CompileScope[] } | null;
}

/** The tree must have no problems in its scope; what it compiles to never throws. */
export function compileTest(node: Condition, scope: CompileScope): CompiledTest {
  switch (node.kind) {
    case 'constant': {
      const { value } = node;
      return () => value;
    }
    case 'and': {
      const parts = node.parts.map((part) => compileTest(part, scope));
      return (memory) => {
        for (const part of parts) if (!part(memory)) return false;
        return true;
      };
    }
    case 'or': {
      const parts = node.parts.map((part) => compileTest(part, scope));
      return (memory) => {
        for (const part of parts) if (part(memory)) return true;
        return false;
      };
    }
    case 'not': {
      const part = compileTest(node.part, scope);
      return (memory) => !part(memory);
    }
    case 'compare':
      return compileCompare(node.left, node.operator, node.right, scope);
    case 'in':
      return compileIn(node, scope);
    case 'has':
      return compileHas(node, scope);
    case 'state':
      return compileState(node, scope);
    default:
      return node satisfies never;
  }
}

const NEVER: CompiledTest = () => false;

function compileCompare(
  left: Operand,
  operator: CompareOperator,
  right: Operand,
  scope: CompileScope,
): CompiledTest {
  const slot = slotOf(left, scope);
  if (slot !== null && right.kind === 'number') return compareWithNumber(slot, operator, right.value);
  const [a, b] = [compileCalculation(left, scope), compileCalculation(right, scope)];
  const seen = operator === '=' ? [writtenCode(left, right, scope), writtenCode(right, left, scope)] : [];
  return (memory) => {
    for (const is of seen) if (is?.(memory)) return true;
    const [x, y] = [a(memory), b(memory)];
    return x !== null && y !== null && compareValues(x, operator, y);
  };
}

/** The very code of a don't-know, written out, is seen; to the other comparisons there is no value. */
function compareWithNumber(slot: number, operator: CompareOperator, number: number): CompiledTest {
  switch (operator) {
    case '=':
      return ({ values }) => values[slot] === number;
    case '<>':
      return ({ values, missing }) => {
        const value = values[slot];
        return typeof value === 'number' && missing[slot] === 0 && value !== number;
      };
    case '<':
      return substantive(slot, (value) => value < number);
    case '<=':
      return substantive(slot, (value) => value <= number);
    case '>':
      return substantive(slot, (value) => value > number);
    case '>=':
      return substantive(slot, (value) => value >= number);
    default:
      return operator satisfies never;
  }
}

function substantive(slot: number, test: (value: number) => boolean): CompiledTest {
  return ({ values, missing }) => {
    const value = values[slot];
    return typeof value === 'number' && missing[slot] === 0 && test(value);
  };
}

function writtenCode(side: Operand, other: Operand, scope: CompileScope): CompiledTest | null {
  const slot = slotOf(side, scope);
  if (slot === null || other.kind !== 'number') return null;
  const { value: number } = other;
  return ({ values, missing }) => missing[slot] === 1 && values[slot] === number;
}

function compileIn(
  { name, negated, members }: Extract<Condition, { kind: 'in' }>,
  scope: CompileScope,
): CompiledTest {
  const slot = slotOf(name, scope);
  const valueIn = compileCalculation(name, scope);
  const singles = members.flatMap((member) => (member.kind === 'range' ? [] : [literalValue(member)]));
  const ranges = members.flatMap((member) =>
    member.kind === 'range' ? [[literalValue(member.from), literalValue(member.to)] as const] : [],
  );
  return (memory) => {
    if (slot !== null && memory.missing[slot] === 1)
      return !negated && singles.includes(memory.values[slot] as number);
    const value = valueIn(memory);
    if (value === null) return false;
    const within = singles.includes(value) || ranges.some(([from, to]) => value >= from && value <= to);
    return within !== negated;
  };
}

function compileHas(
  { name, quantifier, values }: Extract<Condition, { kind: 'has' }>,
  scope: CompileScope,
): CompiledTest {
  const slot = slotOf(name, scope);
  if (slot === null) return NEVER;
  const codes = values.map((literal) => (literal.kind === 'number' ? literal.value : NaN));
  const picksOf = ({ values: known }: Memory) => {
    const picks = known[slot];
    return Array.isArray(picks) ? (picks as readonly number[]) : null;
  };
  const [only] = codes;
  switch (quantifier) {
    case 'single':
    case 'any':
      if (only !== undefined && codes.length === 1)
        return (memory) => picksOf(memory)?.includes(only) === true;
      return (memory) => picksOf(memory)?.some((code) => codes.includes(code)) === true;
    case 'all':
      return (memory) => {
        const picks = picksOf(memory);
        return picks !== null && codes.every((code) => picks.includes(code));
      };
    case 'none':
      return (memory) => {
        const picks = picksOf(memory);
        return picks !== null && memory.missing[slot] === 0 && !codes.some((code) => picks.includes(code));
      };
    default:
      return quantifier satisfies never;
  }
}

function compileState(
  { name, state }: Extract<Condition, { kind: 'state' }>,
  scope: CompileScope,
): CompiledTest {
  const meaning = scope.meaning(name.name);
  const slots = meaning.of === 'slot' ? [meaning.slot] : meaning.of === 'rows' ? meaning.slots : [];
  const asked: CompiledTest = (memory) => slots.some((slot) => memory.asked[slot] === 1);
  const answered: CompiledTest = (memory) =>
    slots.some((slot) => memory.asked[slot] === 1 && memory.values[slot] !== null);
  switch (state) {
    case 'asked':
      return asked;
    case 'not asked':
      return (memory) => !asked(memory);
    case 'answered':
      return answered;
    case 'unanswered':
      return (memory) => asked(memory) && !answered(memory);
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
      if (meaning.of !== 'slot') return () => null;
      const { slot } = meaning;
      return ({ values, missing }) => {
        const value = values[slot] ?? null;
        return missing[slot] === 1 || typeof value === 'object' ? null : value;
      };
    }
    case 'count': {
      const slot = slotOf(node.name, scope);
      if (slot === null) return () => null;
      return ({ values, missing }) => {
        const value = values[slot];
        return Array.isArray(value) && missing[slot] === 0 ? value.length : null;
      };
    }
    case 'count-passes': {
      const over = scope.passes(node.condition);
      if (over === null) return () => 0;
      const { section } = over;
      const tests = over.scopes.map((inside) => compileTest(node.condition, inside));
      return (memory) => {
        let count = 0;
        const begun = memory.begun[section] ?? 0;
        for (let pass = 0; pass < begun; pass += 1) if (tests[pass]?.(memory)) count += 1;
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

function literalValue(literal: Literal): number | string {
  return literal.kind === 'number' || literal.kind === 'text' ? literal.value : normalDate(literal.value);
}
