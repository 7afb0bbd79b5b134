/** Where in a questionnaire a step of the history did something, so that it can be shown. */
import type { Patch } from 'immer';
import { STUDY_LISTS } from '../document/addresses';
import type { Questionnaire } from '../document/types';
import type { DocumentPlace } from '../routing/problems';

/** The first place that patches touched, in the document as it is after them; null where it is the whole study. */
export function placeTouched(document: Questionnaire, patches: readonly Patch[]): DocumentPlace | null {
  const paths = patches.map(({ path }) => path).sort(inOrder);
  for (const [list, at, within, item] of paths) {
    if (list === 'sections') {
      const index = Math.min(Number.isInteger(at) ? Number(at) : Infinity, document.sections.length - 1);
      const section = document.sections[index];
      if (section === undefined) continue;
      if (within !== 'items' || item === undefined) return { section: section.id };
      return (
        itemNear(section.items, Number.isInteger(item) ? Number(item) : Infinity) ?? { section: section.id }
      );
    }
    if (typeof list !== 'string' || !Object.hasOwn(STUDY_LISTS, list)) continue;
    const key = list as keyof typeof STUDY_LISTS;
    const all: readonly { readonly id?: string; readonly name?: string }[] = document[key] ?? [];
    const found = all[Math.min(Number.isInteger(at) ? Number(at) : Infinity, all.length - 1)];
    const id = found?.id ?? found?.name;
    if (id !== undefined) return { [STUDY_LISTS[key]]: id };
  }
  return null;
}

/** The item that stands there, or that stands nearest before where one is gone. */
function itemNear(items: Questionnaire['sections'][number]['items'], at: number): DocumentPlace | null {
  for (let index = Math.min(at, items.length - 1); index >= 0; index -= 1) {
    const item = items[index];
    if (item !== undefined && item.kind !== 'page_break') return { item: item.name };
  }
  return null;
}

function inOrder(a: Patch['path'], b: Patch['path']): number {
  for (let n = 0; n < Math.max(a.length, b.length); n += 1) {
    const [x, y] = [a[n], b[n]];
    if (x === y) continue;
    if (x === undefined) return 1;
    if (y === undefined) return -1;
    // Sections come before what stands around them, entries before the length of their list.
    if (typeof x === 'number' && typeof y === 'number') return x - y;
    if (typeof x !== typeof y) return typeof x === 'number' ? -1 : 1;
    if (n === 0)
      return Number(y === 'sections') - Number(x === 'sections') || String(x).localeCompare(String(y));
    return String(x).localeCompare(String(y));
  }
  return 0;
}
