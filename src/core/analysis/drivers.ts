/**
 * Which answers steer the routing, for how long each must be remembered, and which of its values need to be
 * told apart.
 *
 * Two values of a driver that give every test the same outcome are one class; `candidates.ts` lists a
 * value for each. A driver compared with another answer keeps all its values apart.
 */
import { holds, type Environment, type Reading } from '../condition/evaluate';
import { eachName, type Condition, type Operand } from '../condition/syntax';
import type { Variable } from '../document/variables';
import type { Plan, PlanSection } from '../routing/plan';
import type { Place } from '../routing/problems';

/** A test that reads one driver and nothing else, so that its outcome is known from the driver's reading. */
export type Atom = Extract<Condition, { kind: 'compare' | 'in' | 'has' | 'state' }>;

export interface Driver {
  readonly variable: Variable;
  /** Lower-case name. */
  readonly key: string;
  readonly atoms: readonly Atom[];
  /** Compared with another answer, counted in a sum …: every value counts. */
  readonly keepAll: boolean;
  /** Passes of a section follow from it, up to this many; 0 where none do. */
  readonly repeats: number;
  /** The last place, as an order number, where it is read. */
  readonly lastUse: number;
  /** Whether, being asked in a repeated section, it is read after the section. */
  readonly readAfterRepeat: boolean;
}

export interface Drivers {
  readonly byKey: ReadonlyMap<string, Driver>;
  /** Repeated sections whose number of passes begun is read later, with the last place where it is. */
  readonly countedSections: ReadonlyMap<number, number>;
  /** Order number of a place: just before item `item`, or past the last one. Grows along the document. */
  orderOf(section: number, item: number): number;
}

interface Draft {
  variable: Variable;
  key: string;
  atoms: Atom[];
  keepAll: boolean;
  repeats: number;
  lastUse: number;
  readAfterRepeat: boolean;
}

export function driversOf(plan: Plan): Drivers {
  return new Collector(plan).collect();
}

class Collector {
  private readonly drafts = new Map<string, Draft>();
  private readonly counted = new Map<number, number>();
  private readonly starts: number[] = [];

  constructor(private readonly plan: Plan) {
    let at = 0;
    for (const { items } of plan.sections) {
      this.starts.push(at);
      at += items.length + 2;
    }
    this.starts.push(at);
  }

  collect(): Drivers {
    for (const section of this.plan.sections) this.section(section);
    return {
      byKey: this.drafts,
      countedSections: this.counted,
      orderOf: (section, item) => this.order(section, item),
    };
  }

  private order(section: number, item: number): number {
    return (this.starts[section] ?? 0) + item + 1;
  }

  private section(section: PlanSection): void {
    const { index, items, repeat } = section;
    const end = this.order(index, items.length);
    if (section.gate) this.reads(section.gate, this.order(index, -1), index);
    if (repeat?.driver) {
      const draft = this.draft(repeat.driver);
      draft.repeats = Math.max(draft.repeats, repeat.max);
      draft.lastUse = Math.max(draft.lastUse, end);
    }
    for (const item of items) {
      const here = this.order(index, item.index);
      const conditions = [
        item.askIf,
        ...item.optionIf,
        ...item.rowIf,
        ...item.checks.filter(({ kind }) => kind === 'hard').map((check) => check.if),
        ...item.quotas.map((quota) => quota.if),
        ...item.skips.map((skip) => skip.if),
      ];
      for (const condition of conditions) if (condition) this.reads(condition, here, index);
    }
    for (const skip of section.onward) if (skip.if) this.reads(skip.if, end, index);
  }

  private reads(node: Condition, place: number, reader: number): void {
    switch (node.kind) {
      case 'or':
      case 'and':
        for (const part of node.parts) this.reads(part, place, reader);
        break;
      case 'not':
        this.reads(node.part, place, reader);
        break;
      case 'constant':
        break;
      case 'in':
      case 'has':
      case 'state':
      case 'compare':
        this.atom(node, place, reader);
        break;
      default:
        node satisfies never;
    }
  }

  private atom(node: Atom, place: number, reader: number): void {
    if (node.kind === 'compare') {
      for (const side of [node.left, node.right]) this.countPasses(side, place, reader);
    }
    const variables = this.namedIn(node.kind === 'compare' ? [node.left, node.right] : [node.name]);
    const single = variables.length === 1 && isPlainTest(node);
    for (const variable of variables) {
      if (variable.of === 'derived') this.derived(variable.index, place, reader);
      else this.use(variable, place, reader, single ? node : null);
    }
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

  private countPasses(side: Operand, place: number, reader: number): void {
    if (side.kind === 'arithmetic') {
      this.countPasses(side.left, place, reader);
      this.countPasses(side.right, place, reader);
    } else if (side.kind === 'count-passes') {
      this.reads(side.condition, place, reader);
      eachName(side.condition, ({ name }) => {
        const variable = this.plan.variables.get(name.toLowerCase());
        if (variable?.of !== 'question' && variable?.of !== 'row') return;
        if (this.plan.sections[variable.section]?.repeat == null) return;
        this.counted.set(variable.section, Math.max(this.counted.get(variable.section) ?? 0, place));
      });
    }
  }

  private derived(index: number, place: number, reader: number): void {
    const derived = this.plan.derived[index];
    for (const entry of derived?.cases ?? []) this.reads(entry.if, place, reader);
    if (derived?.value) {
      this.countPasses(derived.value, place, reader);
      for (const variable of this.namedIn([derived.value])) {
        if (variable.of === 'derived') this.derived(variable.index, place, reader);
        else this.use(variable, place, reader, null);
      }
    }
  }

  private use(variable: Variable, place: number, reader: number, atom: Atom | null): void {
    const draft = this.draft(variable);
    const placed = variable.of === 'question' || variable.of === 'row';
    const home = placed ? variable.section : -1;
    const readerRepeats = this.plan.sections[reader]?.repeat != null;
    // What a repeated section reads from outside, it reads again in the next pass.
    const until =
      readerRepeats && home !== reader
        ? this.order(reader, this.plan.sections[reader]?.items.length ?? 0)
        : place;
    draft.lastUse = Math.max(draft.lastUse, until);
    if (
      placed &&
      this.plan.sections[home]?.repeat != null &&
      place >= this.order(home, this.plan.sections[home].items.length)
    ) {
      draft.readAfterRepeat = true;
    }
    if (atom !== null) draft.atoms.push(atom);
    else draft.keepAll = true;
  }

  private draft(variable: Variable): Draft {
    const key = variable.name.toLowerCase();
    let draft = this.drafts.get(key);
    if (draft === undefined) {
      draft = { variable, key, atoms: [], keepAll: false, repeats: 0, lastUse: 0, readAfterRepeat: false };
      this.drafts.set(key, draft);
    }
    return draft;
  }
}

/** Not plain: `pass` and `each` change from pass to pass, counts read many readings, sums move the boundaries. */
function isPlainTest(node: Atom): boolean {
  const plain = ({ kind }: Operand) =>
    kind !== 'pass' && kind !== 'each' && kind !== 'count-passes' && kind !== 'arithmetic';
  return node.kind !== 'compare' || (plain(node.left) && plain(node.right));
}

/** The outcome of each of a driver's tests for one reading: equal texts, equal classes. */
export function signature(driver: Driver, reading: Reading): string {
  const only: Environment = { read: () => reading, pass: null, each: null, passesOver: () => [] };
  const outcomes = driver.atoms.map((atom) => (holds(atom, only) ? '1' : '0')).join('');
  const { value, missing } = reading;
  if (driver.keepAll) return `${outcomes}/${JSON.stringify(value)}`;
  if (driver.repeats === 0) return outcomes;
  if (missing || value === null) return `${outcomes}/0`;
  return `${outcomes}/${typeof value === 'number' ? Math.min(value, driver.repeats) : [...(value as readonly number[])].sort().join(',')}`;
}

/** Where the analysis had to stop short of exactness, and why. */
export interface Limit {
  readonly at: Place;
  readonly message: string;
}
