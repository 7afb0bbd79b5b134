/** Conditions in the words of the questionnaire: `tenure in (2, 3)` is “Tenure is Rent it or Live there rent-free”. */
import { printOperand } from '../condition/print';
import type { Condition, Literal, Operand, RangeNode } from '../condition/syntax';
import { labelOf, variableOptions, type Variable, type Variables } from '../document/variables';

/** A sentence without its full stop, starting with a small or capital letter as the labels do. */
export function conditionSentence(node: Condition, variables: Variables): string {
  const say = (part: Condition) => conditionSentence(part, variables);
  switch (node.kind) {
    case 'or':
      return node.parts.map(say).join(', or ');
    case 'and':
      return node.parts.map((part) => (part.kind === 'or' ? `(${say(part)})` : say(part))).join(', and ');
    case 'not':
      return exceptWords(node.part, variables) ?? `not: ${say(node.part)}`;
    case 'constant':
      return node.value ? 'everyone' : 'no one';
    case 'compare':
      return compareWords(node.left, node.operator, node.right, variables);
    case 'in': {
      const variable = variables.get(node.name.name.toLowerCase());
      return `${nameOf(variable, node.name.name)} is ${node.negated ? 'none of ' : ''}${orList(node.members.map((member) => memberWords(member, variable)))}`;
    }
    case 'has': {
      const variable = variables.get(node.name.name.toLowerCase());
      const values = node.values.map((value) => literalWords(value, variable));
      const name = nameOf(variable, node.name.name);
      if (node.quantifier === 'all') return `${name} includes ${values.join(' and ')}`;
      return `${name} includes ${node.quantifier === 'none' ? 'neither ' : ''}${values.join(node.quantifier === 'none' ? ' nor ' : ' or ')}`;
    }
    case 'state':
      return `${nameOf(variables.get(node.name.name.toLowerCase()), node.name.name)} ${STATES[node.state]}`;
    default:
      return node satisfies never;
  }
}

/** Words that begin small and without a full stop, as a sentence of their own. */
export function asSentence(words: string): string {
  const end = /[.!?]$/.test(words) ? '' : '.';
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}${end}`;
}

/** `not landlord = 3` also holds of those who gave no answer: “Landlord is anything but …”. */
function exceptWords(part: Condition, variables: Variables): string | null {
  if (
    part.kind === 'compare' &&
    part.operator === '=' &&
    part.left.kind === 'name' &&
    isLiteral(part.right)
  ) {
    const variable = variables.get(part.left.name.toLowerCase());
    return `${nameOf(variable, part.left.name)} is anything but ${literalWords(part.right, variable)}`;
  }
  if (part.kind !== 'in' || part.negated) return null;
  const variable = variables.get(part.name.name.toLowerCase());
  const values = orList(part.members.map((member) => memberWords(member, variable)));
  return `${nameOf(variable, part.name.name)} is anything but ${values}`;
}

const STATES = {
  answered: 'was answered',
  unanswered: 'was left blank',
  asked: 'was asked',
  'not asked': 'was not asked',
} as const;

const OPERATORS = {
  '=': 'is',
  '<>': 'is not',
  '<': 'is below',
  '<=': 'is at most',
  '>': 'is above',
  '>=': 'is at least',
} as const;

function compareWords(
  left: Operand,
  operator: keyof typeof OPERATORS,
  right: Operand,
  variables: Variables,
): string {
  const variable = left.kind === 'name' ? variables.get(left.name.toLowerCase()) : undefined;
  const right_ = isLiteral(right) ? literalWords(right, variable) : operandWords(right, variables);
  return `${operandWords(left, variables)} ${OPERATORS[operator]} ${right_}`;
}

function operandWords(node: Operand, variables: Variables): string {
  switch (node.kind) {
    case 'name':
      return nameOf(variables.get(node.name.toLowerCase()), node.name);
    case 'count':
      return `the number picked in ${nameOf(variables.get(node.name.name.toLowerCase()), node.name.name)}`;
    case 'count-passes':
      return `the number of times that ${conditionSentence(node.condition, variables)}`;
    case 'pass':
      return 'the pass';
    case 'each':
      return 'the option this pass is for';
    default:
      return printOperand(node);
  }
}

function isLiteral(node: Operand): node is Literal {
  return 'value' in node;
}

/** The short label where there is one, else the name. */
function nameOf(variable: Variable | undefined, typed: string): string {
  return variable === undefined ? typed : (labelOf(variable) ?? variable.name);
}

function memberWords(member: Literal | RangeNode, variable: Variable | undefined): string {
  if (member.kind !== 'range') return literalWords(member, variable);
  return `${literalWords(member.from, variable)} to ${literalWords(member.to, variable)}`;
}

function literalWords(literal: Literal, variable: Variable | undefined): string {
  if (literal.kind === 'text') return `“${literal.value}”`;
  if (literal.kind !== 'number' || variable === undefined) return String(literal.value);
  const cases = variable.of === 'derived' && 'cases' in variable.derived ? variable.derived.cases : [];
  const option = [...variableOptions(variable), ...cases].find(({ code }) => code === literal.value);
  return option === undefined ? String(literal.value) : `“${option.label}”`;
}

function orList(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} or ${words.at(-1)}`;
}
