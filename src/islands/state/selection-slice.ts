/** What is selected: one part, or several items together, and which sections are folded away. */
import { address, type Address } from '../../core/document/addresses';
import type { GetState, SetState } from './study-slices';
import { partSelected, type Selection, type StudyState } from './study-state';

const NOTHING: ReadonlySet<never> = new Set();

export type SelectionSlice = Pick<
  StudyState,
  'selection' | 'group' | 'folded' | 'select' | 'selectTo' | 'fold'
>;

export function selectionSlice(set: SetState, get: GetState): SelectionSlice {
  /** Where a selection of several items began. */
  let anchor: Selection = null;
  return {
    selection: null,
    group: NOTHING,
    folded: NOTHING,

    select(selection) {
      const { group, document, folded } = get();
      const part = partSelected(selection);
      if (part === null || !group.has(part)) anchor = null;
      // What is selected is to be seen.
      const home = document.sections.find(({ items }) =>
        items.some((item) => item.kind !== 'page_break' && selection === address('item', item.name)),
      );
      if (home !== undefined && folded.has(home.id)) get().fold(home.id, false);
      const together = part !== null && group.has(part);
      set({ selection, group: together ? group : NOTHING });
    },
    selectTo(key) {
      const { document, selection } = get();
      const keys: Address[] = document.sections.flatMap(({ items }) =>
        items.flatMap((item) => (item.kind === 'page_break' ? [] : [address('item', item.name)])),
      );
      const [from, to] = [keys.findIndex((each) => each === (anchor ?? selection)), keys.indexOf(key)];
      if (from < 0 || to < 0) return;
      anchor = keys[from] ?? null;
      const [first, last] = from < to ? [from, to] : [to, from];
      set({ selection: key, group: new Set(first === last ? [] : keys.slice(first, last + 1)) });
    },
    fold(section, away) {
      const folded = new Set(get().folded);
      if (away) folded.add(section);
      else folded.delete(section);
      set({ folded });
    },
  };
}
