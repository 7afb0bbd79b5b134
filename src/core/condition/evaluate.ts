/**
 * Whether a condition holds, given what has been answered so far.
 *
 * Two-valued: a comparison on something with no value is false, `<>` and `not in` included, and `not` is
 * plain negation. The tree must have no problems in its scope (`resolve.ts`).
 */
import type { Value } from '../document/types';
import type { CompareOperator, CompareTest, Condition, HasTest, InTest, Literal, Operand } from './syntax';
import { normalDate } from '../document/dates';

/** What is known of one variable. */
export interface Reading {
  readonly presented: boolean;
  /** As answered, times with their seconds; null where blank, not presented, or a derived variable has no value. */
  readonly value: Value | null;
  /** Whether the answer is an option or special with `missing` set: answered, yet without a substantive value. */
  readonly missing: boolean;
}

export const UNASKED: Reading = { presented: false, value: null, missing: false };

/** What a condition can see. Names arrive in lower case. */
export interface Environment {
  /** A variable's reading; in a repeated section that of the current pass. */
  read(name: string): Reading;
  /** Number of the current pass, from 1; null outside a repeated section. */
  readonly pass: number | null;
  /** Code of the option the current pass is for; null where there is none. */
  readonly each: number | null;
  /** One environment for each pass that was run of the repeated section the names of `condition` stand in. */
  passesOver(condition: Condition): Iterable<Environment>;
}

/** Never throws on a tree without problems in the scope that `environment` stands for. */
export function holds(node: Condition, environment: Environment): boolean {
  switch (node.kind) {
    case 'or':
      return node.parts.some((part) => holds(part, environment));
    case 'and':
      return node.parts.every((part) => holds(part, environment));
    case 'not':
      return !holds(node.part, environment);
    case 'constant':
      return node.value;
    case 'compare':
      return compares(node, environment);
    case 'in':
      return isIn(node, environment);
    case 'has':
      return hasPicks(node, environment);
    case 'state': {
      const { presented, value } = environment.read(node.name.name.toLowerCase());
      switch (node.state) {
        case 'asked':
          return presented;
        case 'not asked':
          return !presented;
        case 'answered':
          return presented && value !== null;
        case 'unanswered':
          return presented && value === null;
        default:
          return node.state satisfies never;
      }
    }
    default:
      return node satisfies never;
  }
}

/** An operand's substantive value, or null. */
export function valueOf(node: Operand, environment: Environment): number | string | null {
  switch (node.kind) {
    case 'number':
      return node.value;
    case 'text':
      return node.value;
    case 'date':
    case 'time':
    case 'datetime':
      return normalDate(node.value);
    case 'name':
      return substantive(environment.read(node.name.toLowerCase()));
    case 'count': {
      const { value, missing } = environment.read(node.name.name.toLowerCase());
      return Array.isArray(value) && !missing ? value.length : null;
    }
    case 'count-passes': {
      let passes = 0;
      for (const inner of environment.passesOver(node.condition)) {
        if (holds(node.condition, inner)) passes += 1;
      }
      return passes;
    }
    case 'pass':
      return environment.pass;
    case 'each':
      return environment.each;
    case 'arithmetic': {
      const left = valueOf(node.left, environment);
      const right = valueOf(node.right, environment);
      if (typeof left !== 'number' || typeof right !== 'number') return null;
      return exactDecimal(
        node.operator === '+' ? left + right : node.operator === '-' ? left - right : left * right,
      );
    }
    default:
      return node satisfies never;
  }
}

/** Takes the binary noise off a decimal result: 0.1 + 0.2 is 0.3. Twelve digits after the point are kept. */
export function exactDecimal(value: number): number {
  return Number.isInteger(value) || Math.abs(value) > 1e9 ? value : Number(value.toFixed(12));
}

function substantive(reading: Reading): number | string | null {
  const { value, missing } = reading;
  if (missing || value === null || typeof value === 'object') return null;
  return value;
}

function compares(node: CompareTest, environment: Environment): boolean {
  if (node.operator === '=' || node.operator === '<>') {
    const written =
      writtenCode(node.left, node.right, environment) ?? writtenCode(node.right, node.left, environment);
    if (written !== null) return node.operator === '=' && written;
  }
  const left = valueOf(node.left, environment);
  const right = valueOf(node.right, environment);
  return left !== null && right !== null && compareValues(left, node.operator, right);
}

/** Two values of one kind. */
export function compareValues(
  left: number | string,
  operator: CompareOperator,
  right: number | string,
): boolean {
  switch (operator) {
    case '=':
      return left === right;
    case '<>':
      return left !== right;
    case '<':
      return left < right;
    case '<=':
      return left <= right;
    case '>':
      return left > right;
    case '>=':
      return left >= right;
    default:
      return operator satisfies never;
  }
}

/**
 * Where `side` is a variable answered with a missing code, whether `other` is that very code written out;
 * null where this is no such comparison. (`<>` is false on either outcome: there is no value to differ.)
 */
function writtenCode(side: Operand, other: Operand, environment: Environment): boolean | null {
  if (side.kind !== 'name' || other.kind !== 'number') return null;
  const { value, missing } = environment.read(side.name.toLowerCase());
  return missing ? value === other.value : null;
}

function isIn(node: InTest, environment: Environment): boolean {
  const reading = environment.read(node.name.name.toLowerCase());
  if (reading.missing) {
    const seen = node.members.some((member) => member.kind === 'number' && member.value === reading.value);
    return seen && !node.negated;
  }
  const value = substantive(reading);
  if (value === null) return false;
  const within = node.members.some((member) => {
    if (member.kind !== 'range') return literalValue(member) === value;
    const [from, to] = [literalValue(member.from), literalValue(member.to)];
    return value >= from && value <= to;
  });
  return within !== node.negated;
}

/** As it is compared: dates and times in one form. */
export function literalValue(literal: Literal): number | string {
  return literal.kind === 'number' || literal.kind === 'text' ? literal.value : normalDate(literal.value);
}

function hasPicks(node: HasTest, environment: Environment): boolean {
  const { value, missing } = environment.read(node.name.name.toLowerCase());
  if (!Array.isArray(value)) return false;
  const picked = (literal: Literal) => literal.kind === 'number' && value.includes(literal.value);
  switch (node.quantifier) {
    case 'single':
    case 'any':
      return node.values.some(picked);
    case 'all':
      return node.values.every(picked);
    case 'none':
      // Without a substantive value only the very code picked is seen, and it is picked.
      return !missing && !node.values.some(picked);
    default:
      return node.quantifier satisfies never;
  }
}
