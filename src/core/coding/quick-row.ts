/**
 * Coded rows of many respondents, after a finished walk of `routing/runner.ts`: the row that `row.ts` gives, without
 * the reasons of its cells.
 */
import { ASKED, type Picks } from '../condition/memory';
import { nameInKey, passKey } from '../document/addresses';
import { hasRows } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { MissingReason, Value } from '../document/types';
import type { Variable } from '../document/variables';
import { ITEM, ITEM_WIDTH } from '../routing/item-table';
import type { Plan } from '../routing/plan';
import type { Runner } from '../routing/runner';
import type { RunnerItem } from '../routing/runner-program';
import { columnsOf, type Column, type ValueColumn } from './columns';
import { missingCode } from './row';

type RowCells = (number | string)[];

/** How the answer in a slot is written: not at all, as the only cell, as a cell for each option, or some other way. */
const NOWHERE = 0;
const ONE_CELL = 1;
const PICKS = 2;
const OTHERWISE = 3;

/** Columns of one variable in one pass. */
interface VariableColumns {
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
  /** By slot: how it is written, from which column on, of which list, and what stands for no answer. */
  private readonly ways: Uint8Array;
  private readonly first: Int32Array;
  private readonly lists: (Picks | null)[];
  private readonly blankCode: number[];
  /** By item: the column of its remark; -1 where there is none. */
  private readonly remarkOf: Int32Array;
  private readonly derived: {
    readonly index: number;
    readonly value: ReturnType<Runner['derivedValue']>;
    readonly inputs: readonly number[];
  }[] = [];
  private readonly ending: number;
  private readonly given: readonly number[];

  constructor(
    private readonly plan: Plan,
    private readonly runner: Runner,
  ) {
    const { document } = plan;
    this.columns = columnsOf(plan);
    this.ending = this.columns.length - 1;
    const remarks = new Map<string, number>();
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
      if (column.kind === 'remark') remarks.set(passKey(column.source.variable, pass), index);
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
        columns,
        noAnswer: code(first.column, 'no_answer'),
        notDrawn: code(first.column, 'not_drawn'),
        missing: new Set(
          optionsOf(first.column.source.answer).flatMap((o) => (o.missing === undefined ? [] : [o.code])),
        ),
      };
    }
    const slots = [...runner.slots.values()];
    this.lists = slots.map((slot) => runner.picksIn(slot));
    this.ways = Uint8Array.from(slots, (slot) => wayOf(this.targets[slot], this.lists[slot] ?? null));
    this.first = Int32Array.from(slots, (slot) => this.targets[slot]?.columns[0]?.index ?? -1);
    this.blankCode = slots.map((slot) => this.targets[slot]?.noAnswer ?? 0);
    this.remarkOf = Int32Array.from(runner.items, ({ key }) => remarks.get(key) ?? -1);
    this.given = (document.given ?? []).map(({ name }) => runner.slots.get(name.toLowerCase()) ?? -1);
  }

  /**
   * The row of the respondent walked last, who came to an ending. `textOf` gives what was written to specify or remark, by
   * the name it is answered under.
   */
  row(ending: number, textOf: (name: string) => string = () => ''): RowCells {
    const { runner } = this;
    const row = this.blank.slice();
    const { seen } = runner.memory;
    for (const slot of this.given) this.write(row, slot, textOf);
    for (let n = 0; n < runner.undrawnCount; n += 1) {
      for (const { slot } of runner.undrawn[n]?.parts ?? []) {
        const target = this.targets[slot];
        for (const { index, column } of target?.columns ?? [])
          if (column.kind !== 'specify') row[index] = target?.notDrawn ?? 0;
      }
    }
    const { rows, slots } = runner.table;
    for (let n = 0; n < runner.count; n += 1) {
      const at = runner.presented[n] as number;
      const end = rows[at * ITEM_WIDTH + ITEM.partsEnd] as number;
      for (let p = rows[at * ITEM_WIDTH + ITEM.parts] as number; p < end; p += 1) {
        const slot = slots[p] as number;
        if (seen[slot] === ASKED) this.write(row, slot, textOf);
      }
      const remark = this.remarkOf[at] as number;
      if (remark >= 0) {
        const { planItem, pass } = runner.items[at] as RunnerItem;
        row[remark] = textOf(passKey(`${planItem.item.name}_comment`, pass));
      }
    }
    for (const { index, value, inputs } of this.derived) {
      const found = value(runner.memory);
      if (found !== null) row[index] = found;
      else if (inputs.some((slot) => seen[slot] === ASKED))
        row[index] = missingCode(this.plan.document, null, 'no_answer');
    }
    row[this.ending] = this.plan.endings[ending]?.ending.id ?? '';
    return row;
  }

  private write(row: RowCells, slot: number, textOf: (name: string) => string): void {
    const { codes, numbers, values, picks } = this.runner.memory;
    const code = codes[slot] as number;
    const first = this.first[slot] as number;
    switch (this.ways[slot]) {
      case ONE_CELL: {
        const value = Number.isNaN(code) ? null : (values[slot] ?? null);
        row[first] = typeof value === 'object' ? (this.blankCode[slot] ?? 0) : value;
        return;
      }
      case PICKS: {
        const list = this.lists[slot] as Picks;
        const end = list.codes.length;
        if (Number.isNaN(numbers[slot])) break;
        for (let bit = 0; bit < end; bit += 1)
          row[first + bit] = ((picks[list.word + (bit >> 5)] as number) >> (bit & 31)) & 1;
        return;
      }
      case NOWHERE:
        return;
      default:
    }
    const target = this.targets[slot];
    if (target !== undefined)
      writeOtherwise(row, target, Number.isNaN(code) ? null : (values[slot] ?? null), textOf);
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

function wayOf(target: VariableColumns | undefined, list: Picks | null): number {
  if (target === undefined) return NOWHERE;
  const { columns } = target;
  const [first] = columns;
  if (columns.length === 1 && first?.column.kind === 'value') return ONE_CELL;
  const inOrder = columns.every(
    ({ index, column }, n) =>
      column.kind === 'pick' && index === (first?.index ?? 0) + n && column.code === list?.codes[n],
  );
  return inOrder && columns.length === list?.codes.length ? PICKS : OTHERWISE;
}

/** Picks among which is a don't-know, places, and what is specified beside an option. */
function writeOtherwise(
  row: RowCells,
  { columns, noAnswer, missing }: VariableColumns,
  value: Value | null,
  textOf: (name: string) => string,
): void {
  for (const { index, column } of columns) {
    const { kind, code } = column;
    if (kind === 'specify') {
      const picked = typeof value === 'object' ? value?.includes(code) === true : value === code;
      const pass = column.source.of === 'item' ? column.source.pass : null;
      row[index] = picked ? textOf(passKey(`${column.source.variable}_${code}_text`, pass)) : '';
    } else if (value === null) row[index] = noAnswer;
    else if (typeof value !== 'object') row[index] = value;
    else if (kind === 'place') row[index] = value[code - 1] ?? noAnswer;
    else if (value.includes(code)) row[index] = 1;
    else {
      const [first = NaN] = value;
      row[index] = missing.has(first) ? first : 0;
    }
  }
}
