/**
 * Coded rows of many respondents, after a finished walk of `routing/runner.ts`: the row that `row.ts` gives, without
 * the reasons of its cells.
 */
import { nameInKey, passKey } from '../document/addresses';
import { hasRows } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { MissingReason, Value } from '../document/types';
import type { Variable } from '../document/variables';
import type { Plan } from '../routing/plan';
import type { Runner } from '../routing/runner';
import type { RunnerItem, RunnerPart } from '../routing/runner-program';
import { columnsOf, type Column, type ValueColumn } from './columns';
import { missingCode } from './row';

type RowCells = (number | string)[];

/** Columns of one variable in one pass. */
interface VariableColumns {
  /** The only column, where the value is the cell; -1 otherwise. */
  readonly only: number;
  readonly columns: readonly { readonly index: number; readonly column: ValueColumn }[];
  readonly noAnswer: number;
  readonly notDrawn: number;
  /** Codes with `missing`, which the columns of other options then carry. */
  readonly missing: ReadonlySet<number>;
}

export class QuickCoder {
  readonly columns: readonly Column[];
  /** Everything off the route; copied for each respondent. */
  private readonly blank: RowCells;
  private readonly targets: (VariableColumns | undefined)[] = [];
  private readonly remarks = new Map<string, number>();
  private readonly derived: {
    readonly index: number;
    readonly value: ReturnType<Runner['derivedValue']>;
    readonly inputs: readonly number[];
  }[] = [];
  private readonly ending: number;
  private readonly givenTargets: readonly (VariableColumns | undefined)[];

  constructor(
    private readonly plan: Plan,
    private readonly runner: Runner,
  ) {
    const { document } = plan;
    this.columns = columnsOf(plan);
    this.ending = this.columns.length - 1;
    const byKey = new Map<string, { index: number; column: ValueColumn }[]>();
    const code = (column: ValueColumn, reason: MissingReason) =>
      missingCode(document, column.source.of === 'item' ? column.source.question : null, reason);
    this.blank = this.columns.map((column, index) => {
      if (column.kind === 'ending') return '';
      if (column.kind === 'derived') {
        const inputs = plan.derived[column.index]?.inputs ?? [];
        this.derived.push({
          index,
          value: runner.derivedValue(column.index),
          inputs: inputs.flatMap(({ variable }) => this.slotsOf(variable)),
        });
        return missingCode(document, null, 'not_applicable');
      }
      const pass = column.source.of === 'item' ? column.source.pass : null;
      if (column.kind === 'remark') this.remarks.set(passKey(column.source.variable, pass), index);
      else {
        const key = passKey(column.source.variable.toLowerCase(), pass);
        byKey.set(key, [...(byKey.get(key) ?? []), { index, column }]);
      }
      return column.kind === 'remark' || column.kind === 'specify' ? '' : code(column, 'not_applicable');
    });
    for (const [key, columns] of byKey) {
      const [first] = columns;
      const slot = runner.slots.get(key);
      if (first === undefined || slot === undefined) continue;
      this.targets[slot] = {
        only: columns.length === 1 && first.column.kind === 'value' ? first.index : -1,
        columns,
        noAnswer: code(first.column, 'no_answer'),
        notDrawn: code(first.column, 'not_drawn'),
        missing: new Set(
          optionsOf(first.column.source.answer).flatMap((o) => (o.missing === undefined ? [] : [o.code])),
        ),
      };
    }
    this.givenTargets = (document.given ?? []).map(
      ({ name }) => this.targets[runner.slots.get(name.toLowerCase()) ?? -1],
    );
  }

  /**
   * The row of the respondent walked last, who came to an ending. `valueOf` gives answers as they were given;
   * `textOf` what was written to specify or remark, by the name it is answered under.
   */
  row(
    ending: number,
    given: readonly (Value | null)[],
    valueOf: (item: RunnerItem, part: RunnerPart, index: number) => Value | null,
    textOf: (name: string) => string = () => '',
  ): RowCells {
    const { runner } = this;
    const row = this.blank.slice();
    this.givenTargets.forEach((target, n) => {
      if (target !== undefined) write(row, target, given[n] ?? null, textOf);
    });
    for (let n = 0; n < runner.undrawnCount; n += 1) {
      for (const { slot } of runner.undrawn[n]?.parts ?? []) {
        const target = this.targets[slot];
        for (const { index, column } of target?.columns ?? [])
          if (column.kind !== 'specify') row[index] = target?.notDrawn ?? 0;
      }
    }
    for (let n = 0; n < runner.count; n += 1) {
      const item = runner.presented[n] as RunnerItem;
      for (let p = 0; p < item.parts.length; p += 1) {
        const part = item.parts[p] as RunnerPart;
        if (runner.memory.asked[part.slot] === 0) continue;
        const target = this.targets[part.slot];
        if (target !== undefined) write(row, target, valueOf(item, part, p), textOf);
      }
      const remark = this.remarks.get(item.key);
      if (remark !== undefined)
        row[remark] = textOf(passKey(`${item.planItem.item.name}_comment`, item.pass));
    }
    for (const { index, value, inputs } of this.derived) {
      const found = value(runner.memory);
      if (found !== null) row[index] = found;
      else if (inputs.some((slot) => runner.memory.asked[slot] === 1))
        row[index] = missingCode(this.plan.document, null, 'no_answer');
    }
    row[this.ending] = this.plan.endings[ending]?.ending.id ?? '';
    return row;
  }

  /** In every pass; of a grid as a whole, of every row. */
  private slotsOf(variable: Variable): number[] {
    const rows =
      variable.of === 'question' && hasRows(variable.question.answer)
        ? variable.question.answer.rows.map(({ name }) => name)
        : [variable.name];
    return [...this.runner.slots].flatMap(([key, slot]) =>
      rows.some((name) => nameInKey(key) === name.toLowerCase()) ? [slot] : [],
    );
  }
}

function write(
  row: RowCells,
  target: VariableColumns,
  value: Value | null,
  textOf: (name: string) => string,
): void {
  if (target.only >= 0) {
    row[target.only] = value === null || value === '' || typeof value === 'object' ? target.noAnswer : value;
    return;
  }
  const { columns, noAnswer, missing } = target;
  const blank = value === null || value === '' || (typeof value === 'object' && value.length === 0);
  for (const { index, column } of columns) {
    const { kind, code } = column;
    if (kind === 'specify') {
      const picked = typeof value === 'object' ? value?.includes(code) === true : value === code;
      const pass = column.source.of === 'item' ? column.source.pass : null;
      row[index] = picked ? textOf(passKey(`${column.source.variable}_${code}_text`, pass)) : '';
    } else if (blank) row[index] = noAnswer;
    else if (typeof value !== 'object') row[index] = value;
    else if (kind === 'place') row[index] = value[code - 1] ?? noAnswer;
    else if (value.includes(code)) row[index] = 1;
    else row[index] = missing.size > 0 && missing.has(value[0] ?? NaN) ? (value[0] ?? 0) : 0;
  }
}
