/**
 * The sheet as a list of rows, of which only those near the view are on the page: which there are, how high they
 * probably are until they have been measured, and in which row a field or an anchor lies.
 */
import {
  address,
  addressOfField,
  readAddress,
  readField,
  type Address,
  type FieldId,
} from '../document/addresses';
import { linesOf } from '../document/answer-types';
import type { Item, Questionnaire } from '../document/types';

export type SheetRow =
  | { readonly kind: 'before'; readonly key: string }
  | { readonly kind: 'heading'; readonly key: string; readonly section: number }
  | { readonly kind: 'item'; readonly key: string; readonly section: number; readonly item: number }
  | { readonly kind: 'end'; readonly key: string; readonly section: number }
  | { readonly kind: 'foot'; readonly key: string };

/** `folded`: ids of sections of which only the heading is shown. */
export function rowsOf(document: Questionnaire, folded: ReadonlySet<string>): SheetRow[] {
  const rows: SheetRow[] = [{ kind: 'before', key: 'before' }];
  // Where a name is used twice, each row is told by how often it stood before.
  const used = new Map<string, number>();
  document.sections.forEach((section, s) => {
    // By place, not by id: naming a section must not take away what is being pressed in it.
    rows.push({ kind: 'heading', key: `heading ${s}`, section: s });
    if (folded.has(section.id)) return;
    section.items.forEach((item, i) => {
      const name = item.kind === 'page_break' ? `break ${s}` : `item ${item.name}`;
      const before = used.get(name) ?? 0;
      used.set(name, before + 1);
      rows.push({ kind: 'item', key: before === 0 ? name : `${name} ${before}`, section: s, item: i });
    });
    rows.push({ kind: 'end', key: `end ${s}`, section: s });
  });
  rows.push({ kind: 'foot', key: 'foot' });
  return rows;
}

/** Rows as they were last, with the keys that renamed items go on by. */
export interface SteadyRows {
  readonly rows: readonly SheetRow[];
  /** By the key of the name that an item has now: the one it came onto the page with. */
  readonly kept: ReadonlyMap<string, string>;
}

/**
 * The rows that follow, as the same value where nothing has changed. An item that is renamed where it stands keeps its key:
 * it is the same row, and what is being pressed or written in it must not be taken away.
 */
export function steadyRows(before: SteadyRows, rows: readonly SheetRow[]): SteadyRows {
  const natural = new Set(rows.map(({ key }) => key));
  const kept = new Map([...before.kept].filter(([now, first]) => natural.has(now) && !natural.has(first)));
  const keyOf = (row: SheetRow) => kept.get(row.key) ?? row.key;
  if (rows.length === before.rows.length) {
    const other = rows.flatMap((row, at) => {
      const was = before.rows[at];
      return was === undefined || was.key === keyOf(row) ? [] : [{ row, was }];
    });
    const [only, ...more] = other;
    if (
      only?.row.kind === 'item' &&
      only.was.kind === 'item' &&
      more.length === 0 &&
      !natural.has(only.was.key)
    )
      kept.set(only.row.key, only.was.key);
  }
  const next = kept.size === 0 ? rows : rows.map((row) => ({ ...row, key: keyOf(row) }));
  const isSame =
    kept.size === before.kept.size && [...kept].every(([now, first]) => before.kept.get(now) === first);
  return isSame && isSameRows(before.rows, next) ? before : { rows: next, kept };
}

function isSameRows(a: readonly SheetRow[], b: readonly SheetRow[]): boolean {
  return (
    a.length === b.length &&
    a.every((row, i) => {
      const other = b[i];
      return other !== undefined && row.key === other.key && placeOf(row) === placeOf(other);
    })
  );
}

function placeOf(row: SheetRow): string {
  return row.kind === 'item' ? `${row.section}/${row.item}` : '';
}

/** In pixels. */
export function likelyHeight(row: SheetRow, document: Questionnaire): number {
  if (row.kind === 'before') return 1;
  if (row.kind === 'foot') return 300 + document.endings.length * 64 + (document.derived?.length ?? 0) * 80;
  if (row.kind === 'heading') return 62;
  if (row.kind === 'end') return 74;
  const item = document.sections[row.section]?.items[row.item];
  return item === undefined ? 60 : itemHeight(item);
}

function itemHeight(item: Item): number {
  if (item.kind === 'page_break') return 28;
  const text = 20 * Math.max(1, Math.ceil(item.text.length / 70)) + (item.askIf === undefined ? 0 : 18);
  if (item.kind === 'statement') return 19 + text;
  const lines = linesOf(item.answer);
  return 27 + text + 21.5 * (lines + (item.skips?.some((skip) => skip.if === undefined) ? 1 : 0));
}

/** Finds the row of a field (see `fieldId`) or of an anchor of an arc. */
export class RowIndex {
  private readonly byItem = new Map<string, number>();
  private readonly headings = new Map<string, number>();
  private readonly ends = new Map<string, number>();
  private readonly breaks = new Map<string, number>();

  constructor(
    readonly rows: readonly SheetRow[],
    document: Questionnaire,
  ) {
    rows.forEach((row, index) => {
      if (row.kind === 'before' || row.kind === 'foot') return;
      const section = document.sections[row.section];
      if (section === undefined) return;
      if (row.kind === 'heading') putFirst(this.headings, section.id, index);
      else if (row.kind === 'end') putFirst(this.ends, section.id, index);
      else {
        const item = section.items[row.item];
        if (item === undefined) return;
        if (item.kind === 'page_break') this.breaks.set(address('break', row.section, row.item), index);
        else putFirst(this.byItem, item.name, index);
      }
    });
  }

  /** Undefined where it is in no row, such as an item of a folded section. */
  ofField(field: FieldId): number | undefined {
    const { owner, parts } = readField(field);
    const [first = '', second = ''] = parts;
    switch (owner) {
      case '@whole': {
        const at = addressOfField(field);
        return at === null ? undefined : this.ofAnchor(at);
      }
      case '@section':
        return this.headings.get(first);
      case '@add':
        return this.ends.get(second);
      case '@onward':
        return this.ends.get(first);
      case '@given':
      case '@quota':
        return 0;
      case '@derived':
      case '@ending':
        return this.rows.length - 1;
      default:
        return this.byItem.get(owner);
    }
  }

  ofAnchor(anchor: Address): number | undefined {
    const { kind, name } = readAddress(anchor);
    switch (kind) {
      case 'section':
        return this.headings.get(name);
      case 'onward':
        return this.ends.get(name);
      case 'break':
        return this.breaks.get(anchor);
      case 'given':
      case 'quota':
        return 0;
      case 'derived':
      case 'ending':
        return this.rows.length - 1;
      default:
        return this.byItem.get(name);
    }
  }
}

/** The selection key of the next row up or down that can be selected; undefined at the end. */
export function neighbour(
  document: Questionnaire,
  folded: ReadonlySet<string>,
  key: Address,
  by: 1 | -1,
): Address | undefined {
  const rows = rowsOf(document, folded);
  const from = new RowIndex(rows, document).ofAnchor(key);
  if (from === undefined) return undefined;
  for (let at = from + by; at >= 0 && at < rows.length; at += by) {
    const row = rows[at];
    if (row?.kind === 'heading') return address('section', document.sections[row.section]?.id ?? '');
    if (row?.kind === 'foot') return document.endings[0] && address('ending', document.endings[0].id);
    if (row?.kind !== 'item') continue;
    const item = document.sections[row.section]?.items[row.item];
    if (item === undefined) continue;
    return item.kind === 'page_break' ? address('break', row.section, row.item) : address('item', item.name);
  }
  return undefined;
}

function putFirst<Key>(map: Map<Key, number>, key: Key, value: number): void {
  if (!map.has(key)) map.set(key, value);
}
