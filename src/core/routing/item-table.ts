/**
 * What most items need of their program, as one table of numbers: many respondents are walked through it row by row, and an
 * item as an object is looked at only where something rare is to be decided.
 */
import type { RunnerItem } from './runner-program';

/** Numbers of a row. */
export const ITEM = {
  marks: 0,
  /** An entry of the program's tests. */
  askIf: 1,
  /** The slot of its only part; -1 of a statement. */
  slot: 2,
  /** Its parts: indices in `slots`, the end not included. */
  parts: 3,
  partsEnd: 4,
} as const;
export const ITEM_WIDTH = 5;

/** Marks of an item. Drawn, with options or rows that not everybody sees, with hard checks, or with several parts: */
export const RARE = 1;
/** With quotas or skips. */
export const LEADS = 2;
export const REQUIRED = 4;

export interface ItemTable {
  readonly rows: Int32Array;
  /** By part: its slot. */
  readonly slots: Int32Array;
}

export function itemTable(items: readonly RunnerItem[]): ItemTable {
  const rows: number[] = [];
  const slots: number[] = [];
  for (const item of items) {
    const { parts, quotas, skips, hardChecks } = item;
    const rare =
      item.drawKey !== null || item.hasConditionalOptions || hardChecks.length > 0 || parts.length > 1;
    const leads = quotas.length + skips.length > 0;
    const marks = (rare ? RARE : 0) | (leads ? LEADS : 0) | (item.required ? REQUIRED : 0);
    rows.push(marks, item.askIf, parts[0]?.slot ?? -1, slots.length, slots.length + parts.length);
    slots.push(...parts.map(({ slot }) => slot));
  }
  return { rows: Int32Array.from(rows), slots: Int32Array.from(slots) };
}
