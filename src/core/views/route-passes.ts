/** How many times a route passes through the sections that repeat: what tells it from its like. */
import { readPassKey } from '../document/addresses';
import type { Questionnaire } from '../document/types';

/**
 * One number for each repeated section, in document order; null where no section repeats.
 * `items` are the keys of the items of the route, a repeated one as `name#pass`.
 */
export function routePasses(document: Questionnaire, items: readonly string[]): readonly number[] | null {
  const repeated = document.sections.filter(({ repeat }) => repeat !== undefined);
  if (repeated.length === 0) return null;
  const most = new Map<string, number>();
  for (const key of items) {
    const { name, pass } = readPassKey(key);
    if (pass !== null) most.set(name, Math.max(most.get(name) ?? 0, pass));
  }
  return repeated.map(({ items: inside }) =>
    Math.max(0, ...inside.map((item) => (item.kind === 'page_break' ? 0 : (most.get(item.name) ?? 0)))),
  );
}
