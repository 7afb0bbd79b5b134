/** Rows of data as they are tabulated: each cell read once, by what its column can hold. */
import { answerOf, groupsOf, type ColumnGroup } from '../audit/groups';
import { readerOf, type CellReading } from '../audit/readings';
import { columnsOf, type Column } from '../coding/columns';
import type { Reading as Known } from '../condition/evaluate';
import { passKey, readPassKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import { isMissingAnswer, normalValue } from '../routing/answers';
import type { Plan } from '../routing/plan';
import { PlanEnvironment } from '../routing/readings';
import { Runner } from '../routing/runner';

export class Dataset {
  readonly columns: readonly Column[];
  readonly count: number;
  private readonly readings: readonly (readonly CellReading[])[];
  private readonly groups: readonly ColumnGroup[];

  /** Rows in the order of `columnsOf`. */
  constructor(
    private readonly plan: Plan,
    rows: readonly (readonly (string | number)[])[],
  ) {
    this.columns = columnsOf(plan);
    const readers = this.columns.map((column) => readerOf(plan, column));
    this.readings = rows.map((row) => readers.map((read, index) => read(String(row[index] ?? ''))));
    this.count = rows.length;
    this.groups = groupsOf(plan, this.columns, new Runner(plan));
  }

  reading(row: number, column: number): CellReading {
    return this.readings[row]?.[column] ?? { kind: 'blank' };
  }

  /** What a condition sees of a row once its interview is over. */
  environmentOf(row: number): PlanEnvironment {
    const { plan } = this;
    const cells = this.readings[row] ?? [];
    const known = new Map<string, Known>();
    const begun = new Map<number, number>();
    for (const group of this.groups) {
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
