/** The item list as a workbook. */
import type { Questionnaire } from '../../document/types';
import { ITEM_COLUMN_NAMES, type ItemColumn } from '../../exchange/items/columns';
import { itemRows } from '../../exchange/items/write-items';
import { workbook } from './workbook';

/** In signs; where nothing is said, `OTHERWISE`. */
const WIDTHS: Partial<Record<ItemColumn, number>> = {
  section: 22,
  name: 18,
  text: 60,
  note: 30,
  instruction: 30,
  options: 50,
  rows: 40,
  askIf: 30,
  skips: 34,
  label: 26,
};
const OTHERWISE = 12;

export async function itemsWorkbook(document: Questionnaire, version: string): Promise<Uint8Array> {
  const [head = [], ...rows] = itemRows(document);
  return workbook(document.title, version, [
    {
      name: 'Items',
      head: head.map(String),
      widths: ITEM_COLUMN_NAMES.map((column) => WIDTHS[column] ?? OTHERWISE),
      rows,
    },
  ]);
}
