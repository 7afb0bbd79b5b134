/** Where each item of a version stands, in words. */
import type { Questionnaire } from '../document/types';
import { sectionLetter } from '../document/variables';

export interface ItemPlaceIn {
  readonly text: string;
  /** “in C The home, after loft”. */
  readonly where: string;
}

/** By name, in document order. */
export function itemPlaces({ sections }: Questionnaire): ReadonlyMap<string, ItemPlaceIn> {
  const found = new Map<string, ItemPlaceIn>();
  sections.forEach(({ title, items }, index) => {
    let before: string | null = null;
    for (const item of items) {
      if (item.kind === 'page_break') continue;
      const after: string = before === null ? 'first' : `after ${before}`;
      found.set(item.name, { text: item.text, where: `in ${sectionLetter(index)} ${title}, ${after}` });
      before = item.name;
    }
  });
  return found;
}
