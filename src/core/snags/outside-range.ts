/** Comparisons with a value that the question's limits never allow, and steering by the wording of a free text. */
import type { Condition, Literal, NameNode, Operand } from '../condition/syntax';
import { isDated, isNumeric, stepsOf } from '../document/answer-types';
import { holdsIn } from '../document/code-taken';
import { normalDate } from '../document/dates';
import { optionsOf } from '../document/shape';
import type { Answer } from '../document/types';
import { variableAnswer } from '../routing/answers';
import type { Plan } from '../routing/plan';
import type { Snag } from './types';
import { writtenConditions } from './written-conditions';

export function outsideRange(plan: Plan): Snag[] {
  return writtenConditions(plan).flatMap(({ at, field, condition }): Snag[] => {
    const found = comparedLiterals(condition).flatMap(({ name, literal, exactly }): Snag[] => {
      const answer = variableAnswer(plan.variables.get(name.name.toLowerCase()));
      if (answer === null) return [];
      const limits = outside(answer, literal, exactly);
      if (limits === null) return [];
      return [
        {
          rule: 'outside-range',
          severity: 'warning',
          at,
          field,
          span: literal.span,
          message: `“${name.name}” is compared with ${String(literal.value)}, but its answers run ${limits}: correct the value, or the limits`,
        },
      ];
    });
    return found.slice(0, 1);
  });
}

export function textCompared(plan: Plan): Snag[] {
  return writtenConditions(plan).flatMap(({ at, field, condition, steers }): Snag[] => {
    if (!steers) return [];
    const found = comparedLiterals(condition).find(
      ({ name }) => plan.variables.get(name.name.toLowerCase())?.kind === 'text',
    );
    if (found === undefined) return [];
    return [
      {
        rule: 'text-compared',
        severity: 'warning',
        at,
        field,
        span: found.name.span,
        message: `this steers by the wording of “${found.name.name}”, a free text: people write the same thing in many ways, so ask with a list of answers instead`,
      },
    ];
  });
}

interface Compared {
  readonly name: NameNode;
  readonly literal: Literal;
  /** The very value is meant, not an end of a range. */
  readonly exactly: boolean;
}

/** Conditions outlive edits elsewhere. */
const literals = new WeakMap<Condition, readonly Compared[]>();

function comparedLiterals(node: Condition): readonly Compared[] {
  const known = literals.get(node);
  if (known !== undefined) return known;
  const found = findLiterals(node);
  literals.set(node, found);
  return found;
}

function findLiterals(node: Condition): readonly Compared[] {
  switch (node.kind) {
    case 'and':
    case 'or':
      return node.parts.flatMap(comparedLiterals);
    case 'not':
      return comparedLiterals(node.part);
    case 'compare': {
      const exactly = node.operator === '=' || node.operator === '<>';
      const sides: [Operand, Operand][] = [
        [node.left, node.right],
        [node.right, node.left],
      ];
      const plain = sides.flatMap(([name, literal]): Compared[] =>
        name.kind === 'name' && 'value' in literal ? [{ name, literal, exactly }] : [],
      );
      const counted = [node.left, node.right].flatMap((side) =>
        side.kind === 'count-passes' ? comparedLiterals(side.condition) : [],
      );
      return [...plain, ...counted];
    }
    case 'in':
      return node.members.flatMap((member): Compared[] =>
        member.kind === 'range'
          ? [member.from, member.to].map((literal) => ({ name: node.name, literal, exactly: false }))
          : [{ name: node.name, literal: member, exactly: true }],
      );
    default:
      return [];
  }
}

/** The limits in words where they never allow the value; null where they do. */
function outside(answer: Answer, literal: Literal, exactly: boolean): string | null {
  if (isNumeric(answer)) {
    if (literal.kind !== 'number') return null;
    if (optionsOf(answer).some(({ code }) => code === literal.value)) return null;
    if (literal.value < answer.min || literal.value > answer.max)
      return `from ${answer.min} to ${answer.max}`;
    const { from, step } = stepsOf(answer);
    return exactly && !holdsIn(literal.value - from, step)
      ? `from ${answer.min} to ${answer.max} in steps of ${step}`
      : null;
  }
  if (!isDated(answer)) return null;
  if (literal.kind !== answer.type) return null;
  const [value, min, max] = [literal.value, answer.min, answer.max].map((text) => text && normalDate(text));
  const low = min !== undefined && value !== undefined && value < min;
  const high = max !== undefined && value !== undefined && value > max;
  if (!low && !high) return null;
  return [answer.min && `from ${answer.min}`, answer.max && `to ${answer.max}`].filter(Boolean).join(' ');
}
