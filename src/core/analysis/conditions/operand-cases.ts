/**
 * Operands as cases: every value one can have, with the diagram of when it has it. What compares several answers is put
 * together from the cases of both sides.
 */
import { compareValues, UNASKED, valueOf } from '../../condition/evaluate';
import type { CompareOperator, Condition, Operand } from '../../condition/syntax';
import type { Plan, PlanSection } from '../../routing/plan';
import { PlanEnvironment } from '../../routing/readings';
import type { Picks } from '../answers/picks';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { TooMuch } from '../diagrams/limits';
import type { AnswersRead, Viewpoint } from './answers-read';

/** More pairs of cases than this are not compared one by one. */
const MOST_PAIRS = 60_000;

/** Thrown where a comparison has too many cases to be told apart. */
export class TooManyCases extends TooMuch {}

export type Plain = number | string | null;

export interface ValueCase {
  readonly value: Plain;
  readonly when: Diagram;
}

/** What conditions are to the operands in them, and what counts over passes come to. */
export interface ConditionSource {
  condition(node: Condition, at: Viewpoint): Diagram;
  /** The variable of "this pass of the section was begun". */
  begun(section: number, pass: number): Diagram;
  /** By number: that what is counted over all passes has come to it; null where no tally is kept. */
  tallied(section: number, condition: Condition): readonly Diagram[] | null;
}

export class OperandCases {
  constructor(
    private readonly plan: Plan,
    private readonly diagrams: Diagrams,
    private readonly answers: AnswersRead,
    private readonly source: ConditionSource,
  ) {}

  /** Every value of an operand with when it has it: disjoint, and together always. */
  cases(node: Operand, at: Viewpoint): ValueCase[] {
    const read = new Set<string>();
    const simple = this.answers.collect(node, at, read);
    const [only] = read;
    const picks = simple && read.size === 1 ? this.answers.picksOf(only) : null;
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
  thresholds(
    node: Operand,
    key: string | null,
    at: Viewpoint,
  ): { readonly value: number | string; readonly atLeast: Diagram }[] {
    const values = new Set<number | string>();
    this.answers.predicate(key, at, (environment) => {
      const value = valueOf(node, environment);
      if (value !== null) values.add(value);
      return false;
    });
    const sorted = [...values].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
    return sorted.map((bound) => ({
      value: bound,
      atLeast: this.answers.predicate(key, at, (environment) => {
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
      const here = this.source.condition(entry.if, outside);
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
    const tally = this.source.tallied(section.index, condition);
    if (tally !== null)
      return tally.map((when, value) => ({
        value,
        when: this.diagrams.and(when, this.diagrams.not(tally[value + 1] ?? FALSE)),
      }));
    let counts: Diagram[] = [TRUE];
    for (let pass = 1; pass <= (section.repeat?.max ?? 1); pass += 1) {
      const here = this.diagrams.and(
        this.source.begun(section.index, pass),
        this.source.condition(condition, { section: section.index, pass }),
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

  compare(left: readonly ValueCase[], operator: CompareOperator, right: readonly ValueCase[]): Diagram {
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

  any(cases: readonly ValueCase[], wanted: (value: Plain) => boolean): Diagram {
    return cases.reduce((any, { value, when }) => (wanted(value) ? this.diagrams.or(any, when) : any), FALSE);
  }

  private merged(cases: readonly ValueCase[]): ValueCase[] {
    const byValue = new Map<Plain, Diagram>();
    for (const { value, when } of cases)
      byValue.set(value, this.diagrams.or(byValue.get(value) ?? FALSE, when));
    return [...byValue].map(([value, when]) => ({ value, when }));
  }
}

/** An environment of which nothing but one reading is asked. */
export const NOTHING = { pass: null, each: null, passesOver: () => [] };

/** Through the language's own arithmetic, so that decimals come out the same. */
function calculate(left: Plain, operator: '+' | '-' | '*', right: Plain): number | null {
  if (typeof left !== 'number' || typeof right !== 'number') return null;
  const span = { from: 0, to: 0 };
  const literal = (value: number) => ({ kind: 'number' as const, value, span });
  const node = { kind: 'arithmetic' as const, operator, left: literal(left), right: literal(right), span };
  return valueOf(node, { ...NOTHING, read: () => UNASKED }) as number | null;
}
