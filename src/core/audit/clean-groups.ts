/** The variables of a file's columns as the judge of clean rows has them: what every row needs of them is worked out once. */
import { picksMany } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import { pickLimits } from '../routing/answers';
import type { ColumnGroup } from './groups';
import type { AuditLayout } from './layout';
import type { CellWritten } from './types';

/** One variable in one pass, with what is worked out of it once. */
export interface CleanGroup {
  readonly group: ColumnGroup;
  readonly slot: number;
  /** Of the item that asks for it, in `RowRun`; -1 of a given value. */
  readonly item: number;
  readonly kind: ColumnGroup['kind'];
  /** By option or place: the column, and the code. */
  readonly columns: Int32Array;
  readonly codes: readonly number[];
  readonly isAnyThere: boolean;
  /** What is written in each column of those who leave it blank, where blanks are coded. */
  readonly noAnswer: readonly CellWritten[];
  readonly details: ColumnGroup['details'];
  /** How many may be picked, and which exclude others; null where that depends on what is shown, or is no list. */
  readonly limits: { readonly least: number; readonly most: number } | null;
  readonly alone: ReadonlySet<number>;
}

/** By group: what every row needs of it, in flat arrays. */
export interface GroupTable {
  readonly count: number;
  readonly slots: Int32Array;
  readonly items: Int32Array;
  /** The first column. */
  readonly columns: Int32Array;
  readonly isList: Uint8Array;
  /** One column, nothing to specify, and options that everybody sees. */
  readonly isPlain: Uint8Array;
}

export function tableOf(groups: readonly CleanGroup[]): GroupTable {
  return {
    count: groups.length,
    slots: Int32Array.from(groups, ({ slot }) => slot),
    items: Int32Array.from(groups, ({ item }) => item),
    columns: Int32Array.from(groups, ({ columns }) => columns[0] ?? -1),
    isList: Uint8Array.from(groups, ({ kind }) => Number(kind !== 'value')),
    isPlain: Uint8Array.from(groups, ({ kind, details, group }) =>
      Number(kind === 'value' && details.length === 0 && !group.hasConditions),
    ),
  };
}

export function cleanGroup(group: ColumnGroup, layout: AuditLayout): CleanGroup {
  const { answer, columns, hasConditions, kind } = group;
  const everything = { options: optionsOf(answer).map(() => true), rows: [] };
  return {
    group,
    slot: group.slot,
    item: group.planItem === null ? -1 : layout.rowRun.itemAt(group.passKey),
    kind,
    columns: Int32Array.from(columns, ({ index }) => index),
    codes: columns.map(({ code }) => code),
    isAnyThere: columns.some(({ index }) => layout.isThere[index]),
    noAnswer: columns.map(({ index }) => ({ column: index, value: group.codeOf('no_answer') })),
    details: group.details,
    limits: hasConditions || !picksMany(answer) ? null : pickLimits(answer, everything),
    alone: new Set(
      optionsOf(answer).flatMap((o) => (o.exclusive || o.missing !== undefined ? [o.code] : [])),
    ),
  };
}
