/**
 * Checks what the names of a condition mean at the place where it stands: do they exist, come earlier,
 * hold one value there, and are they compared with things of their own kind.
 *
 * Gives problems, each with its rule and span; none means that `evaluate` can be trusted with the tree.
 */
import { distance } from 'fastest-levenshtein';
import type { ValueKind } from '../document/answer-types';
import { variableOptions, type Variable } from '../document/variables';
import { ReadableNames } from './readable';
import type { ConditionProblem, ConditionRule, Scope } from './scope';
import type {
  CompareTest,
  Condition,
  HasTest,
  InTest,
  Literal,
  NameNode,
  Operand,
  StateTest,
  TextSpan,
} from './syntax';

/** In the order in which they stand in the text. */
export function conditionProblems(tree: Condition, scope: Scope): ConditionProblem[] {
  const resolver = new Resolver(scope);
  resolver.condition(tree);
  return resolver.problems;
}

/** Checks the expression of a derived value: every operand must be a number. */
export function expressionProblems(tree: Operand, scope: Scope): ConditionProblem[] {
  const resolver = new Resolver(scope);
  const kind = resolver.expression(tree);
  if (kind !== null && kind !== 'number') {
    resolver.report('type-mismatch', tree.span, `a derived value is a number, not ${KIND_WORDS[kind]}`);
  }
  return resolver.problems;
}

const KIND_WORDS: Record<ValueKind, string> = {
  number: 'a number',
  text: 'a text',
  date: 'a date',
  time: 'a time',
  datetime: 'a date with time',
  set: 'a set of picks',
  order: 'a ranking',
  'whole-grid': 'a whole grid',
};

class Resolver {
  readonly problems: ConditionProblem[] = [];
  /** The test that is being looked at; what is suggested for a name has to fit into it. */
  private test: Condition | null = null;

  /** Looks whether a suggestion fits: then nothing is suggested. */
  private isTrial = false;

  private readonly names: ReadableNames;

  constructor(private readonly scope: Scope) {
    this.names = new ReadableNames(
      scope,
      (rule, span, message) => this.report(rule, span, message),
      (name) => (this.isTrial ? '' : this.nearest(name)),
    );
  }

  report(rule: ConditionRule, span: TextSpan, message: string): null {
    this.problems.push({ rule, span, message });
    return null;
  }

  condition(node: Condition): void {
    switch (node.kind) {
      case 'or':
      case 'and':
        for (const part of node.parts) this.condition(part);
        break;
      case 'not':
        this.condition(node.part);
        break;
      case 'constant':
        break;
      case 'compare':
      case 'in':
      case 'has':
      case 'state': {
        const outer = this.test;
        this.test = node;
        this.ofOne(node);
        this.test = outer;
        break;
      }
      default:
        node satisfies never;
    }
  }

  private ofOne(node: CompareTest | InTest | HasTest | StateTest): void {
    switch (node.kind) {
      case 'compare':
        return this.compare(node);
      case 'in':
        return this.inTest(node);
      case 'has':
        return this.has(node);
      case 'state':
        return this.state(node);
      default:
        node satisfies never;
    }
  }

  private compare(node: CompareTest): void {
    const left = this.operand(node.left);
    const right = this.operand(node.right);
    if (left === null || right === null) return;
    const equality = node.operator === '=' || node.operator === '<>';
    for (const [side, other] of [
      [node.left, node.right],
      [node.right, node.left],
    ] as const) {
      if (side.kind === 'name' && other.kind === 'number' && equality) {
        const variable = this.scope.variables.get(side.name.toLowerCase());
        if (variable && isSpecial(variable, other.value)) return;
        if (variable && !this.knownCode(variable, other)) return;
      }
      if (side.kind === 'each' && other.kind === 'number' && equality && !this.knownEach(other)) return;
    }
    const [odd, node_] = isPlain(left) ? [right, node.right] : [left, node.left];
    if (!isPlain(odd)) {
      this.report('type-mismatch', node_.span, unplain(odd, node_));
    } else if (left !== right) {
      this.report(
        'type-mismatch',
        node.span,
        `${KIND_WORDS[left]} cannot be compared with ${KIND_WORDS[right]}`,
      );
    }
  }

  private inTest(node: InTest): void {
    const variable = this.names.name(node.name);
    if (variable === null) return;
    if (!isPlain(variable.kind)) {
      this.report('type-mismatch', node.name.span, unplain(variable.kind, node.name));
      return;
    }
    for (const member of node.members) {
      if (member.kind === 'range') {
        for (const end of [member.from, member.to]) this.sameKind(variable, end);
        if (member.from.kind === 'text') {
          this.report('type-mismatch', member.span, 'a range runs over numbers, dates or times, not texts');
        }
      } else if (!(member.kind === 'number' && isSpecial(variable, member.value))) {
        if (this.sameKind(variable, member) && member.kind === 'number') this.knownCode(variable, member);
      }
    }
  }

  private has(node: HasTest): void {
    const variable = this.names.name(node.name);
    if (variable === null) return;
    if (variable.kind !== 'set' && variable.kind !== 'order') {
      this.report(
        'type-mismatch',
        node.name.span,
        `“${variable.name}” holds one answer, so it "has" none: write ${variable.name} = … or ${variable.name} in (…)`,
      );
      return;
    }
    for (const value of node.values) {
      if (value.kind === 'number') this.knownCode(variable, value);
      else
        this.report(
          'type-mismatch',
          value.span,
          `the picks of “${variable.name}” are codes, not ${KIND_WORDS[value.kind]}`,
        );
    }
  }

  private state(node: StateTest): void {
    const variable = this.names.name(node.name);
    if (variable?.of === 'derived') {
      this.report(
        'type-mismatch',
        node.span,
        `“${variable.name}” is derived, so it is never asked: test the questions it is worked out from`,
      );
    }
  }

  /** An operand by itself, of which a number is expected. */
  expression(tree: Operand): ValueKind | null {
    this.test = {
      kind: 'compare',
      operator: '>',
      left: tree,
      right: { kind: 'number', value: 0, span: tree.span },
      span: tree.span,
    };
    return this.operand(tree);
  }

  /** The kind of an operand's value; null where a problem was reported. */
  operand(node: Operand): ValueKind | null {
    switch (node.kind) {
      case 'number':
      case 'text':
      case 'date':
      case 'time':
      case 'datetime':
        return node.kind;
      case 'name':
        return this.names.name(node)?.kind ?? null;
      case 'count': {
        const variable = this.names.name(node.name);
        if (variable === null) return null;
        if (variable.kind === 'set' || variable.kind === 'order') return 'number';
        return this.report(
          'type-mismatch',
          node.span,
          `count(${variable.name}) counts picks, and “${variable.name}” is not answered by picking several`,
        );
      }
      case 'count-passes':
        return this.countPasses(node.condition, node.span);
      case 'pass':
      case 'each':
        return this.passWord(node.kind, node.span);
      case 'arithmetic': {
        let fine = true;
        for (const side of [node.left, node.right]) {
          const kind = this.operand(side);
          if (kind === null) fine = false;
          else if (kind !== 'number') {
            fine = false;
            this.report(
              'type-mismatch',
              side.span,
              `${node.operator} is for numbers, not for ${KIND_WORDS[kind]}`,
            );
          }
        }
        return fine ? 'number' : null;
      }
      default:
        return node satisfies never;
    }
  }

  private countPasses(condition: Condition, span: TextSpan): ValueKind | null {
    if (this.names.counted !== null) {
      return this.report(
        'bad-condition',
        span,
        'a count stands inside another count: use a derived variable',
      );
    }
    const before = this.problems.length;
    this.names.counted = -1;
    this.condition(condition);
    const section = this.names.counted;
    this.names.counted = null;
    if (this.problems.length > before) return null;
    if (section < 0) {
      return this.report(
        'bad-condition',
        span,
        'count(…) over passes needs a test of a question in a repeated section',
      );
    }
    return 'number';
  }

  private passWord(word: 'pass' | 'each', span: TextSpan): ValueKind | null {
    const repeat = this.names.openRepeat();
    if (repeat === null) {
      return this.report('bad-condition', span, `“${word}” has a meaning inside a repeated section only`);
    }
    if (word === 'each' && !('each' in repeat)) {
      return this.report(
        'bad-condition',
        span,
        '"each" has a meaning only where the section repeats for each picked option',
      );
    }
    return 'number';
  }

  private sameKind(variable: Variable, literal: Literal): boolean {
    if (literal.kind === variable.kind) return true;
    this.report(
      'type-mismatch',
      literal.span,
      `“${variable.name}” is ${KIND_WORDS[variable.kind]}, not ${KIND_WORDS[literal.kind]}`,
    );
    return false;
  }

  private knownCode(variable: Variable, literal: Literal & { kind: 'number' }): boolean {
    if (variable.codes === null || variable.codes.includes(literal.value)) return true;
    this.report(
      'unknown-code',
      literal.span,
      `“${variable.name}” has no code ${literal.value}: its codes are ${listOf(variable.codes)}`,
    );
    return false;
  }

  private knownEach(literal: Literal & { kind: 'number' }): boolean {
    const repeat = this.names.openRepeat();
    const driver =
      repeat !== null && 'each' in repeat ? this.scope.variables.get(repeat.each.toLowerCase()) : undefined;
    return driver === undefined || this.knownCode(driver, literal);
  }

  /** The name closest to one that there is not, of those that can stand in its place. */
  private nearest(name: string): string {
    const most = Math.max(2, Math.floor(name.length / 3)) + 1;
    const near = [...this.scope.variables.values()]
      .map((variable) => ({
        name: variable.name,
        edits: distance(name.toLowerCase(), variable.name.toLowerCase()),
      }))
      .filter(({ edits }) => edits < most)
      .sort((a, b) => a.edits - b.edits);
    const best = near.find((other) => this.fits(name, other.name));
    return best === undefined ? '' : `: did you mean “${best.name}”?`;
  }

  /** Whether the test has nothing wrong with another name in place of one, but for names that are unknown as well. */
  private fits(name: string, other: string): boolean {
    const test = JSON.parse(
      JSON.stringify(this.test ?? null, (_, value: unknown) =>
        isNameOf(value, name) ? { ...value, name: other } : value,
      ),
    ) as Condition | null;
    if (test === null) return true;
    const trial = new Resolver(this.scope);
    trial.names.counted = this.names.counted;
    trial.isTrial = true;
    trial.condition(test);
    return trial.problems.every(({ rule }) => rule === 'unknown-name');
  }
}

function isNameOf(value: unknown, name: string): value is NameNode {
  return (
    typeof value === 'object' &&
    value !== null &&
    'kind' in value &&
    value.kind === 'name' &&
    'name' in value &&
    value.name === name
  );
}

function isPlain(kind: ValueKind): boolean {
  return kind !== 'set' && kind !== 'order' && kind !== 'whole-grid';
}

function unplain(kind: ValueKind, node: Operand): string {
  const name = node.kind === 'name' ? node.name : 'this';
  if (kind === 'whole-grid') return `“${name}” is a grid: test one of its rows`;
  return `“${name}” holds several picks: test it with has or count, like ${name} has 1`;
}

function isSpecial(variable: Variable, code: number): boolean {
  return variableOptions(variable).some((option) => option.code === code && option.missing !== undefined);
}

function listOf(codes: readonly number[]): string {
  return codes.length <= 12 ? codes.join(', ') : `${codes.slice(0, 12).join(', ')} …`;
}
