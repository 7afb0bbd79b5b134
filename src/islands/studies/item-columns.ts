/** What people said columns of item lists mean, kept in this browser for the next list with such columns. */
import * as v from 'valibot';
import { ITEM_COLUMN_NAMES, type ItemColumn } from '../../core/exchange/items/columns';

const KEPT = 'jolly-fork item columns';
const Said = v.record(v.string(), v.nullable(v.picklist(ITEM_COLUMN_NAMES)));
export type SaidColumns = Readonly<Record<string, ItemColumn | null>>;

export function saidColumns(): SaidColumns {
  try {
    const read = v.safeParse(Said, JSON.parse(localStorage.getItem(KEPT) ?? '{}'));
    return read.success ? read.output : {};
  } catch {
    return {};
  }
}

/** All that was said, with this. */
export function sayColumn(head: string, column: ItemColumn | null): SaidColumns {
  const said = { ...saidColumns(), [head]: column };
  localStorage.setItem(KEPT, JSON.stringify(said));
  return said;
}
