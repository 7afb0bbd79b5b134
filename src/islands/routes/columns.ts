/** Where the items stand across the ledger: a column each, sections a little apart. */
import { sectionLetter } from '../../core/document/variables';
import type { Plan } from '../../core/routing/plan';

export interface Columns {
  readonly items: readonly { readonly name: string; readonly section: number; readonly x: number }[];
  readonly sections: readonly {
    readonly letter: string;
    readonly title: string;
    readonly x: number;
    readonly width: number;
  }[];
  /** Width of one column's cell, in pixels; may be a fraction where there are very many. */
  readonly cell: number;
  readonly step: number;
}

const WIDEST = 17;

export function columnsIn(plan: Plan, width: number): Columns {
  const filled = plan.sections.filter(({ items }) => items.length > 0);
  const count = filled.reduce((sum, { items }) => sum + items.length, 0);
  const gap = Math.min(9, width / (filled.length * 6 + 1));
  const room = (width - gap * (filled.length - 1)) / Math.max(1, count);
  const step = room >= 4 ? Math.min(WIDEST, Math.floor(room)) : room;
  const cell = step >= 4 ? step - (step >= 8 ? 3 : 1) : step;
  const items: Columns['items'][number][] = [];
  const sections: Columns['sections'][number][] = [];
  let x = 0;
  for (const section of filled) {
    const from = x;
    for (const { item } of section.items) {
      items.push({ name: item.name, section: section.index, x });
      x += step;
    }
    const { title } = section.section;
    sections.push({ letter: sectionLetter(section.index), title, x: from, width: x - from - (step - cell) });
    x += gap;
  }
  return { items, sections, cell, step };
}
