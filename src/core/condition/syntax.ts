/**
 * The tree of a condition or of a derived value's expression.
 *
 * Every node carries the span of the author's text it was read from, so that a problem can be shown under
 * the very characters. Names are kept as typed; `resolve.ts` finds what they mean.
 */

/** Half-open range of UTF-16 offsets in the author's text. */
export interface TextSpan {
  readonly from: number;
  readonly to: number;
}

export type Condition =
  | { readonly kind: 'or'; readonly parts: readonly Condition[]; readonly span: TextSpan }
  | { readonly kind: 'and'; readonly parts: readonly Condition[]; readonly span: TextSpan }
  | { readonly kind: 'not'; readonly part: Condition; readonly span: TextSpan }
  | { readonly kind: 'constant'; readonly value: boolean; readonly span: TextSpan }
  | CompareTest
  | InTest
  | HasTest
  | StateTest;

export type CompareOperator = '=' | '<>' | '<' | '<=' | '>' | '>=';

export interface CompareTest {
  readonly kind: 'compare';
  readonly operator: CompareOperator;
  readonly left: Operand;
  readonly right: Operand;
  readonly span: TextSpan;
}

export interface InTest {
  readonly kind: 'in';
  readonly name: NameNode;
  readonly negated: boolean;
  readonly members: readonly (Literal | RangeNode)[];
  readonly span: TextSpan;
}

export interface HasTest {
  readonly kind: 'has';
  readonly name: NameNode;
  /** `single` is the bare form, `fuels has 3`; it means the same as `any`. */
  readonly quantifier: 'single' | 'any' | 'all' | 'none';
  readonly values: readonly Literal[];
  readonly span: TextSpan;
}

export interface StateTest {
  readonly kind: 'state';
  readonly name: NameNode;
  readonly state: 'answered' | 'unanswered' | 'asked' | 'not asked';
  readonly span: TextSpan;
}

export interface RangeNode {
  readonly kind: 'range';
  readonly from: Literal;
  readonly to: Literal;
  readonly span: TextSpan;
}

export interface NameNode {
  readonly kind: 'name';
  readonly name: string;
  readonly span: TextSpan;
}

export type Literal =
  | { readonly kind: 'number'; readonly value: number; readonly span: TextSpan }
  | { readonly kind: 'text'; readonly value: string; readonly span: TextSpan }
  | { readonly kind: 'date' | 'time' | 'datetime'; readonly value: string; readonly span: TextSpan };

export type Operand =
  | Literal
  | NameNode
  | { readonly kind: 'count'; readonly name: NameNode; readonly span: TextSpan }
  | { readonly kind: 'count-passes'; readonly condition: Condition; readonly span: TextSpan }
  | { readonly kind: 'pass' | 'each'; readonly span: TextSpan }
  | Arithmetic;

export interface Arithmetic {
  readonly kind: 'arithmetic';
  readonly operator: '+' | '-' | '*';
  readonly left: Operand;
  readonly right: Operand;
  readonly span: TextSpan;
}

/** Visits every name in a condition or operand, with how it is used there. */
export function eachName(
  node: Condition | Operand | RangeNode,
  visit: (name: NameNode, user: Condition | Operand) => void,
): void {
  switch (node.kind) {
    case 'or':
    case 'and':
      for (const part of node.parts) eachName(part, visit);
      break;
    case 'not':
      eachName(node.part, visit);
      break;
    case 'compare':
    case 'arithmetic':
      for (const side of [node.left, node.right]) {
        if (side.kind === 'name') visit(side, node);
        else eachName(side, visit);
      }
      break;
    case 'in':
    case 'has':
    case 'state':
    case 'count':
      visit(node.name, node);
      break;
    case 'count-passes':
      eachName(node.condition, visit);
      break;
    case 'name':
      visit(node, node);
      break;
    case 'constant':
    case 'number':
    case 'text':
    case 'date':
    case 'time':
    case 'datetime':
    case 'pass':
    case 'each':
    case 'range':
      break;
    default:
      node satisfies never;
  }
}

/** Whether it reads the number or the code of the pass in which it stands; what is counted over passes reads its own. */
export function mentionsPass(node: Condition | Operand): boolean {
  switch (node.kind) {
    case 'or':
    case 'and':
      return node.parts.some(mentionsPass);
    case 'not':
      return mentionsPass(node.part);
    case 'compare':
    case 'arithmetic':
      return mentionsPass(node.left) || mentionsPass(node.right);
    case 'pass':
    case 'each':
      return true;
    default:
      return false;
  }
}
