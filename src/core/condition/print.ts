/** From a tree back to text. What is printed parses to the same tree (spans aside). */
import type { Condition, Literal, Operand, RangeNode } from './syntax';

/** In one spelling: names as typed, one space between words, parentheses only where they are needed. */
export function printCondition(node: Condition): string {
  switch (node.kind) {
    case 'or':
    case 'and':
      return node.parts.map((part) => inside(part, node.kind)).join(` ${node.kind} `);
    case 'not':
      return `not ${inside(node.part, 'not')}`;
    case 'constant':
      return node.value ? 'always' : 'never';
    case 'compare':
      return `${printOperand(node.left)} ${node.operator} ${printOperand(node.right)}`;
    case 'in':
      return `${node.name.name} ${node.negated ? 'not in' : 'in'} (${node.members.map(printMember).join(', ')})`;
    case 'has': {
      const values = node.values.map(printLiteral).join(', ');
      return node.quantifier === 'single'
        ? `${node.name.name} has ${values}`
        : `${node.name.name} has ${node.quantifier} (${values})`;
    }
    case 'state':
      return `${node.name.name} ${node.state}`;
    default:
      return node satisfies never;
  }
}

/** Brackets only where leaving them out would read as another tree. */
function inside(part: Condition, parent: 'or' | 'and' | 'not'): string {
  const text = printCondition(part);
  if (part.kind === 'or') return `(${text})`;
  return part.kind === 'and' && parent !== 'or' ? `(${text})` : text;
}

/** Prints an operand; brackets appear only in trees that came from a derived value. */
export function printOperand(node: Operand): string {
  switch (node.kind) {
    case 'number':
    case 'text':
    case 'date':
    case 'time':
    case 'datetime':
      return printLiteral(node);
    case 'name':
      return node.name;
    case 'count':
      return `count(${node.name.name})`;
    case 'count-passes':
      return `count(${printCondition(node.condition)})`;
    case 'pass':
    case 'each':
      return node.kind;
    case 'arithmetic': {
      const left = binds(node.left, node.operator, 'left');
      const right = binds(node.right, node.operator, 'right');
      return `${left} ${node.operator} ${right}`;
    }
    default:
      return node satisfies never;
  }
}

function binds(side: Operand, operator: '+' | '-' | '*', where: 'left' | 'right'): string {
  const text = printOperand(side);
  if (side.kind !== 'arithmetic') return text;
  const looser = operator === '*' && side.operator !== '*';
  const tighter = side.operator === '*' && operator !== '*';
  return looser || (where === 'right' && !tighter) ? `(${text})` : text;
}

function printMember(member: Literal | RangeNode): string {
  return member.kind === 'range'
    ? `${printLiteral(member.from)}..${printLiteral(member.to)}`
    : printLiteral(member);
}

function printLiteral(node: Literal): string {
  switch (node.kind) {
    case 'number':
      return printNumber(node.value);
    case 'text':
      return `'${node.value.replaceAll("'", "''")}'`;
    default:
      return node.value;
  }
}

/** In plain digits: the language has no exponents. */
export function printNumber(value: number): string {
  const text = String(value);
  if (!text.includes('e')) return text;
  return Math.abs(value) < 1 ? value.toFixed(20).replace(/\.?0+$/, '') : BigInt(value).toString();
}
