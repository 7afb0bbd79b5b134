/**
 * Which answers a condition or operand reads, as they are seen from a place, and, where it is one answer, the diagram of a
 * test of it: its outcome for every reading that the answer can have.
 */
import { UNASKED, type Reading } from '../../condition/evaluate';
import type { Condition, Operand } from '../../condition/syntax';
import { passKey } from '../../document/addresses';
import type { Variable } from '../../document/variables';
import type { Plan } from '../../routing/plan';
import { PlanEnvironment, type ReadingStore } from '../../routing/readings';
import type { AnswerSymbol } from '../answers/answer-symbol';
import type { Picks } from '../answers/picks';
import { FALSE, TRUE, type Diagram } from '../diagrams/diagram';

/** Where a condition stands: `pass` null for conditions as from outside. */
export interface Viewpoint {
  readonly section: number;
  readonly pass: number | null;
}

export class AnswersRead {
  constructor(
    private readonly plan: Plan,
    private readonly symbols: ReadonlyMap<string, AnswerSymbol>,
  ) {}

  /** The picks of a driver with too many options to list sets of them. */
  picksOf(key: string | undefined): Picks | null {
    return (key === undefined ? undefined : this.symbols.get(key))?.picks ?? null;
  }

  keyIn(name: string, at: Viewpoint): string | null {
    const variable = this.plan.variables.get(name.toLowerCase());
    return variable === undefined ? null : this.keyOf(variable, at);
  }

  /** One predicate of the driver with this key; a constant where the condition reads none. */
  predicate(
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
  collect(node: Condition | Operand, at: Viewpoint, into: Set<string>): boolean {
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

  collectName(name: string, at: Viewpoint, into: Set<string>): boolean {
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
}
