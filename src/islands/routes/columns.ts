/** Where the items stand across the ledger: a column each, sections a little apart. */
import { sectionLetter } from '../../core/document/variables';
import type { Plan } from '../../core/routing/plan';

export interface Columns {
  readonly items: readonly {
    readonly name: string;
    readonly section: number;
    readonly x: number;
    /** How often its section is repeated at most; null where it is not. */
    readonly passes: number | null;
  }[];
  readonly sections: readonly {
    readonly letter: string;
    readonly title: string;
    readonly passes: number | null;
    readonly x: number;
    readonly width: number;
  }[];
  /** Width of one column's cell, in pixels; may be a fraction where there are very many. */
  readonly cell: number;
  readonly step: number;
  /** Of all columns together, in pixels. */
  readonly width: number;
}

export const WIDEST = 17;

/** As wide as fits into `width` pixels, times `zoom`, but no column wider than `WIDEST`. */
export function columnsIn(plan: Plan, width: number, zoom = 1): Columns {
  const filled = plan.sections.filter(({ items }) => items.length > 0);
  const count = filled.reduce((sum, { items }) => sum + items.length, 0);
  const gap = Math.min(9, (width * zoom) / (filled.length * 6 + 1));
  const room = (width * zoom - gap * (filled.length - 1)) / Math.max(1, count);
  const step = room >= 4 ? Math.min(WIDEST, Math.floor(room)) : room;
  const cell = step >= 4 ? step - (step >= 8 ? 3 : 1) : step;
  const items: Columns['items'][number][] = [];
  const sections: Columns['sections'][number][] = [];
  let x = 0;
  for (const section of filled) {
    const from = x;
    const passes = section.repeat?.max ?? null;
    for (const { item } of section.items) {
      items.push({ name: item.name, section: section.index, x, passes });
      x += step;
    }
    const { title } = section.section;
    const letter = sectionLetter(section.index);
    sections.push({ letter, title, passes, x: from, width: x - from - (step - cell) });
    x += gap;
  }
  return { items, sections, cell, step, width: Math.max(0, x - gap) };
}

/** Whether a closer look is possible. */
export function canZoom({ step }: Columns): boolean {
  return step < WIDEST;
}
