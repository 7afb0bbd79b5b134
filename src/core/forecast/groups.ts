/** The people that a forecast is about, and a key for each. */
import type { Group } from '../analysis';
import { passKey } from '../document/addresses';
import type { Plan } from '../routing/plan';

/** A group as a key: of an item `name` or `name#pass`, of others with a sign in front. */
export function groupKey(group: Group): string {
  if ('ending' in group) return `> ${group.ending}`;
  if ('section' in group) return `= ${group.section}`;
  return passKey(group.item, group.pass);
}

/** As a prospect has them. */
export function groupsOf({ sections, endings }: Plan): Group[] {
  return [
    ...sections.flatMap(({ items, repeat }) =>
      items.flatMap(({ item }) => [
        { item: item.name, pass: null },
        ...Array.from({ length: repeat?.max ?? 0 }, (_, n) => ({ item: item.name, pass: n + 1 })),
      ]),
    ),
    ...sections.map(({ section }) => ({ section: section.id })),
    ...endings.map(({ ending }) => ({ ending: ending.id })),
  ];
}
