/**
 * Which answers steer the routing, and which of their values need to be told apart.
 *
 * Two values of a driver that give every test the same outcome are one class; `candidates.ts` lists a value for
 * each. A driver compared with another answer keeps all its values apart.
 */
import { eachName, type Condition, type Operand } from '../condition/syntax';
import type { Variable } from '../document/variables';
import { optionsOf } from '../document/shape';
import { pipedNames } from '../routing/pipes';
import type { Plan, PlanItem, PlanSection } from '../routing/plan';
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
}

export interface Drivers {
  readonly byKey: ReadonlyMap<string, Driver>;
  /** Repeated sections whose passes are counted. */
  readonly countedSections: ReadonlySet<number>;
}

interface Draft {
  variable: Variable;
  key: string;
  atoms: Atom[];
  keepAll: boolean;
  repeats: number;
}

/** `messages`: with the conditions of the endings' messages; `parts`: also all that is piped, or a derived value reads. */
export function driversOf(
  plan: Plan,
  scope: { readonly messages?: boolean; readonly parts?: boolean } = {},
): Drivers {
  return new Collector(plan).collect(scope);
}

class Collector {
  private readonly drafts = new Map<string, Draft>();
  private readonly counted = new Set<number>();

  constructor(private readonly plan: Plan) {}

  collect({ messages, parts }: { readonly messages?: boolean; readonly parts?: boolean }): Drivers {
    for (const section of this.plan.sections) this.section(section);
    if (messages || parts) {
      for (const ending of this.plan.endings) {
        for (const { if: condition } of ending.messages) if (condition) this.reads(condition);
      }
    }
    if (parts) this.readsOf(this.plan);
    return { byKey: this.drafts, countedSections: this.counted };
  }

  private section({ gate, repeat, items, onward }: PlanSection): void {
    if (gate) this.reads(gate);
    if (repeat?.driver) {
      const draft = this.draft(repeat.driver);
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
      for (const side of [node.left, node.right]) this.countPasses(side);
    }
    const variables = this.namedIn(node.kind === 'compare' ? [node.left, node.right] : [node.name]);
    const single = variables.length === 1 && isPlainTest(node);
    for (const variable of variables) {
      if (variable.of === 'derived') this.derived(variable.index);
      else this.use(variable, single ? node : null);
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

  private countPasses(side: Operand): void {
    if (side.kind === 'arithmetic') {
      this.countPasses(side.left);
      this.countPasses(side.right);
    } else if (side.kind === 'count-passes') {
      this.reads(side.condition);
      eachName(side.condition, ({ name }) => {
        const variable = this.plan.variables.get(name.toLowerCase());
        if (variable?.of !== 'question' && variable?.of !== 'row') return;
        if (this.plan.sections[variable.section]?.repeat == null) return;
        this.counted.add(variable.section);
      });
    }
  }

  private derived(index: number): void {
    const derived = this.plan.derived[index];
    for (const entry of derived?.cases ?? []) this.reads(entry.if);
    if (derived?.value) {
      this.countPasses(derived.value);
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

  private draft(variable: Variable): Draft {
    const key = variable.name.toLowerCase();
    let draft = this.drafts.get(key);
    if (draft === undefined) {
      draft = { variable, key, atoms: [], keepAll: false, repeats: 0 };
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

/** The variables piped into an item's own texts. */
export function pipedBy(plan: Plan, { item }: PlanItem): Variable[] {
  const texts =
    item.kind === 'statement'
      ? [item.text]
      : [
          item.text,
          item.note ?? '',
          ...optionsOf(item.answer).map(({ label }) => label),
          ...(item.answer.type === 'grid' ? item.answer.rows.map(({ label }) => label) : []),
        ];
  const names = new Set(texts.flatMap((text) => pipedNames(text)));
  return [...names].flatMap((name) => {
    const variable = plan.variables.get(name.toLowerCase());
    return variable === undefined || variable.name !== name ? [] : [variable];
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
  readonly at: Place;
  readonly message: string;
}
