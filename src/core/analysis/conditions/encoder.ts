/**
 * From conditions to diagrams over predicates.
 *
 * A part of a condition that reads one driver becomes one predicate; parts that compare several are put
 * together from the cases of their operands: every value one can have, and when it has it.
 */
import { compareValues, holds, UNASKED, valueOf, type Reading } from '../../condition/evaluate';
import { printCondition } from '../../condition/print';
import type { CompareOperator, Condition, Literal, Operand } from '../../condition/syntax';
import { passKey } from '../../document/addresses';
import { hasRows } from '../../document/answer-types';
import { variableOptions, type Variable } from '../../document/variables';
import type { Plan, PlanRepeat, PlanSection } from '../../routing/plan';
import { PlanEnvironment, type ReadingStore } from '../../routing/readings';
import { passesOf } from '../../routing/step';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { TooMuch } from '../diagrams/limits';
import { differenceOf } from '../answers/linear';
import type { Picks } from '../answers/picks';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { compareSum, type Term } from './sums';

/** More pairs of cases than this are not compared one by one. */
const MOST_PAIRS = 60_000;

/** Thrown where a comparison has too many cases to be told apart. */
export class TooManyCases extends TooMuch {}

type Plain = number | string | null;

interface ValueCase {
  readonly value: Plain;
  readonly when: Diagram;
}

/** Where a condition stands: `pass` null for conditions as from outside. */
export interface Viewpoint {
  readonly section: number;
  readonly pass: number | null;
}

export class Encoder {
  constructor(
    private readonly plan: Plan,
    private readonly diagrams: Diagrams,
    private readonly symbols: ReadonlyMap<string, AnswerSymbol>,
    /** The variable of "this pass of the section was begun". */
    private readonly begun: (section: number, pass: number) => Diagram,
    /** By number: that what is counted over all passes has come to it; null where no tally is kept. */
    private readonly tallied: (section: number, condition: Condition) => readonly Diagram[] | null,
    /** Where given: stands for a test of several drivers at once, which is then not looked into. */
    private readonly opaque: ((test: Condition, at: Viewpoint) => Diagram) | null = null,
  ) {}

  condition(node: Condition, at: Viewpoint): Diagram {
    const read = new Set<string>();
    const simple = this.collect(node, at, read);
    const [only] = read;
    const picks = simple && read.size === 1 ? this.picksOf(only) : null;
    if (picks !== null && isTest(node)) return this.aboutPicks(node, picks, at);
    if (simple && read.size <= 1 && picks === null) {
      return this.predicate(
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
          this.compare(this.cases(node.left, at), node.operator, this.cases(node.right, at))
        );
      case 'state':
        return this.gridState(node.name.name, node.state, at);
      case 'in':
      case 'has': {
        // Of several drivers only a derived variable, which holds a number or nothing.
        const sums = node.kind === 'in' ? this.inSums(node, at) : null;
        if (sums !== null) return sums;
        const cases = this.cases({ kind: 'name', name: node.name.name, span: node.span }, at);
        return this.any(cases, (value) =>
          holds(node, { ...NOTHING, read: () => ({ presented: false, value, missing: false }) }),
        );
      }
      default:
        return node satisfies never;
    }
  }

  /** The picks of a driver with too many options to list sets of them. */
  private picksOf(key: string | undefined): Picks | null {
    return (key === undefined ? undefined : this.symbols.get(key))?.picks ?? null;
  }

  /** A test that reads the picks of one such question, and nothing else. */
  private aboutPicks(node: Test, picks: Picks, at: Viewpoint): Diagram {
    switch (node.kind) {
      case 'has': {
        const codes = node.values.flatMap((literal) => (literal.kind === 'number' ? [literal.value] : []));
        if (codes.length < node.values.length && node.quantifier === 'all') return FALSE;
        if (this.plan.variables.get(node.name.name.toLowerCase())?.of === 'derived') break;
        if (node.quantifier === 'all') return picks.all(codes);
        return node.quantifier === 'none' ? picks.none(codes) : picks.any(codes);
      }
      case 'state':
        return this.predicate(this.keyIn(node.name.name, at), at, (environment) => holds(node, environment));
      case 'in':
        break;
      case 'compare':
        return this.compare(this.cases(node.left, at), node.operator, this.cases(node.right, at));
      default:
        return node satisfies never;
    }
    // Of these only a derived variable, which holds a number or nothing.
    const cases = this.cases({ kind: 'name', name: node.name.name, span: node.span }, at);
    return this.any(cases, (value) =>
      holds(node, { ...NOTHING, read: () => ({ presented: false, value, missing: false }) }),
    );
  }

  private keyIn(name: string, at: Viewpoint): string | null {
    const variable = this.plan.variables.get(name.toLowerCase());
    return variable === undefined ? null : this.keyOf(variable, at);
  }

  /** A sum of several answers compared with a number; null where it is no sum. */
  private sum(left: Operand, operator: CompareOperator, right: Operand, at: Viewpoint): Diagram | null {
    const sum = differenceOf(left, right, this.plan);
    if (sum === null) return null;
    const terms: Term[] = [];
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
    if (!this.collect(left, at, ofLeft) || !this.collect(right, at, ofRight)) return null;
    if (ofLeft.size > 1 || ofRight.size > 1) return null;
    if ([...ofLeft, ...ofRight].some((of) => this.picksOf(of) !== null)) return null;
    const [key = null] = ofRight;
    const [of = null] = ofLeft;
    let result = FALSE;
    // The greatest value it has at least is the one it has.
    for (const { value, atLeast } of this.thresholds(left, of, at)) {
      const fits = this.predicate(key, at, (environment) => {
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
    const picks = this.picksOf(key);
    if (picks !== null) return picks.ordinaryAtLeast(count);
    return this.predicate(
      key,
      { section, pass: null },
      (environment) => passesOf(repeat, environment).count >= count,
      () => (repeat.kind === 'times' ? `${name} >= ${count}` : picksAtLeast(repeat.driver, count)),
    );
  }

  /** That more passes are asked for than a repeated section ever runs. */
  passesBeyond(repeat: PlanRepeat, section: number): Diagram {
    if (repeat.driver === null) return FALSE;
    const picks = this.picksOf(repeat.driver.name.toLowerCase());
    if (picks !== null) return picks.ordinaryAtLeast(repeat.max + 1);
    const most = { ...repeat, max: Infinity };
    return this.predicate(
      repeat.driver.name.toLowerCase(),
      { section, pass: null },
      (environment) => passesOf(most, environment).count > repeat.max,
    );
  }

  /** One predicate of the driver with this key; a constant where the condition reads none. */
  private predicate(
    key: string | null,
    at: Viewpoint,
    test: (environment: PlanEnvironment) => boolean,
    source: () => string = () => '',
  ): Diagram {
    const decide = (reading: Reading | null) => {
      const store: ReadingStore = {
        get: (name) => (name === key && reading !== null ? reading : undefined),
        passesBegun: () => 0,
      };
      return test(new PlanEnvironment(this.plan, store, at.section, at.pass));
    };
    const symbol = key === null ? undefined : this.symbols.get(key);
    if (symbol === undefined) return decide(UNASKED) ? TRUE : FALSE;
    return symbol.predicate(decide, source());
  }

  /**
   * Collects the keys of the drivers that a condition or operand reads; false where it also reads what no single
   * reading shows: passes counted, a grid as a whole.
   */
  private collect(node: Condition | Operand, at: Viewpoint, into: Set<string>): boolean {
    switch (node.kind) {
      case 'and':
      case 'or':
        return node.parts.map((part) => this.collect(part, at, into)).every(Boolean);
      case 'not':
        return this.collect(node.part, at, into);
      case 'compare':
      case 'arithmetic':
        return [this.collect(node.left, at, into), this.collect(node.right, at, into)].every(Boolean);
      case 'in':
      case 'has':
      case 'state':
      case 'count':
        return this.collectName(node.name.name, at, into);
      case 'name':
        return this.collectName(node.name, at, into);
      case 'count-passes':
        return false;
      case 'each': {
        const driver = at.pass === null ? null : this.plan.sections[at.section]?.repeat?.driver;
        if (driver) into.add(driver.name.toLowerCase());
        return true;
      }
      default:
        return true;
    }
  }

  private collectName(name: string, at: Viewpoint, into: Set<string>): boolean {
    const variable = this.plan.variables.get(name.toLowerCase());
    if (variable === undefined) return true;
    if (variable.of === 'derived') {
      const derived = this.plan.derived[variable.index];
      const outside = { section: at.section, pass: null };
      const conditions = (derived?.cases ?? []).map((entry) => this.collect(entry.if, outside, into));
      const value = derived?.value ? this.collect(derived.value, outside, into) : true;
      return conditions.every(Boolean) && value;
    }
    if (variable.kind === 'whole-grid') return false;
    into.add(this.keyOf(variable, at));
    return true;
  }

  /** The key of a variable's reading as a condition sees it from a place. */
  keyOf(variable: Variable, at: Viewpoint): string {
    const placed = variable.of === 'question' || variable.of === 'row';
    const own = at.pass !== null && placed && variable.section === at.section;
    const repeated = own && this.plan.sections[variable.section]?.repeat !== null;
    return passKey(variable.name.toLowerCase(), repeated ? at.pass : null);
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

  /** Every value of an operand with when it has it: disjoint, and together always. */
  private cases(node: Operand, at: Viewpoint): ValueCase[] {
    const read = new Set<string>();
    const simple = this.collect(node, at, read);
    const [only] = read;
    const picks = simple && read.size === 1 ? this.picksOf(only) : null;
    if (simple && read.size <= 1 && picks === null) return this.simpleCases(node, only ?? null, at);
    switch (node.kind) {
      case 'count':
        return picks === null ? [{ value: null, when: TRUE }] : this.countCases(picks);
      case 'each':
        return picks === null ? [{ value: null, when: TRUE }] : this.eachCases(picks, at);
      case 'arithmetic':
        return this.arithmetic(this.cases(node.left, at), this.cases(node.right, at), node.operator);
      case 'count-passes':
        return this.passCases(node.condition, at);
      case 'name': {
        const variable = this.plan.variables.get(node.name.toLowerCase());
        return variable?.of === 'derived'
          ? this.derivedCases(variable.index, at)
          : [{ value: null, when: TRUE }];
      }
      default:
        return [{ value: null, when: TRUE }];
    }
  }

  /** Of an operand that reads one driver, or none. Thresholds rather than single values keep the diagrams small. */
  private simpleCases(node: Operand, key: string | null, at: Viewpoint): ValueCase[] {
    const thresholds = this.thresholds(node, key, at);
    const next = (n: number) => thresholds[n]?.atLeast ?? FALSE;
    const cases = thresholds.map(({ value, atLeast }, n): ValueCase => ({
      value,
      when: this.diagrams.and(atLeast, this.diagrams.not(next(n + 1))),
    }));
    return [...cases, { value: null, when: this.diagrams.not(next(0)) }];
  }

  /** The values of an operand, smallest first, each with the test of being that or more. */
  private thresholds(
    node: Operand,
    key: string | null,
    at: Viewpoint,
  ): { readonly value: number | string; readonly atLeast: Diagram }[] {
    const values = new Set<number | string>();
    this.predicate(key, at, (environment) => {
      const value = valueOf(node, environment);
      if (value !== null) values.add(value);
      return false;
    });
    const sorted = [...values].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
    return sorted.map((bound) => ({
      value: bound,
      atLeast: this.predicate(key, at, (environment) => {
        const value = valueOf(node, environment);
        return value !== null && value >= bound;
      }),
    }));
  }

  private countCases(picks: Picks): ValueCase[] {
    const { diagrams } = this;
    const { substantive } = picks;
    const cases = picks
      .counts()
      .map((when, value): ValueCase => ({ value, when: diagrams.and(when, substantive) }));
    return [...cases.slice(1), { value: null, when: diagrams.not(substantive) }];
  }

  private eachCases(picks: Picks, { pass }: Viewpoint): ValueCase[] {
    const cases = picks.inPass(pass ?? 0);
    const some = cases.reduce((any, { when }) => this.diagrams.or(any, when), FALSE);
    return [...cases, { value: null, when: this.diagrams.not(some) }];
  }

  private derivedCases(index: number, at: Viewpoint): ValueCase[] {
    const derived = this.plan.derived[index];
    const outside = { section: at.section, pass: null };
    if (derived?.value) {
      return this.cases(derived.value, outside).map(({ value, when }) => ({
        value: typeof value === 'number' ? value : null,
        when,
      }));
    }
    let rest = TRUE;
    const found: ValueCase[] = [];
    for (const entry of derived?.cases ?? []) {
      const here = this.condition(entry.if, outside);
      found.push({ value: entry.code, when: this.diagrams.and(rest, here) });
      rest = this.diagrams.and(rest, this.diagrams.not(here));
    }
    const otherwise = derived && 'else' in derived.derived ? derived.derived.else?.code : undefined;
    return this.merged([...found, { value: derived?.cases ? (otherwise ?? null) : null, when: rest }]);
  }

  /** In how many passes that were begun a condition holds. */
  private passCases(condition: Condition, at: Viewpoint): ValueCase[] {
    const section = this.countedSection(condition, at);
    if (section === null) return [{ value: 0, when: TRUE }];
    const tally = this.tallied(section.index, condition);
    if (tally !== null)
      return tally.map((when, value) => ({
        value,
        when: this.diagrams.and(when, this.diagrams.not(tally[value + 1] ?? FALSE)),
      }));
    let counts: Diagram[] = [TRUE];
    for (let pass = 1; pass <= (section.repeat?.max ?? 1); pass += 1) {
      const here = this.diagrams.and(
        this.begun(section.index, pass),
        this.condition(condition, { section: section.index, pass }),
      );
      const not = this.diagrams.not(here);
      counts = [...counts, FALSE].map((when, count) =>
        this.diagrams.or(this.diagrams.and(when, not), this.diagrams.and(counts[count - 1] ?? FALSE, here)),
      );
    }
    return counts.map((when, value) => ({ value, when }));
  }

  private countedSection(condition: Condition, at: Viewpoint): PlanSection | null {
    const environment = new PlanEnvironment(
      this.plan,
      { get: () => undefined, passesBegun: () => 0 },
      at.section,
      at.pass,
    );
    const index = environment.repeatedSectionIn(condition);
    return index === null ? null : (this.plan.sections[index] ?? null);
  }

  private arithmetic(
    left: readonly ValueCase[],
    right: readonly ValueCase[],
    operator: '+' | '-' | '*',
  ): ValueCase[] {
    if (left.length * right.length > MOST_PAIRS) throw new TooManyCases();
    const found: ValueCase[] = [];
    for (const a of left) {
      for (const b of right) {
        const when = this.diagrams.and(a.when, b.when);
        if (when === FALSE) continue;
        found.push({ value: calculate(a.value, operator, b.value), when });
      }
    }
    return this.merged(found);
  }

  private compare(
    left: readonly ValueCase[],
    operator: CompareOperator,
    right: readonly ValueCase[],
  ): Diagram {
    if (left.length * right.length > MOST_PAIRS) throw new TooManyCases();
    let result = FALSE;
    for (const a of left) {
      const fitting = this.any(
        right,
        (value) => a.value !== null && value !== null && compareValues(a.value, operator, value),
      );
      result = this.diagrams.or(result, this.diagrams.and(a.when, fitting));
    }
    return result;
  }

  private any(cases: readonly ValueCase[], wanted: (value: Plain) => boolean): Diagram {
    return cases.reduce((any, { value, when }) => (wanted(value) ? this.diagrams.or(any, when) : any), FALSE);
  }

  private merged(cases: readonly ValueCase[]): ValueCase[] {
    const byValue = new Map<Plain, Diagram>();
    for (const { value, when } of cases)
      byValue.set(value, this.diagrams.or(byValue.get(value) ?? FALSE, when));
    return [...byValue].map(([value, when]) => ({ value, when }));
  }
}

type Test = Extract<Condition, { kind: 'has' | 'state' | 'in' | 'compare' }>;

function isTest(node: Condition): node is Test {
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

const NOTHING = { pass: null, each: null, passesOver: () => [] };

/** Through the language's own arithmetic, so that decimals come out the same. */
function calculate(left: Plain, operator: '+' | '-' | '*', right: Plain): number | null {
  if (typeof left !== 'number' || typeof right !== 'number') return null;
  const span = { from: 0, to: 0 };
  const literal = (value: number) => ({ kind: 'number' as const, value, span });
  const node = { kind: 'arithmetic' as const, operator, left: literal(left), right: literal(right), span };
  return valueOf(node, { ...NOTHING, read: () => UNASKED }) as number | null;
}
