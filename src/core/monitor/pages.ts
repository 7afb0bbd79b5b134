/** The pages of a questionnaire in its order, those of repeated sections once for all passes. */
import { nameInKey } from '../document/addresses';
import type { Plan } from '../routing/plan';

export interface PagePlace {
  /** What `placeOfPage` gives. */
  readonly place: string;
  /** Index of the section. */
  readonly section: number;
  /** Names of the items that can stand on it. */
  readonly items: readonly string[];
}

export function pagePlaces(plan: Plan): PagePlace[] {
  const single = plan.document.settings?.pages === 'item';
  const places = new Map<string, { place: string; section: number; items: string[] }>();
  for (const { items } of plan.sections)
    for (const { item, section, page } of items) {
      const place = single ? item.name : `${section}/${page}`;
      const found = places.get(place) ?? { place, section, items: [] };
      found.items.push(item.name);
      places.set(place, found);
    }
  return [...places.values()];
}

/** Of a page's key (`pagesOf`): the same in each pass. */
export function placeOfPage(plan: Plan, key: string): string {
  if (plan.document.settings?.pages === 'item') return nameInKey(key);
  const [section, , page] = key.split('/');
  return `${section}/${page}`;
}
