/** One row walked and judged under an assumption about what it does not say. */
import { driversOf, type Drivers } from '../analysis';
import { nameInKey, passKey, readPassKey } from '../document/addresses';
import type { Answers, Value } from '../document/types';
import { drawKey, questionIndices } from '../routing/draws';
import type { Plan, PlanSection } from '../routing/plan';
import type { RunnerItem } from '../routing/runner-program';
import { asManyAsDrawn, drawIn, type DrawFound, type DrawnState } from './draw-found';
import { QuickExpected, slowExpected, type Expected } from './expected';
import { answerOf, anyAnswer, type ColumnGroup } from './groups';
import { judgeCells, type Judged } from './judge-cells';
import type { AuditLayout } from './layout';
import { BLANK, type CellReading } from './readings';
import type { AuditOptions } from './types';

/** What is taken for granted where a row does not say. */
export interface Assumed {
  readonly values: ReadonlyMap<number, Value | null>;
  readonly quotas: ReadonlyMap<string, boolean>;
  /** Where the respondent stopped; null: at the last question that holds anything. */
  readonly stop: string | null;
}

export const NOTHING_ASSUMED: Assumed = { values: new Map(), quotas: new Map(), stop: null };

/** A row under one assumption. */
export interface Trial {
  readonly assumed: Assumed;
  readonly judged: Judged;
  readonly expected: Expected;
  readonly row: AuditRow;
  /** Problems, less one for each answer that is not known anyway. */
  readonly cost: number;
  readonly draws: ReadonlyMap<string, DrawFound>;
  /** What else could be assumed: answers not known that steer, quotas that were met. */
  readonly open: readonly OpenPoint[];
}

export type OpenPoint =
  | { readonly of: 'answer'; readonly group: ColumnGroup }
  | { readonly of: 'quota'; readonly id: string }
  /** Statements shown after the last question that holds anything: somebody may have stopped at one of them. */
  | { readonly of: 'stop'; readonly at: readonly string[] };

export interface AuditRow {
  readonly readings: readonly CellReading[];
  readonly texts: readonly string[];
  /** By slot. */
  readonly values: readonly (Value | null)[];
  readonly touched: ReadonlySet<string>;
  /** Where the row says it ended; null where it does not, or says that it stopped. */
  readonly statesEnding: boolean;
}

const NONE: ReadonlySet<string> = new Set();

/** Rows tried under assumptions, one after the other, by one runner. */
export class RowTrials {
  private readonly plan: Plan;
  private readonly drivers: Drivers;
  private readonly byItem = new Map<string, ColumnGroup[]>();
  private readonly timed: readonly PlanSection[];

  constructor(
    private readonly layout: AuditLayout,
    private readonly options: AuditOptions = {},
  ) {
    const { plan, groups } = layout;
    this.plan = plan;
    this.drivers = driversOf(plan);
    for (const group of groups)
      this.byItem.set(group.passKey, [...(this.byItem.get(group.passKey) ?? []), group]);
    this.timed = plan.sections.filter(({ section }) => section.timeLimit !== undefined);
  }

  read(texts: readonly string[]): AuditRow {
    const readings = this.layout.readers.map((read, n) => read(texts[n] ?? ''));
    const values: (Value | null)[] = [];
    const touched = new Set<string>();
    for (const group of this.layout.groups) {
      const answer = answerOf(group, readings);
      values[group.slot] = answer.value;
      if (answer.touched) touched.add(group.passKey);
    }
    const ending = readings.at(-1) ?? BLANK;
    return {
      readings,
      texts,
      values,
      touched,
      statesEnding: ending.kind === 'value' || ending.kind === 'wrong',
    };
  }

  /** What its answers steer; undefined for a variable that steers nothing. */
  driverOf({ key }: ColumnGroup) {
    return this.drivers.byKey.get(nameInKey(key).toLowerCase());
  }

  attempt(row: AuditRow, assumed: Assumed): Trial {
    const { plan, layout } = this;
    this.put(row, assumed);
    const draws = new Map<string, DrawFound>();
    const quotasMet = new Set<string>();
    const ending = layout.rowRun.run({
      isDrawn: (item) => this.drawOf(row, item, draws).drawn.has(item.planItem.index),
      isFull: (id) => {
        quotasMet.add(id);
        return assumed.quotas.get(id) ?? false;
      },
    });
    const last = row.statesEnding ? null : this.stopOf(row);
    const stop = last === null ? null : (assumed.stop ?? last);
    const laterStops = last === null || assumed.stop !== null ? [] : this.statementsAfter(last);
    const timedOut = row.statesEnding ? this.timedOutIn(row) : [];
    const expected =
      stop === null && timedOut.length === 0
        ? new QuickExpected(layout, ending)
        : slowExpected(plan, layout.columns, {
            ...this.slowInput(row, assumed, draws),
            ...(stop === null ? {} : { stoppedAt: stop }),
            timedOut,
          });
    const stopped = expected.came.to === 'stop' ? expected.came.at : null;
    const left = [...draws.values()].filter(({ section, pass }) => !isAhead(plan, section, pass, stopped));
    const wrongDraws = left.filter(({ isRightNumber }) => !isRightNumber);
    const unclear = left.some(({ isUnclear }) => isUnclear)
      ? new Set(left.filter(({ isUnclear }) => isUnclear).flatMap(keysOf))
      : NONE;
    const judged = judgeCells(layout, row.readings, expected, this.options, unclear);
    for (const draw of wrongDraws) {
      const column = this.drawColumn(row, draw);
      if (column >= 0) judged.problems.push({ problem: 'wrong-number-drawn', column, unknown: null });
    }
    // A list and not a set: there are few, and a set of objects is slow to make.
    const unknown: ColumnGroup[] = [];
    let known = 0;
    for (const { unknown: group } of judged.problems) {
      if (group === null) known += 1;
      else if (!unknown.includes(group)) unknown.push(group);
    }
    const open = this.openPoints([...unknown, ...judged.absent], laterStops, quotasMet, assumed);
    // Only what goes missing under an assumption counts against it, not what is missing whatever is assumed.
    const missing = unknown.filter(({ slot }) => !assumed.values.has(slot)).length;
    const cost = known + missing;
    return { assumed, judged, expected, row, cost, draws, open };
  }

  private put({ values }: AuditRow, assumed: Assumed): void {
    const { runner } = this.layout;
    runner.clear();
    values.forEach((value, slot) => {
      if (value !== null) runner.put(slot, value);
    });
    for (const [slot, value] of assumed.values) runner.put(slot, value);
  }

  /** What is still to be assumed: answers that are not known and steer something, a later stop, quotas. */
  private openPoints(
    unanswered: readonly ColumnGroup[],
    laterStops: readonly string[],
    quotasMet: ReadonlySet<string>,
    assumed: Assumed,
  ): OpenPoint[] {
    const answers = unanswered.filter(
      (group) => !assumed.values.has(group.slot) && this.driverOf(group) !== undefined,
    );
    const quotas = [...quotasMet].filter((id) => !assumed.quotas.has(id));
    return [
      ...answers.map((group): OpenPoint => ({ of: 'answer', group })),
      ...(laterStops.length > 0 ? [{ of: 'stop', at: laterStops } as const] : []),
      ...quotas.map((id): OpenPoint => ({ of: 'quota', id })),
    ];
  }

  /** Where somebody stopped who came to no ending: the last item presented that holds anything; null if they did not. */
  private stopOf(row: AuditRow): string | null {
    const presented = this.layout.runner.itemsPresented();
    let after = false;
    for (const item of presented.toReversed()) {
      if (item.parts.length === 0) continue;
      if (row.touched.has(item.key) || item === presented[0]) {
        const coded = row.readings.at(-1)?.kind === 'reason';
        return after || coded ? item.key : null;
      }
      after = true;
    }
    return presented[0]?.key ?? null;
  }

  /** Statements presented after an item in the last run, up to the next question. */
  private statementsAfter(key: string): string[] {
    const presented = this.layout.runner.itemsPresented();
    const from = presented.findIndex((item) => item.key === key) + 1;
    const found: string[] = [];
    for (const item of presented.slice(from)) {
      if (item.parts.length > 0) break;
      found.push(item.key);
    }
    return found;
  }

  /** Items at which the time of their section ran out: the last that holds anything before what was not reached. */
  private timedOutIn(row: AuditRow): string[] {
    const { rowRun } = this.layout;
    const found: string[] = [];
    for (const section of this.timed) {
      const passes =
        section.repeat === null ? [null] : Array.from({ length: section.repeat.max }, (_, p) => p + 1);
      for (const pass of passes) {
        const groups = section.items.flatMap(({ item }) => this.byItem.get(passKey(item.name, pass)) ?? []);
        const unreached = ({ columns }: ColumnGroup) =>
          columns.some(({ index }) => {
            const reading = row.readings[index];
            return reading?.kind === 'reason' && reading.reason === 'not_reached';
          });
        if (!groups.some(unreached)) continue;
        const last = groups.findLast(
          ({ passKey: key }) => row.touched.has(key) && rowRun.presented[rowRun.itemAt(key)] === 1,
        );
        if (last !== undefined) found.push(last.passKey);
      }
    }
    return found;
  }

  private drawOf(
    row: AuditRow,
    { planItem, pass, drawKey: key }: RunnerItem,
    known: Map<string, DrawFound>,
  ): DrawFound {
    const found = known.get(key ?? '');
    if (found !== undefined) return found;
    const section = this.plan.sections[planItem.section] as PlanSection;
    const draw = drawIn(section, pass ?? 1, ({ item }) => this.stateIn(row, passKey(item.name, pass)));
    known.set(key ?? '', draw);
    return draw;
  }

  private stateIn(row: AuditRow, key: string): DrawnState {
    if (row.touched.has(key)) return 'touched';
    let state: DrawnState = 'blank';
    for (const { columns } of this.byItem.get(key) ?? []) {
      for (const { index } of columns) {
        const cell = row.readings[index] ?? BLANK;
        if (cell.kind === 'blank') continue;
        if (cell.kind !== 'reason' || cell.reason !== 'not_applicable') return 'unasked';
        state = 'not_applicable';
      }
    }
    return state;
  }

  /** The column that a wrong number drawn is told of: the first answer too many, or the first place left blank. */
  private drawColumn(row: AuditRow, { section, pass, drawn }: DrawFound): number {
    const key = (index: number) =>
      passKey(section.items[index]?.item.name ?? '', section.repeat === null ? null : pass);
    const many = drawn.size > (section.section.draw ?? 0);
    const questions = questionIndices(section);
    const at = many
      ? [...drawn].sort((a, b) => a - b)[section.section.draw ?? 0]
      : (questions.find((index) => !row.touched.has(key(index))) ?? questions[0]);
    return this.byItem.get(key(at ?? -1))?.[0]?.columns[0]?.index ?? -1;
  }

  /** The row as the walk that keeps a record takes it. */
  slowInput(row: AuditRow, assumed: Assumed, draws: ReadonlyMap<string, DrawFound>) {
    const answers: Record<string, Value | null> = {};
    const given: Record<string, Value | null> = {};
    for (const group of this.layout.groups) {
      const value = assumed.values.has(group.slot)
        ? (assumed.values.get(group.slot) ?? null)
        : (row.values[group.slot] ?? null);
      if (group.planItem === null) given[group.key] = value ?? anyAnswer(group.answer);
      else if (value !== null) answers[group.key] = value;
      for (const { index, code } of group.details) {
        const { name, pass } = readPassKey(group.key);
        const text = row.texts[index] ?? '';
        if (text !== '') answers[passKey(`${name}_${code}_text`, pass)] = text;
      }
    }
    const named: Record<string, string[]> = {};
    for (const draw of draws.values()) {
      const { section, pass } = draw;
      named[drawKey(section, pass)] = asManyAsDrawn(draw).map(
        (index) => section.items[index]?.item.name ?? '',
      );
    }
    const full = [...assumed.quotas].flatMap(([id, isFull]) => (isFull ? [id] : []));
    return { answers: answers as Answers, given: given as Answers, draws: named, full };
  }
}

function keysOf({ section, pass }: DrawFound): string[] {
  return section.items.map(({ item }) => passKey(item.name, section.repeat === null ? null : pass));
}

/** Whether somebody who stopped had not yet left a pass of a section. */
function isAhead(plan: Plan, section: PlanSection, pass: number, stopped: string | null): boolean {
  if (stopped === null) return false;
  const { name, pass: at } = readPassKey(stopped);
  const stoppedIn = plan.sections.find(({ items }) => items.some(({ item }) => item.name === name));
  if (stoppedIn === undefined || stoppedIn.index !== section.index)
    return stoppedIn !== undefined && stoppedIn.index < section.index;
  return at === null || at <= pass;
}
