/** The places of a questionnaire that can be commented on, and how one is found again after it was renamed. */
import type { Questionnaire } from '../document/types';

/** Every place, by the key under which it is selected, with where it stands. */
function placesIn({ given, quotas, derived, sections, endings }: Questionnaire): Map<string, string> {
  const places = new Map<string, string>();
  given?.forEach(({ name }, n) => places.set(`given:${name}`, `given ${n}`));
  quotas?.forEach(({ id }, n) => places.set(`quota:${id}`, `quota ${n}`));
  derived?.forEach(({ name }, n) => places.set(`derived:${name}`, `derived ${n}`));
  endings.forEach(({ id }, n) => places.set(`ending:${id}`, `ending ${n}`));
  sections.forEach(({ id, items }, s) => {
    places.set(`section:${id}`, `section ${s}`);
    items.forEach((item, i) => {
      if (item.kind !== 'page_break') places.set(`item:${item.name}`, `item ${s} ${i}`);
    });
  });
  return places;
}

/**
 * Where the places went that an edit gave another name: what stands just where they stood, if it is new and nothing else
 * has their name.
 */
export function renamedPlaces(
  before: Questionnaire,
  after: Questionnaire,
  keys: readonly string[],
): { readonly from: string; readonly to: string }[] {
  const [old, now] = [placesIn(before), placesIn(after)];
  const byStand = new Map([...now].map(([key, stand]) => [stand, key]));
  return keys.flatMap((key) => {
    const [kind, name = '', skip] = key.split(/[:/]/);
    const own = kind === 'skip' ? `item:${name}` : key;
    const stood = old.get(own);
    if (stood === undefined || now.has(own)) return [];
    const to = byStand.get(stood);
    if (to === undefined || old.has(to)) return [];
    return [{ from: key, to: kind === 'skip' ? `skip:${to.slice('item:'.length)}/${skip}` : to }];
  });
}

/** What to select for a commented place: of a skip its item. */
export function selectionOf(place: string): string {
  const [kind, name = ''] = place.split(/[:/]/);
  return kind === 'skip' ? `item:${name}` : place;
}
