/**
 * What the routing says of every column, given the answers of a row: asked, or the reason why not.
 *
 * Rows of people who came to an ending are walked by the fast runner; those who stopped part-way, or whose time ran
 * out, by the walk that keeps a record.
 */
import type { Column } from '../coding/columns';
import { codedCells } from '../coding/row';
import { passKey } from '../document/addresses';
import type { Answers, MissingReason, Value } from '../document/types';
import type { Unasked } from '../document/vocabularies';
import type { ShownParts } from '../routing/answers';
import type { Plan } from '../routing/plan';
import type { Runner } from '../routing/runner';
import type { RunnerItem } from '../routing/runner-program';
import { walk } from '../routing/walk';
import type { ColumnGroup } from './groups';
import type { Came } from './types';

export interface Expected {
  readonly came: Came;
  isAsked(group: ColumnGroup): boolean;
  /** Whether an item (`name` or `name#pass`) was presented. */
  isPresented(key: string): boolean;
  /** Of a column that is not asked. */
  reasonOf(column: number): Unasked;
  /** What of a presented item was on show. */
  shownOf(key: string): ShownParts | null;
  /** A derived variable's value, or the reason why it has none. */
  derived(index: number, column: number): number | MissingReason;
  /** Items presented at which a hard check held, though people went on from there. */
  readonly refused: readonly string[];
}

/** After a run of the runner that came to an ending. */
export class QuickExpected implements Expected {
  readonly came: Came;
  readonly refused: readonly string[];
  private readonly undrawn: ReadonlySet<string>;

  constructor(
    private readonly runner: Runner,
    private readonly derivedValues: readonly ReturnType<Runner['derivedValue']>[],
    private readonly derivedInputs: readonly (readonly number[])[],
    private readonly keyOf: readonly string[],
    private readonly shown: ReadonlyMap<string, ShownParts>,
    ending: number,
  ) {
    this.came = { to: 'ending', ending };
    this.refused = runner.refused.length === 0 ? [] : runner.refused.map(({ key }) => key);
    this.undrawn = new Set(runner.undrawn.slice(0, runner.undrawnCount).map(({ key }) => key));
  }

  isAsked({ planItem, slot }: ColumnGroup): boolean {
    return planItem === null || this.runner.isAsked(slot);
  }

  isPresented(key: string): boolean {
    return this.shown.has(key);
  }

  reasonOf(column: number): Unasked {
    return this.undrawn.size > 0 && this.undrawn.has(this.keyOf[column] ?? '')
      ? 'not_drawn'
      : 'not_applicable';
  }

  shownOf(key: string): ShownParts | null {
    return this.shown.get(key) ?? null;
  }

  derived(index: number): number | MissingReason {
    const { memory } = this.runner;
    const value = this.derivedValues[index]?.(memory) ?? null;
    if (value !== null) return value;
    return (this.derivedInputs[index] ?? []).some((slot) => this.runner.isAsked(slot))
      ? 'no_answer'
      : 'not_applicable';
  }
}

export interface SlowInput {
  readonly answers: Answers;
  readonly given: Answers;
  readonly draws: Readonly<Record<string, readonly string[]>>;
  readonly full: readonly string[];
  readonly stoppedAt?: string;
  readonly timedOut?: readonly string[];
}

/** Walks with a record; the input must fit the questionnaire. */
export function slowExpected(plan: Plan, columns: readonly Column[], input: SlowInput): Expected {
  const result = walk(plan, { ...input, lenient: true });
  if (!result.ok) throw new Error(result.problem);
  const { steps, ending } = result.walk;
  const cells = codedCells(plan, result.walk, input.answers, columns);
  const presented = new Map(steps.map((step) => [step.key, step]));
  const parts = new Set<string>(
    steps.flatMap(({ parts: of, pass }) => of.map(({ name }) => passKey(name, pass))),
  );
  const last = steps.at(-1)?.key ?? '';
  return {
    came: ending === null ? { to: 'stop', at: last } : { to: 'ending', ending },
    isAsked: ({ planItem, key }) => planItem === null || parts.has(key),
    isPresented: (key) => presented.has(key),
    reasonOf: (column) => {
      const reason = cells[column]?.reason;
      return reason === 'not_drawn' || reason === 'not_reached' ? reason : 'not_applicable';
    },
    shownOf: (key) => presented.get(key)?.shown ?? null,
    derived: (_, column) => {
      const cell = cells[column];
      return cell?.reason ?? (typeof cell?.value === 'number' ? cell.value : 'not_applicable');
    },
    refused: steps
      .filter(({ key, faults }) => key !== last && faults.some(({ kind }) => kind === 'hard'))
      .map(({ key }) => key),
  };
}

/** What the runner asks of a row: answers by slot, who is drawn, which quotas are taken for full. */
export interface RowAnswers {
  readonly values: readonly (Value | null)[];
  isDrawn(item: RunnerItem): boolean;
  isFull(quota: string): boolean;
}

/** Runs a row and keeps what of each presented item was on show. */
export function runRow(runner: Runner, row: RowAnswers, shown: Map<string, ShownParts>): number {
  shown.clear();
  for (let slot = 0; slot < runner.slots.size; slot += 1) runner.put(slot, row.values[slot] ?? null);
  return runner.run({
    isDrawn: (item) => row.isDrawn(item),
    isFull: (quota) => row.isFull(quota),
    meets: (item, of) => {
      shown.set(item.key, of);
      return false;
    },
  });
}
