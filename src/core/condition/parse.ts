/**
 * From the text of a condition, or of a derived value, to its tree, or to the first problem with its place.
 *
 * Recursive descent over the grammar of the condition language; `and` binds tighter than `or`,
 * `*` tighter than `+` and `-`. Names are not looked up here.
 */
import { RESERVED_WORDS } from '../document/names';
import { scan, type Token } from './scan';
import type { CompareOperator, Condition, Literal, NameNode, Operand, RangeNode, TextSpan } from './syntax';

export interface SyntaxProblem {
  readonly span: TextSpan;
  readonly message: string;
}

export type Parsed<Tree> =
  { readonly ok: true; readonly tree: Tree } | { readonly ok: false; readonly problem: SyntaxProblem };

const COMPARE: ReadonlySet<string> = new Set(['=', '<>', '<', '<=', '>', '>=']);
/** Deeper nesting than this is refused rather than left to overflow the stack. */
const DEPTH = 200;
/** Names, values and operators in one condition or value: beyond them it is refused, since a sum is a tree as deep as it is long. */
const MOST_TOKENS = 4_000;

class ParseStop extends Error {
  constructor(readonly problem: SyntaxProblem) {
    super(problem.message);
  }
}

/** The problem that is given is the first; its span counts characters of `source` from 0. */
export function parseCondition(source: string): Parsed<Condition> {
  return run(source, (parser) => parser.condition());
}

/** Reads `value` of a derived variable: numbers, names, counts, `+ - *` and parentheses. */
export function parseExpression(source: string): Parsed<Operand> {
  return run(source, (parser) => parser.expression());
}

function run<Tree>(source: string, read: (parser: Parser) => Tree): Parsed<Tree> {
  const tokens = scan(source);
  const beyond = tokens[MOST_TOKENS];
  if (beyond !== undefined)
    return {
      ok: false,
      problem: {
        span: beyond.span,
        message: `this is longer than ${MOST_TOKENS} words and signs: make parts of it derived variables`,
      },
    };
  const parser = new Parser(tokens);
  try {
    const tree = read(parser);
    parser.expectEnd();
    return { ok: true, tree };
  } catch (error) {
    if (error instanceof ParseStop) return { ok: false, problem: error.problem };
    throw error;
  }
}

class Parser {
  private at = 0;
  private depth = 0;

  constructor(private readonly tokens: readonly Token[]) {}

  condition(): Condition {
    return this.joined('or', () => this.joined('and', () => this.notPart()));
  }

  expression(): Operand {
    return this.sum(true);
  }

  expectEnd(): void {
    if (this.peek().kind !== 'end') {
      this.fail(this.peek(), `"${this.peek().text}" is not expected here: join tests with and, or`);
    }
  }

  private joined(word: 'or' | 'and', part: () => Condition): Condition {
    const parts = [part()];
    while (this.takeWord(word)) parts.push(part());
    const [first] = parts;
    if (parts.length === 1 && first !== undefined) return first;
    return { kind: word, parts, span: this.spanFrom(parts[0]?.span.from ?? 0) };
  }

  private notPart(): Condition {
    const token = this.peek();
    this.depth += 1;
    if (this.depth > DEPTH) this.fail(token, 'this is nested too deeply: use a derived variable for a part');
    try {
      if (this.takeWord('not')) {
        const part = this.notPart();
        return { kind: 'not', part, span: this.spanFrom(token.span.from) };
      }
      if (this.takeSymbol('(')) {
        const inner = this.condition();
        this.expectSymbol(')', 'this bracket is never closed: add )');
        return inner;
      }
      return this.test();
    } finally {
      this.depth -= 1;
    }
  }

  private test(): Condition {
    const start = this.peek();
    for (const word of ['always', 'never'] as const) {
      if (this.takeWord(word)) return { kind: 'constant', value: word === 'always', span: start.span };
    }
    const left = this.sum(false);
    if (left.kind === 'name') {
      const test = this.nameTest(left);
      if (test !== null) return test;
    }
    const operator = this.peek();
    if (operator.kind !== 'symbol' || !COMPARE.has(operator.text)) {
      this.fail(operator, afterOperand(left, operator));
    }
    this.at += 1;
    const right = this.sum(false);
    const span = this.spanFrom(start.span.from);
    return { kind: 'compare', operator: operator.text as CompareOperator, left, right, span };
  }

  /** `in`, `has`, `answered` … after a name; null where a comparison must follow. */
  private nameTest(name: NameNode): Condition | null {
    const span = () => this.spanFrom(name.span.from);
    if (this.takeWord('has')) {
      for (const quantifier of ['any', 'all', 'none'] as const) {
        if (this.takeWord(quantifier)) {
          const values = this.bracketed(() => this.literal());
          return { kind: 'has', name, quantifier, values, span: span() };
        }
      }
      return { kind: 'has', name, quantifier: 'single', values: [this.literal()], span: span() };
    }
    if (this.takeWord('in')) {
      return { kind: 'in', name, negated: false, members: this.bracketed(() => this.member()), span: span() };
    }
    for (const state of ['answered', 'unanswered', 'asked'] as const) {
      if (this.takeWord(state)) return { kind: 'state', name, state, span: span() };
    }
    if (!this.takeWord('not')) return null;
    if (this.takeWord('in')) {
      return { kind: 'in', name, negated: true, members: this.bracketed(() => this.member()), span: span() };
    }
    if (this.takeWord('asked')) return { kind: 'state', name, state: 'not asked', span: span() };
    this.fail(this.peek(), `after "${name.name} not" comes in (…) or asked`);
  }

  private member(): Literal | RangeNode {
    const from = this.literal();
    if (!this.takeSymbol('..')) return from;
    const to = this.literal();
    return { kind: 'range', from, to, span: this.spanFrom(from.span.from) };
  }

  private bracketed<Part>(part: () => Part): Part[] {
    this.expectSymbol('(', 'a list in brackets is needed here, like (1, 2)');
    const parts = [part()];
    while (this.takeSymbol(',')) parts.push(part());
    this.expectSymbol(')', 'this list is never closed: add ) or a comma');
    return parts;
  }

  private sum(brackets: boolean): Operand {
    let left = this.product(brackets);
    for (;;) {
      const operator = this.takeSymbol('+') ? '+' : this.takeSymbol('-') ? '-' : null;
      if (operator === null) return left;
      const right = this.product(brackets);
      left = { kind: 'arithmetic', operator, left, right, span: this.spanFrom(left.span.from) };
    }
  }

  private product(brackets: boolean): Operand {
    let left = this.factor(brackets);
    while (this.takeSymbol('*')) {
      const right = this.factor(brackets);
      left = { kind: 'arithmetic', operator: '*', left, right, span: this.spanFrom(left.span.from) };
    }
    return left;
  }

  private factor(brackets: boolean): Operand {
    const token = this.peek();
    if (brackets && this.takeSymbol('(')) {
      this.depth += 1;
      if (this.depth > DEPTH)
        this.fail(token, 'this is nested too deeply: use another derived variable for a part');
      const inner = this.sum(true);
      this.depth -= 1;
      this.expectSymbol(')', 'this bracket is never closed: add )');
      return inner;
    }
    if (token.kind !== 'word') return this.literal();
    const word = token.text.toLowerCase();
    if (word === 'pass' || word === 'each') {
      this.at += 1;
      return { kind: word, span: token.span };
    }
    if (word === 'count') return this.count();
    return this.name();
  }

  private count(): Operand {
    const start = this.next();
    this.expectSymbol('(', 'count wants a name or a condition in brackets, like count(fuels)');
    const only = this.peek();
    const closes = this.tokens[this.at + 1];
    if (only.kind === 'word' && closes?.text === ')' && !RESERVED_WORDS.has(only.text.toLowerCase())) {
      const name = this.name();
      this.at += 1;
      return { kind: 'count', name, span: this.spanFrom(start.span.from) };
    }
    const condition = this.condition();
    this.expectSymbol(')', 'this count is never closed: add )');
    return { kind: 'count-passes', condition, span: this.spanFrom(start.span.from) };
  }

  private name(): NameNode {
    const token = this.peek();
    if (token.kind !== 'word') this.fail(token, this.wanted(token, 'a name'));
    if (RESERVED_WORDS.has(token.text.toLowerCase())) {
      this.fail(token, `"${token.text}" is a word of the condition language: a name or value is needed here`);
    }
    this.at += 1;
    return { kind: 'name', name: token.text, span: token.span };
  }

  private literal(): Literal {
    const token = this.next();
    switch (token.kind) {
      case 'number':
        return { kind: 'number', value: Number(token.text), span: token.span };
      case 'text':
      case 'date':
      case 'time':
      case 'datetime':
        return { kind: token.kind, value: token.text, span: token.span };
      case 'symbol': {
        const digits = this.peek();
        if (token.text === '-' && digits.kind === 'number') {
          this.at += 1;
          return { kind: 'number', value: -Number(digits.text), span: this.spanFrom(token.span.from) };
        }
        break;
      }
      default:
    }
    this.at -= 1;
    this.fail(token, this.wanted(token, 'a value'));
  }

  private wanted(token: Token, what: string): string {
    return token.kind === 'end'
      ? `${what} is missing at the end`
      : `${what} is needed here, not "${token.text}"`;
  }

  private peek(): Token {
    return this.tokens[this.at] as Token;
  }

  private next(): Token {
    const token = this.peek();
    if (token.kind !== 'end') this.at += 1;
    if (token.kind === 'bad') this.fail(token, token.problem ?? '');
    return token;
  }

  private takeWord(word: string): boolean {
    const token = this.peek();
    if (token.kind !== 'word' || token.text.toLowerCase() !== word) return false;
    this.at += 1;
    return true;
  }

  private takeSymbol(symbol: string): boolean {
    const token = this.peek();
    if (token.kind !== 'symbol' || token.text !== symbol) return false;
    this.at += 1;
    return true;
  }

  private expectSymbol(symbol: string, message: string): void {
    if (!this.takeSymbol(symbol)) this.fail(this.peek(), message);
  }

  private spanFrom(from: number): TextSpan {
    return { from, to: this.tokens[this.at - 1]?.span.to ?? from };
  }

  private fail(token: Token, message: string): never {
    throw new ParseStop({
      span: token.span,
      message: token.kind === 'bad' ? (token.problem ?? message) : message,
    });
  }
}

function afterOperand(left: Operand, found: Token): string {
  const missing =
    found.kind === 'end' ? 'something is missing at the end' : `"${found.text}" is not expected here`;
  if (left.kind !== 'name') return `${missing}: compare with =, <>, <, <=, > or >=`;
  return `${missing}: after "${left.name}" comes =, <>, <, <=, >, >=, in (…), has, answered or asked`;
}
