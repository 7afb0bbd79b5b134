/**
 * Sums as what they are: a number times each variable, and a constant. Derived values are traced to their inputs.
 */
import type { Operand } from '../../condition/syntax';
import type { Variable } from '../../document/variables';
import type { Plan } from '../../routing/plan';

export interface Linear {
  /** By variable; 0 where it cancels out, for it still has to have a value. */
  readonly terms: ReadonlyMap<Variable, number>;
  readonly constant: number;
}

/** `left` minus `right`; null where that is no sum: products of answers, counts, texts, derived cases. */
export function differenceOf(left: Operand, right: Operand, plan: Plan): Linear | null {
  const [a, b] = [linearOf(left, plan), linearOf(right, plan)];
  return a && b && added(a, times(b, -1));
}

function linearOf(node: Operand, plan: Plan): Linear | null {
  switch (node.kind) {
    case 'number':
      return { terms: new Map(), constant: node.value };
    case 'name': {
      const variable = plan.variables.get(node.name.toLowerCase());
      if (variable === undefined) return null;
      if (variable.of !== 'derived')
        return isNumeric(variable) ? { terms: new Map([[variable, 1]]), constant: 0 } : null;
      const value = plan.derived[variable.index]?.value;
      return value ? linearOf(value, plan) : null;
    }
    case 'arithmetic': {
      const [left, right] = [linearOf(node.left, plan), linearOf(node.right, plan)];
      if (left === null || right === null) return null;
      switch (node.operator) {
        case '+':
          return added(left, right);
        case '-':
          return added(left, times(right, -1));
        case '*':
          if (right.terms.size === 0) return times(left, right.constant);
          return left.terms.size === 0 ? times(right, left.constant) : null;
        default:
          return node.operator satisfies never;
      }
    }
    default:
      return null;
  }
}

function isNumeric({ kind }: Variable): boolean {
  return kind === 'number';
}

function times({ terms, constant }: Linear, factor: number): Linear {
  return {
    terms: new Map([...terms].map(([variable, by]) => [variable, by * factor])),
    constant: constant * factor,
  };
}

function added(a: Linear, b: Linear): Linear {
  const terms = new Map(a.terms);
  for (const [variable, by] of b.terms) terms.set(variable, (terms.get(variable) ?? 0) + by);
  return { terms, constant: a.constant + b.constant };
}
