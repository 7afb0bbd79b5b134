/**
 * Checks what the names of a condition mean at the place where it stands: do they exist, come earlier,
 * hold one value there, and are they compared with things of their own kind.
 *
 * Gives problems, each with its rule and span; none means that `evaluate` can be trusted with the tree.
 */
import { distance } from 'fastest-levenshtein';
import type { ValueKind } from '../document/answer-types';
import type { Questionnaire } from '../document/types';
import { isRepeated, maxPasses, variableOptions, type Variable, type Variables } from '../document/variables';
import type {
  CompareTest,
  Condition,
  HasTest,
  InTest,
  Literal,
  NameNode,
  Operand,
  TextSpan,
  StateTest,
} from './syntax';

export type ConditionRule =
  'bad-condition' | 'unknown-name' | 'unknown-code' | 'type-mismatch' | 'refers-forward' | 'repeated-outside';

export interface ConditionProblem {
  readonly rule: ConditionRule;
  readonly span: TextSpan;
  readonly message: string;
}

/** A place in document order, just before an item (or, past the last index, before the section's end). */
export interface Position {
  readonly section: number;
  readonly item: number;
}

/** What can be seen from the place where a condition stands. */
export interface Scope {
  readonly document: Questionnaire;
  readonly variables: Variables;
  /** Questions at or after this place have no value yet. */
  readonly before: Position;
  /** The repeated section whose current pass is open here; null outside any. */
  readonly openPass: number | null;
  /** In a shuffled section: its only item that can be seen, since its siblings have no fixed order. */
  readonly onlySibling?: Position;
  /** Among derived variables, only those before this index may be used. All by default. */
  readonly derivedBefore?: number;
  /** What each derived variable is worked out from; see `derivedInputs` in `routing/plan.ts`. */
  readonly inputsOf: (derivedIndex: number) => readonly Input[];
}

/** Something a derived variable is worked out from. */
export interface Input {
  readonly variable: Variable;
  /** Whether it is counted over the passes of its repeated section. */
  readonly overPasses: boolean;
}

export function isBefore(a: Position, b: Position): boolean {
  return a.section < b.section || (a.section === b.section && a.item < b.item);
}

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
  /** The repeated section whose passes the enclosing `count(…)` goes over; -1 while not yet known. */
  private counted: number | null = null;
  /** The test that is being looked at; what is suggested for a name has to fit into it. */
  private test: Condition | null = null;

  /** Looks whether a suggestion fits: then nothing is suggested. */
  private isTrial = false;

  constructor(private readonly scope: Scope) {}

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
    const variable = this.name(node.name);
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
    const variable = this.name(node.name);
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
    const variable = this.name(node.name);
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
        return this.name(node)?.kind ?? null;
      case 'count': {
        const variable = this.name(node.name);
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
    if (this.counted !== null) {
      return this.report(
        'bad-condition',
        span,
        'a count stands inside another count: use a derived variable',
      );
    }
    const before = this.problems.length;
    this.counted = -1;
    this.condition(condition);
    const section = this.counted;
    this.counted = null;
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
    const repeat = this.openRepeat();
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

  private openRepeat() {
    const { openPass, document } = this.scope;
    const section = this.counted !== null && this.counted >= 0 ? this.counted : openPass;
    return section === null ? null : (document.sections[section]?.repeat ?? null);
  }

  /** Finds a name and checks that it can be read here; null where a problem was reported. */
  private name(node: NameNode): Variable | null {
    const variable = this.scope.variables.get(node.name.toLowerCase());
    if (variable === undefined) {
      return this.report(
        'unknown-name',
        node.span,
        `nothing is named “${node.name}”${this.isTrial ? '' : this.nearest(node.name)}`,
      );
    }
    switch (variable.of) {
      case 'given':
        return variable;
      case 'derived':
        return this.derived(variable, node);
      case 'question':
      case 'row':
        return this.placed(variable, node);
      default:
        return variable satisfies never;
    }
  }

  private derived(variable: Extract<Variable, { of: 'derived' }>, node: NameNode): Variable | null {
    if (variable.index >= (this.scope.derivedBefore ?? Infinity)) {
      return this.report(
        'refers-forward',
        node.span,
        `“${variable.name}” is derived later: move it before the derived variable that uses it`,
      );
    }
    for (const input of this.scope.inputsOf(variable.index)) {
      if (input.variable.of !== 'question' && input.variable.of !== 'row') continue;
      const { section, item } = input.variable;
      const at = input.overPasses ? { section: section + 1, item: -1 } : { section, item };
      if (!isBefore(at, this.scope.before)) {
        return this.report(
          'refers-forward',
          node.span,
          `“${variable.name}” is worked out from “${input.variable.name}”, which comes later`,
        );
      }
    }
    return variable;
  }

  private placed(variable: Extract<Variable, { of: 'question' | 'row' }>, node: NameNode): Variable | null {
    const { scope } = this;
    const section = scope.document.sections[variable.section];
    const repeated = section !== undefined && isRepeated(section);
    if (this.counted !== null && repeated && variable.section === scope.openPass) {
      return this.report(
        'bad-condition',
        node.span,
        'passes are counted from outside their section: count them in a later one',
      );
    }
    if (this.counted !== null && repeated) {
      if (this.counted >= 0 && this.counted !== variable.section) {
        return this.report('bad-condition', node.span, 'one count goes over one repeated section');
      }
      this.counted = variable.section;
      return variable.section < scope.before.section ? variable : this.forward(variable, node);
    }
    if (!isBefore(variable, scope.before)) return this.forward(variable, node);
    const only = scope.onlySibling;
    if (only && variable.section === only.section && variable.item !== only.item) {
      return this.report(
        'refers-forward',
        node.span,
        `“${variable.name}” stands in the same shuffled section, so it may come later`,
      );
    }
    if (repeated && variable.section !== scope.openPass) {
      return this.report(
        'repeated-outside',
        node.span,
        `“${variable.name}” is answered up to ${maxPasses(section)} times: outside its section count the passes, like count(${variable.name} answered) > 0`,
      );
    }
    return variable;
  }

  private forward(variable: Variable, node: NameNode): null {
    return this.report(
      'refers-forward',
      node.span,
      `“${variable.name}” comes later than this place, so it has no value here: move it before, or test something earlier`,
    );
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
    const repeat = this.openRepeat();
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
    trial.counted = this.counted;
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
