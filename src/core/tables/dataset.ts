/** Rows of data as they are tabulated: each different cell of a column read once, by what the column can hold. */
import { answerOf, groupsOf, type ColumnGroup } from '../audit/groups';
import { BLANK, readerOf, type CellReading } from '../audit/readings';
import { columnsOf, type Column } from '../coding/columns';
import type { Reading as Known } from '../condition/evaluate';
import { passKey, readPassKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import { isMissingAnswer, normalValue } from '../routing/answers';
import type { Plan } from '../routing/plan';
import { PlanEnvironment } from '../routing/readings';
import { Runner } from '../routing/runner';
import { CellTable, type CellColumn } from './cell-columns';

/** Rows that are alike in what they were put together by; `rows` of them, of which `row` is the first. */
export interface Alike {
  readonly row: number;
  readonly rows: number;
}

/** Pairs that are numbered in a flat list; more are looked up. */
const DENSE = 1 << 20;

export class Dataset {
  readonly columns: readonly Column[];
  readonly count: number;
  private readonly readings: readonly (readonly CellReading[])[];
  private readonly groups: readonly ColumnGroup[];

  /** Columns in the order of `columnsOf`. */
  constructor(
    private readonly plan: Plan,
    private readonly cells: readonly CellColumn[],
  ) {
    this.columns = columnsOf(plan);
    this.readings = this.columns.map((column, index) => {
      const read = readerOf(plan, column);
      return (cells[index]?.texts ?? []).map(read);
    });
    this.count = cells[0]?.ids.length ?? 0;
    this.groups = groupsOf(plan, this.columns, new Runner(plan));
  }

  /** Of rows in the order of `columnsOf`. */
  static ofRows(plan: Plan, rows: Iterable<readonly (string | number)[]>): Dataset {
    const places = columnsOf(plan).map((_, index) => index);
    const table = new CellTable(places.length);
    for (const row of rows) table.add(row, places);
    return new Dataset(plan, table.columns());
  }

  reading(row: number, column: number): CellReading {
    return this.readings[column]?.[this.cells[column]?.ids[row] ?? -1] ?? BLANK;
  }

  /**
   * Rows put together by what they hold in some columns: a number for each row, from 0, the same where all of those cells are
   * the same. `rows` in order; the numbers are parallel to them.
   */
  alikeIn(columns: readonly number[], rows: ArrayLike<number>): { of: Uint32Array; groups: Alike[] } {
    const of = new Uint32Array(rows.length);
    let different = 1;
    for (const column of columns) {
      const { ids, texts } = this.cells[column] ?? { ids: new Uint8Array(), texts: [] };
      // What came before and this cell together, numbered anew: few of all that could be are there.
      const width = texts.length;
      const known = different * width <= DENSE ? new Int32Array(different * width).fill(-1) : null;
      const others = new Map<number, number>();
      different = 0;
      for (let n = 0; n < rows.length; n += 1) {
        const both = (of[n] as number) * width + (ids[rows[n] as number] as number);
        let id = known === null ? (others.get(both) ?? -1) : (known[both] as number);
        if (id < 0) {
          id = different;
          different += 1;
          if (known === null) others.set(both, id);
          else known[both] = id;
        }
        of[n] = id;
      }
    }
    const first = new Uint32Array(different);
    const times = new Uint32Array(different);
    for (let n = rows.length - 1; n >= 0; n -= 1) {
      const id = of[n] as number;
      first[id] = rows[n] as number;
      times[id] = (times[id] as number) + 1;
    }
    const groups = Array.from({ length: rows.length === 0 ? 0 : different }, (_, id) => ({
      row: first[id] as number,
      rows: times[id] as number,
    }));
    return { of, groups };
  }

  /** Indices of the columns that hold a variable, in all of its passes, or any variable of its repeated section. */
  columnsFor(name: string): number[] {
    const wanted = name.toLowerCase();
    const own = this.groups.filter(({ key, passKey: item }) =>
      [key, item].some((each) => readPassKey(each).name.toLowerCase() === wanted),
    );
    const repeated = new Set(own.flatMap(({ planItem, pass }) => (pass === null ? [] : [planItem?.section])));
    return this.groups
      .filter((group) => own.includes(group) || repeated.has(group.planItem?.section))
      .flatMap(({ columns }) => columns.map(({ index }) => index));
  }

  /** What a condition sees of a row once its interview is over; of `columns` alone, where it reads no others. */
  environmentOf(row: number, columns?: ReadonlySet<number>): PlanEnvironment {
    const { plan } = this;
    const groups =
      columns === undefined
        ? this.groups
        : this.groups.filter(({ columns: own }) => columns.has(own[0]?.index ?? -1));
    const cells: CellReading[] = [];
    for (const { columns: own } of groups)
      for (const { index } of own) cells[index] = this.reading(row, index);
    const known = new Map<string, Known>();
    const begun = new Map<number, number>();
    for (const group of groups) {
      const { value, touched } = answerOf(group, cells);
      const { name, pass } = readPassKey(group.key);
      const presented = group.planItem !== null && touched;
      known.set(passKey(name.toLowerCase(), pass), {
        presented,
        value: value === null ? null : normalValue(group.answer, value),
        missing: value !== null && isMissingAnswer(optionsOf(group.answer), value),
      });
      if (!presented || group.planItem === null) continue;
      const { section } = group.planItem;
      begun.set(section, Math.max(begun.get(section) ?? 0, group.pass ?? 1));
      if (group.row === null) continue;
      const grid = group.passKey.toLowerCase();
      const before = known.get(grid);
      known.set(grid, { presented, value: before?.value ?? (value === null ? null : []), missing: false });
    }
    const store = { get: (key: string) => known.get(key), passesBegun: (s: number) => begun.get(s) ?? 0 };
    return new PlanEnvironment(plan, store, plan.sections.length, null);
  }
}
