/**
 * Which answers steer the routing, and which of their values need to be told apart.
 *
 * Two values of a driver that give every test the same outcome are one class; `candidates.ts` lists a value for
 * each. A driver compared with another answer keeps all its values apart.
 */
import { printCondition } from '../../condition/print';
import { isBefore } from '../../condition/scope';
import { eachName, type Condition, type Operand } from '../../condition/syntax';
import type { Variable } from '../../document/variables';
import { pipedInto } from '../../routing/pipes';
import type { Plan, PlanItem, PlanSection } from '../../routing/plan';
import type { DocumentPlace } from '../../routing/problems';
import { differenceOf } from './linear';
import type { Via } from './via';

/** A test that reads one driver and nothing else, so that its outcome is known from the driver's reading. */
export type Atom = Extract<Condition, { kind: 'compare' | 'in' | 'has' | 'state' }>;

export interface Driver {
  readonly variable: Variable;
  /** Lower-case name. */
  readonly key: string;
  readonly atoms: readonly Atom[];
  /** Added up with another answer, multiplied …: every value counts. */
  readonly keepAll: boolean;
  /** Numbers at which a sum of this one answer comes to what it is compared with. */
  readonly boundaries: readonly number[];
  /** All that are compared with each other, directly or by way of others; itself among them. */
  readonly group: readonly Driver[];
  /** In how many passes it is asked at most. */
  readonly copies: number;
  /** Passes of a section follow from it, up to this many; 0 where none do. */
  readonly repeats: number;
}

export interface Drivers {
  readonly byKey: ReadonlyMap<string, Driver>;
  /** Repeated sections whose passes are counted. */
  readonly countedSections: ReadonlySet<number>;
  /** What is counted over passes, by `countKey`. */
  readonly counts: ReadonlyMap<string, CountedPasses>;
}

/** In how many passes of a section a condition holds. */
export interface CountedPasses {
  readonly section: number;
  readonly condition: Condition;
  /** No count is compared with anything above; Infinity where that is not known. */
  readonly most: number;
}

/** By what a count over passes is known: the section by its index, and the condition as it is printed. */
export function countKey(section: number, condition: Condition): string {
  return `${section} ${printCondition(condition)}`;
}

interface DriverDraft {
  variable: Variable;
  key: string;
  atoms: Atom[];
  keepAll: boolean;
  readonly boundaries: number[];
  group: DriverDraft[];
  readonly copies: number;
  repeats: number;
}

export interface DriverScope {
  /** With the conditions of the endings' messages. */
  readonly messages?: boolean;
  /** Also all that is piped, or a derived value reads. */
  readonly parts?: boolean;
  /** Of answers that are compared with each other every value, not just their order. */
  readonly everyValue?: boolean;
  /** With the conditions under which other answers are assumed. */
  readonly assumed?: boolean;
  /** With the answers that are asked for. */
  readonly via?: readonly Via[];
  /** All versions that are held against each other, the plan's own among them: what one of them tells apart, all do. */
  readonly versions?: readonly Plan[];
}

/** Every variable that `scope` takes in; without one, those that decide who is presented what. */
export function driversOf(plan: Plan, scope: DriverScope = {}): Drivers {
  return new Collector(plan).collect(scope);
}

class Collector {
  private readonly drafts = new Map<string, DriverDraft>();
  private readonly counted = new Set<number>();
  private readonly counts = new Map<string, CountedPasses>();

  constructor(private readonly plan: Plan) {}

  collect({ messages, parts, everyValue, assumed, via = [], versions = [this.plan] }: DriverScope): Drivers {
    for (const { sections, derived } of versions) {
      for (const section of sections) this.section(section);
      // A derived variable may be put together otherwise here, or be none.
      if (versions.length > 1)
        for (const { cases } of derived) for (const entry of cases ?? []) this.reads(entry.if);
    }
    for (const way of via) if ('answers' in way) this.reads(way.answers);
    if (messages || parts) {
      for (const ending of this.plan.endings) {
        for (const { if: condition } of ending.messages) if (condition) this.reads(condition);
      }
    }
    if (parts) this.readsOf(this.plan);
    if (assumed)
      for (const { items } of versions.flatMap(({ sections }) => sections))
        for (const { assumedIf } of items) for (const condition of assumedIf) this.reads(condition);
    if (everyValue) for (const draft of this.drafts.values()) draft.keepAll ||= draft.group.length > 1;
    return { byKey: this.drafts, countedSections: this.counted, counts: this.counts };
  }

  private section({ gate, repeat, items, onward }: PlanSection): void {
    if (gate) this.reads(gate);
    // By its name: the section may be another version's.
    const driver = repeat?.driver && this.plan.variables.get(repeat.driver.name.toLowerCase());
    if (repeat && driver) {
      const draft = this.draft(driver);
      draft.repeats = Math.max(draft.repeats, repeat.max);
    }
    for (const item of items) {
      const conditions = [
        item.askIf,
        ...item.optionIf,
        ...item.rowIf,
        ...item.checks.filter(({ kind }) => kind === 'hard').map((check) => check.if),
        ...item.quotas.map((quota) => quota.if),
        ...item.skips.map((skip) => skip.if),
      ];
      for (const condition of conditions) if (condition) this.reads(condition);
    }
    for (const skip of onward) if (skip.if) this.reads(skip.if);
  }

  /** What is used without steering: piped answers, and what derived values are worked out from. */
  private readsOf({ sections, derived }: Plan): void {
    for (const section of sections) {
      for (const planItem of section.items) {
        for (const variable of pipedBy(this.plan, planItem))
          if (variable.of !== 'derived') this.draft(variable);
      }
    }
    for (const { inputs, value } of derived) {
      if (value === null) continue;
      for (const { variable, overPasses } of inputs) if (!overPasses) this.draft(variable);
    }
  }

  private reads(node: Condition): void {
    switch (node.kind) {
      case 'or':
      case 'and':
        for (const part of node.parts) this.reads(part);
        break;
      case 'not':
        this.reads(node.part);
        break;
      case 'constant':
        break;
      case 'in':
      case 'has':
      case 'state':
      case 'compare':
        this.atom(node);
        break;
      default:
        node satisfies never;
    }
  }

  private atom(node: Atom): void {
    if (node.kind === 'compare') {
      const { left, right } = node;
      this.countPasses(left, right.kind === 'number' ? right.value : Infinity);
      this.countPasses(right, left.kind === 'number' ? left.value : Infinity);
    }
    if (node.kind === 'compare' && (this.compared(node) || this.summed(node))) return;
    if (node.kind === 'in' && this.derivedIn(node)) return;
    const variables = this.namedIn(node.kind === 'compare' ? [node.left, node.right] : [node.name]);
    const single = variables.length === 1 && isPlainTest(node);
    for (const variable of variables) {
      if (variable.of === 'derived') this.derived(variable.index);
      else this.use(variable, single ? node : null);
    }
  }

  /** Two answers compared with each other: only their order counts. */
  private compared({ left, right }: Extract<Atom, { kind: 'compare' }>): boolean {
    if (left.kind !== 'name' || right.kind !== 'name') return false;
    const [a, b] = this.namedIn([left, right]);
    if (a === undefined || b === undefined) return false;
    if (a.of === 'derived' || b.of === 'derived') return false;
    const [one, other] = [this.draft(a), this.draft(b)];
    // With itself: only whether there is a value.
    if (one.group === other.group) return true;
    one.group.push(...other.group);
    for (const draft of other.group) draft.group = one.group;
    return true;
  }

  /** A sum of one answer: it comes to what it is compared with at one number. */
  private summed({ left, right }: { readonly left: Operand; readonly right: Operand }): boolean {
    if (left.kind === 'name' && right.kind === 'number' && !this.isDerived(left.name)) return false;
    const sum = differenceOf(left, right, this.plan);
    const [[variable, by] = [null, 0], ...more] = sum?.terms ?? [];
    if (sum === null || variable === null || more.length > 0) return false;
    const draft = this.draft(variable);
    if (by !== 0) draft.boundaries.push(-sum.constant / by);
    return true;
  }

  /** The same where a derived sum is looked for among numbers and ranges. */
  private derivedIn({ name, members }: Extract<Atom, { kind: 'in' }>): boolean {
    if (!this.isDerived(name.name)) return false;
    const ends = members.flatMap((member) => (member.kind === 'range' ? [member.from, member.to] : [member]));
    return ends.every((right) => this.summed({ left: name, right }));
  }

  private isDerived(name: string): boolean {
    return this.plan.variables.get(name.toLowerCase())?.of === 'derived';
  }

  /** Variables read by operands themselves; what counts over passes read is collected by `countPasses`. */
  private namedIn(operands: readonly Operand[]): Variable[] {
    return operands.flatMap((operand) => {
      switch (operand.kind) {
        case 'arithmetic':
          return this.namedIn([operand.left, operand.right]);
        case 'name':
        case 'count': {
          const { name } = operand.kind === 'name' ? operand : operand.name;
          const variable = this.plan.variables.get(name.toLowerCase());
          return variable === undefined ? [] : [variable];
        }
        default:
          return [];
      }
    });
  }

  /** `most`: the number that the operand is compared with. */
  private countPasses(side: Operand, most: number): void {
    if (side.kind === 'arithmetic') {
      this.countPasses(side.left, Infinity);
      this.countPasses(side.right, Infinity);
    } else if (side.kind === 'count-passes') {
      this.reads(side.condition);
      eachName(side.condition, ({ name }) => {
        const variable = this.plan.variables.get(name.toLowerCase());
        if (variable?.of !== 'question' && variable?.of !== 'row') return;
        if (this.plan.sections[variable.section]?.repeat == null) return;
        this.counted.add(variable.section);
        const key = countKey(variable.section, side.condition);
        const known = this.counts.get(key)?.most ?? 0;
        this.counts.set(key, {
          section: variable.section,
          condition: side.condition,
          most: Math.max(known, most),
        });
      });
    }
  }

  private derived(index: number): void {
    const derived = this.plan.derived[index];
    for (const entry of derived?.cases ?? []) this.reads(entry.if);
    if (derived?.value) {
      this.countPasses(derived.value, Infinity);
      for (const variable of this.namedIn([derived.value])) {
        if (variable.of === 'derived') this.derived(variable.index);
        else this.use(variable, null);
      }
    }
  }

  private use(variable: Variable, atom: Atom | null): void {
    const draft = this.draft(variable);
    if (atom !== null) draft.atoms.push(atom);
    else draft.keepAll = true;
  }

  private draft(variable: Variable): DriverDraft {
    const key = variable.name.toLowerCase();
    let draft = this.drafts.get(key);
    if (draft === undefined) {
      const placed = variable.of === 'question' || variable.of === 'row';
      const copies = (placed && this.plan.sections[variable.section]?.repeat?.max) || 1;
      draft = { variable, key, atoms: [], keepAll: false, boundaries: [], group: [], copies, repeats: 0 };
      draft.group.push(draft);
      this.drafts.set(key, draft);
    }
    return draft;
  }
}

/**
 * The questions and given values that a condition or operand reads itself, each once, derived ones traced to their
 * inputs; what it counts over passes is left out.
 */
export function variablesIn(node: Condition | Operand, plan: Plan): Variable[] {
  const found = new Set<Variable>();
  eachName(node, ({ name }, user) => {
    if (user.kind === 'count-passes') return;
    const variable = plan.variables.get(name.toLowerCase());
    if (variable === undefined) return;
    if (variable.of !== 'derived') found.add(variable);
    else
      for (const { variable: input, overPasses } of plan.derived[variable.index]?.inputs ?? [])
        if (!overPasses) found.add(input);
  });
  return [...found];
}

/** The variables piped into an item's own texts, as far as they can be: those that come before it. */
export function pipedBy(plan: Plan, { item, section, place }: PlanItem): Variable[] {
  return pipedInto(item).flatMap((name) => {
    const variable = plan.variables.get(name.toLowerCase());
    if (variable === undefined || variable.name !== name) return [];
    const placed = variable.of === 'question' || variable.of === 'row';
    return placed && !isBefore(variable, { section, item: place }) ? [] : [variable];
  });
}

/** Not plain: `pass` and `each` change from pass to pass, counts read many readings, sums move the boundaries. */
function isPlainTest(node: Atom): boolean {
  const plain = ({ kind }: Operand) =>
    kind !== 'pass' && kind !== 'each' && kind !== 'count-passes' && kind !== 'arithmetic';
  return node.kind !== 'compare' || (plain(node.left) && plain(node.right));
}

/** Where the analysis had to stop short of exactness, and why. */
export interface Limit {
  readonly at: DocumentPlace;
  readonly message: string;
}

/** The tests in a condition that read one variable, those by which derived variables are worked out among them. */
export function testsOn(condition: Condition, variable: Variable, plan: Plan): Atom[] {
  switch (condition.kind) {
    case 'and':
    case 'or':
      return condition.parts.flatMap((part) => testsOn(part, variable, plan));
    case 'not':
      return testsOn(condition.part, variable, plan);
    case 'constant':
      return [];
    default: {
      const found: Atom[] = [];
      eachName(condition, ({ name }) => {
        const named = plan.variables.get(name.toLowerCase());
        if (named === variable) found.push(condition);
        if (named?.of !== 'derived') return;
        for (const entry of plan.derived[named.index]?.cases ?? [])
          found.push(...testsOn(entry.if, variable, plan));
      });
      return found;
    }
  }
}
