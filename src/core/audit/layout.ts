/**
 * A plan made ready for rows of one file: its columns with a reader each, put together by the variables they hold, and one
 * runner that walks a row after the other.
 */
import { columnsOf, type Column } from '../coding/columns';
import { nameInKey, passKey } from '../document/addresses';
import type { Plan } from '../routing/plan';
import { Runner } from '../routing/runner';
import { groupsOf, type ColumnGroup } from './groups';
import { readerOf, type CellReader } from './readings';
import { RowRun } from './row-run';

export class AuditLayout {
  readonly columns: readonly Column[];
  /** By column: whether the file has it. */
  readonly isThere: readonly boolean[];
  readonly readers: readonly CellReader[];
  readonly runner: Runner;
  readonly rowRun: RowRun;
  readonly groups: readonly ColumnGroup[];
  /** By column: where the item that asks for it is known in `rowRun`; -1 where none does. */
  readonly itemOf: Int32Array;
  /** Remarks: the column and the item's key. */
  readonly remarks: readonly { readonly index: number; readonly passKey: string }[];
  /** By derived variable: its value, and the slots that it is derived from. */
  readonly derivedValues: readonly ReturnType<Runner['derivedValue']>[];
  readonly derivedInputs: readonly (readonly number[])[];

  /** `isThere`: which columns of `columnsOf` the file has; all by default. */
  constructor(
    readonly plan: Plan,
    isThere?: readonly boolean[],
  ) {
    this.columns = columnsOf(plan);
    this.isThere = isThere ?? this.columns.map(() => true);
    this.readers = this.columns.map((column) => readerOf(plan, column));
    this.runner = new Runner(plan, true);
    this.rowRun = new RowRun(this.runner);
    this.groups = groupsOf(plan, this.columns, this.runner);
    const keyOf = this.columns.map((column) =>
      'source' in column && column.source.of === 'item'
        ? passKey(column.source.planItem.item.name, column.source.pass)
        : '',
    );
    this.itemOf = Int32Array.from(keyOf, (key) => this.rowRun.itemAt(key));
    this.remarks = this.columns.flatMap((column, index) =>
      column.kind === 'remark' ? [{ index, passKey: keyOf[index] ?? '' }] : [],
    );
    this.derivedValues = plan.derived.map((_, index) => this.runner.derivedValue(index));
    this.derivedInputs = plan.derived.map(({ inputs }) =>
      inputs.flatMap(({ variable }) =>
        this.groups
          .filter(
            ({ planItem, key, question }) =>
              planItem !== null && (nameInKey(key) === variable.name || question.name === variable.name),
          )
          .map(({ slot }) => slot),
      ),
    );
  }

  /** Of a derived variable without a value, after a run: whether anything that it is derived from was asked. */
  isFromAsked(index: number): boolean {
    return (this.derivedInputs[index] ?? []).some((slot) => this.runner.isAsked(slot));
  }
}
