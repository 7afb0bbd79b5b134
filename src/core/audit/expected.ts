/**
 * What the routing says of every column, given the answers of a row: asked, or the reason why not.
 *
 * Rows of people who came to an ending are walked by the fast runner; those who stopped part-way, or whose time ran
 * out, by the walk that keeps a record.
 */
import type { Column } from '../coding/columns';
import { codedCells } from '../coding/row';
import { passKey } from '../document/addresses';
import type { Answers, MissingReason } from '../document/types';
import type { Unasked } from '../document/vocabularies';
import type { ShownParts } from '../routing/answers';
import type { Plan } from '../routing/plan';
import { walk } from '../routing/walk';
import type { ColumnGroup } from './groups';
import type { AuditLayout } from './layout';
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

/** After a run that came to an ending. */
export class QuickExpected implements Expected {
  readonly came: Came;
  readonly refused: readonly string[];

  constructor(
    private readonly layout: AuditLayout,
    ending: number,
  ) {
    const { refused } = layout.runner;
    this.came = { to: 'ending', ending };
    this.refused = refused.length === 0 ? [] : refused.map(({ key }) => key);
  }

  isAsked({ planItem, slot }: ColumnGroup): boolean {
    return planItem === null || this.layout.runner.isAsked(slot);
  }

  isPresented(key: string): boolean {
    const { rowRun } = this.layout;
    return rowRun.presented[rowRun.itemAt(key)] === 1;
  }

  reasonOf(column: number): Unasked {
    const { runner, rowRun, itemOf } = this.layout;
    if (runner.undrawnCount === 0) return 'not_applicable';
    return rowRun.undrawn[itemOf[column] ?? -1] === 1 ? 'not_drawn' : 'not_applicable';
  }

  shownOf(key: string): ShownParts | null {
    const { rowRun } = this.layout;
    return rowRun.shownAt(rowRun.itemAt(key));
  }

  derived(index: number): number | MissingReason {
    const { layout } = this;
    const value = layout.derivedValues[index]?.(layout.runner.memory) ?? null;
    if (value !== null) return value;
    return layout.isFromAsked(index) ? 'no_answer' : 'not_applicable';
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
