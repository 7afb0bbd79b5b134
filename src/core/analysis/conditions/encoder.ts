/**
 * From conditions to diagrams: takes a condition as it stands at a place, gives the diagram of those for whom it holds.
 *
 * A part of a condition that reads one driver becomes one predicate; parts that compare several are put
 * together from the cases of their operands: every value one can have, and when it has it.
 */
import { compareValues, holds, valueOf, type Reading } from '../../condition/evaluate';
import { printCondition } from '../../condition/print';
import type { CompareOperator, Condition, Literal, Operand } from '../../condition/syntax';
import { hasRows } from '../../document/answer-types';
import { variableOptions, type Variable } from '../../document/variables';
import type { Plan, PlanRepeat } from '../../routing/plan';
import { passesOf } from '../../routing/step';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { differenceOf } from '../answers/linear';
import type { Picks } from '../answers/picks';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { AnswersRead, type Viewpoint } from './answers-read';
import { NOTHING, OperandCases, type ConditionSource } from './operand-cases';
import { compareSum, type SumTerm } from './sums';

export class Encoder {
  private readonly answers: AnswersRead;
  private readonly operands: OperandCases;
  /** What conditions and their parts have come to, by where they were tried. */
  private readonly known = new WeakMap<Condition, Map<string, Diagram>>();

  constructor(
    private readonly plan: Plan,
    private readonly diagrams: Diagrams,
    private readonly symbols: ReadonlyMap<string, AnswerSymbol>,
    passes: Omit<ConditionSource, 'condition'>,
    /** Where given: stands for a test of several drivers at once, which is then not looked into. */
    private readonly opaque: ((test: Condition, at: Viewpoint) => Diagram) | null = null,
  ) {
    this.answers = new AnswersRead(plan, symbols);
    const condition = (node: Condition, at: Viewpoint) => this.condition(node, at);
    this.operands = new OperandCases(plan, diagrams, this.answers, { ...passes, condition });
  }

  /** The key of a variable's reading as a condition sees it from a place. */
  keyOf(variable: Variable, at: Viewpoint): string {
    return this.answers.keyOf(variable, at);
  }

  condition(node: Condition, at: Viewpoint): Diagram {
    let known = this.known.get(node);
    if (known === undefined) {
      known = new Map();
      this.known.set(node, known);
    }
    const key = `${at.section} ${at.pass}`;
    let diagram = known.get(key);
    if (diagram === undefined) {
      diagram = this.encode(node, at);
      known.set(key, diagram);
    }
    return diagram;
  }

  private encode(node: Condition, at: Viewpoint): Diagram {
    const read = new Set<string>();
    const simple = this.answers.collect(node, at, read);
    const [only] = read;
    const picks = simple && read.size === 1 ? this.answers.picksOf(only) : null;
    if (picks !== null && isTest(node)) return this.aboutPicks(node, picks, at);
    if (simple && read.size <= 1 && picks === null) {
      return this.answers.predicate(
        only ?? null,
        at,
        (environment) => holds(node, environment),
        () => printCondition(node),
      );
    }
    const looksInto =
      node.kind === 'and' || node.kind === 'or' || node.kind === 'not' || node.kind === 'state';
    if (this.opaque !== null && !looksInto) return this.opaque(node, at);
    switch (node.kind) {
      case 'and':
        return node.parts.reduce((all, part) => this.diagrams.and(all, this.condition(part, at)), TRUE);
      case 'or':
        return node.parts.reduce((any, part) => this.diagrams.or(any, this.condition(part, at)), FALSE);
      case 'not':
        return this.diagrams.not(this.condition(node.part, at));
      case 'constant':
        return node.value ? TRUE : FALSE;
      case 'compare':
        return (
          this.sum(node.left, node.operator, node.right, at) ??
          this.pair(node, at) ??
          this.operands.compare(
            this.operands.cases(node.left, at),
            node.operator,
            this.operands.cases(node.right, at),
          )
        );
      case 'state':
        return this.gridState(node.name.name, node.state, at);
      case 'in':
      case 'has': {
        // Of several drivers only a derived variable, which holds a number or nothing.
        const sums = node.kind === 'in' ? this.inSums(node, at) : null;
        if (sums !== null) return sums;
        const cases = this.operands.cases({ kind: 'name', name: node.name.name, span: node.span }, at);
        return this.operands.any(cases, (value) =>
          holds(node, { ...NOTHING, read: () => ({ presented: false, value, missing: false }) }),
        );
      }
      default:
        return node satisfies never;
    }
  }

  /** A test that reads the picks of one such question, and nothing else. */
  private aboutPicks(node: TestCondition, picks: Picks, at: Viewpoint): Diagram {
    switch (node.kind) {
      case 'has': {
        const codes = node.values.flatMap((literal) => (literal.kind === 'number' ? [literal.value] : []));
        if (codes.length < node.values.length && node.quantifier === 'all') return FALSE;
        if (this.plan.variables.get(node.name.name.toLowerCase())?.of === 'derived') break;
        if (node.quantifier === 'all') return picks.all(codes);
        return node.quantifier === 'none' ? picks.none(codes) : picks.any(codes);
      }
      case 'state':
        return this.answers.predicate(this.answers.keyIn(node.name.name, at), at, (environment) =>
          holds(node, environment),
        );
      case 'in':
        break;
      case 'compare':
        return this.operands.compare(
          this.operands.cases(node.left, at),
          node.operator,
          this.operands.cases(node.right, at),
        );
      default:
        return node satisfies never;
    }
    // Of these only a derived variable, which holds a number or nothing.
    const cases = this.operands.cases({ kind: 'name', name: node.name.name, span: node.span }, at);
    return this.operands.any(cases, (value) =>
      holds(node, { ...NOTHING, read: () => ({ presented: false, value, missing: false }) }),
    );
  }

  /** A sum of several answers compared with a number; null where it is no sum. */
  private sum(left: Operand, operator: CompareOperator, right: Operand, at: Viewpoint): Diagram | null {
    const sum = differenceOf(left, right, this.plan);
    if (sum === null) return null;
    const terms: SumTerm[] = [];
    for (const [variable, by] of sum.terms) {
      const symbol = this.symbols.get(this.keyOf(variable, at));
      // Something that is never answered: no comparison with it holds.
      if (symbol === undefined) return FALSE;
      terms.push({ symbol, by });
    }
    return compareSum(this.diagrams, terms, sum.constant, operator);
  }

  private inSums(
    { name, negated, members }: Extract<Condition, { kind: 'in' }>,
    at: Viewpoint,
  ): Diagram | null {
    const compare = (operator: CompareOperator, value: Literal) => this.sum(name, operator, value, at);
    let within = FALSE;
    let without: Diagram | null = TRUE;
    for (const member of members) {
      const range = member.kind === 'range' ? member : null;
      const [from, to] = [range?.from ?? (member as Literal), range?.to ?? (member as Literal)];
      const [above, below] = [compare('>=', from), compare('<=', to)];
      const [less, more] = [compare('<', from), compare('>', to)];
      if (above === null || below === null || less === null || more === null) return null;
      within = this.diagrams.or(within, this.diagrams.and(above, below));
      // Without a value neither holds.
      without = this.diagrams.and(without, this.diagrams.or(less, more));
    }
    return negated ? without : within;
  }

  /** Two operands of one driver each: for every value of the one, a test of the other. */
  private pair(
    { left, operator, right }: Extract<Condition, { kind: 'compare' }>,
    at: Viewpoint,
  ): Diagram | null {
    const [ofLeft, ofRight] = [new Set<string>(), new Set<string>()];
    if (!this.answers.collect(left, at, ofLeft) || !this.answers.collect(right, at, ofRight)) return null;
    if (ofLeft.size > 1 || ofRight.size > 1) return null;
    if ([...ofLeft, ...ofRight].some((of) => this.answers.picksOf(of) !== null)) return null;
    const [key = null] = ofRight;
    const [of = null] = ofLeft;
    let result = FALSE;
    // The greatest value it has at least is the one it has.
    for (const { value, atLeast } of this.operands.thresholds(left, of, at)) {
      const fits = this.answers.predicate(key, at, (environment) => {
        const other = valueOf(right, environment);
        return other !== null && compareValues(value, operator, other);
      });
      result = this.diagrams.choose(atLeast, fits, result);
    }
    return result;
  }

  /** That a repeated section has at least so many passes. */
  passesAtLeast(repeat: PlanRepeat, section: number, count: number): Diagram {
    if (repeat.driver === null) return FALSE;
    const key = repeat.driver.name.toLowerCase();
    const { name } = repeat.driver;
    const picks = this.answers.picksOf(key);
    if (picks !== null) return picks.ordinaryAtLeast(count);
    return this.answers.predicate(
      key,
      { section, pass: null },
      (environment) => passesOf(repeat, environment).count >= count,
      () => (repeat.kind === 'times' ? `${name} >= ${count}` : picksAtLeast(repeat.driver, count)),
    );
  }

  /** That more passes are asked for than a repeated section ever runs. */
  passesBeyond(repeat: PlanRepeat, section: number): Diagram {
    if (repeat.driver === null) return FALSE;
    const picks = this.answers.picksOf(repeat.driver.name.toLowerCase());
    if (picks !== null) return picks.ordinaryAtLeast(repeat.max + 1);
    const most = { ...repeat, max: Infinity };
    return this.answers.predicate(
      repeat.driver.name.toLowerCase(),
      { section, pass: null },
      (environment) => passesOf(most, environment).count > repeat.max,
    );
  }

  /** A grid is asked where any row is, answered where any row is. */
  private gridState(
    name: string,
    state: 'answered' | 'unanswered' | 'asked' | 'not asked',
    at: Viewpoint,
  ): Diagram {
    const variable = this.plan.variables.get(name.toLowerCase());
    if (variable?.of !== 'question' || !hasRows(variable.question.answer)) return FALSE;
    const rows = (word: 'asked' | 'answered', test: (reading: Reading) => boolean) =>
      hasRows(variable.question.answer)
        ? variable.question.answer.rows.reduce((any, row) => {
            const of = this.plan.variables.get(row.name.toLowerCase());
            const symbol = of && this.symbols.get(this.keyOf(of, at));
            return symbol === undefined
              ? any
              : this.diagrams.or(any, symbol.predicate(test, `${row.name} ${word}`));
          }, FALSE)
        : FALSE;
    const asked = rows('asked', (reading) => reading.presented);
    const answered = rows('answered', (reading) => reading.presented && reading.value !== null);
    switch (state) {
      case 'asked':
        return asked;
      case 'not asked':
        return this.diagrams.not(asked);
      case 'answered':
        return answered;
      case 'unanswered':
        return this.diagrams.and(asked, this.diagrams.not(answered));
      default:
        return state satisfies never;
    }
  }
}

type TestCondition = Extract<Condition, { kind: 'has' | 'state' | 'in' | 'compare' }>;

function isTest(node: Condition): node is TestCondition {
  const { kind } = node;
  return kind === 'has' || kind === 'state' || kind === 'in' || kind === 'compare';
}

/** That at least so many options are picked for which a section has a pass. */
function picksAtLeast(driver: Variable | null, count: number): string {
  if (driver === null) return 'never';
  if (count > 1) return `count(${driver.name}) >= ${count}`;
  const codes = variableOptions(driver)
    .filter((option) => !option.exclusive && option.missing === undefined)
    .map(({ code }) => code);
  return `${driver.name} has any (${codes.join(', ')})`;
}
