/** Adding, moving and deleting items and sections by hand, with the focus kept on what was meant. */
import { address, fieldId, nameAt, wholeField, type Address } from '../../core/document/addresses';
import { freshName } from '../../core/document/names';
import type { Item, Questionnaire } from '../../core/document/types';
import { duplicateItems, moveItems, removeItems } from '../../core/editing/restructure';
import {
  addItem,
  moveItem,
  newQuestion,
  removeItem,
  takenNames,
  type ItemPlace,
} from '../../core/editing/structure';
import { useStudyStore } from '../state/store';
import { partSelected, type StudyStore } from '../state/study-state';
import { focusField, thenFocus } from './focus';

export interface ItemMoves {
  /** Adds an item before `place.item` and puts the caret into it. */
  addAt(place: ItemPlace, kind?: Item['kind']): void;
  addAfter(place: ItemPlace): void;
  remove(place: ItemPlace): void;
  /** One place up or down, into the neighbouring section at its edge. */
  moveBy(place: ItemPlace, by: -1 | 1): void;
  /** To before the item at `to`; with all that are selected, if it is one of them. */
  moveTo(from: ItemPlace, to: ItemPlace): void;
  /** Copies the item, or all that are selected with it, to behind it. */
  duplicate(place: ItemPlace): void;
}

export function useItemMoves(): ItemMoves {
  return movesOf(useStudyStore());
}

export function itemKeyAt(store: StudyStore, { section, item }: ItemPlace): Address | null {
  const found = store.getState().document.sections[section]?.items[item];
  if (found === undefined) return null;
  return found.kind === 'page_break' ? address('break', section, item) : address('item', found.name);
}

/** Where the items with these keys stand, in order. */
export function placesOf({ sections }: Questionnaire, keys: ReadonlySet<Address>): ItemPlace[] {
  return sections.flatMap(({ items }, section) =>
    items.flatMap((found, item) =>
      found.kind !== 'page_break' && keys.has(address('item', found.name)) ? [{ section, item }] : [],
    ),
  );
}

function movesOf(store: StudyStore): ItemMoves {
  const focusItem = (place: ItemPlace) => {
    const key = itemKeyAt(store, place);
    if (key !== null) focusField(wholeField(key));
  };
  const addAt = (place: ItemPlace, kind: Item['kind'] = 'question') => {
    const { document, commit, select } = store.getState();
    const item: Item =
      kind === 'question'
        ? newQuestion(document)
        : kind === 'statement'
          ? { kind, name: freshName('note_1', takenNames(document)), text: '' }
          : { kind };
    if (item.kind === 'page_break') {
      thenFocus(
        () => {
          commit(addItem(place, item));
          select(address('break', place.section, place.item));
        },
        wholeField(address('break', place.section, place.item)),
      );
      return;
    }
    thenFocus(
      () => {
        commit(addItem(place, item));
        select(address('item', item.name));
      },
      fieldId(item.name, 'text'),
    );
  };
  /** The place by itself, or those of all that are selected, if it is one of them. */
  const together = (place: ItemPlace): ItemPlace[] => {
    const { document, group } = store.getState();
    const key = itemKeyAt(store, place);
    if (key === null || !group.has(key)) return [place];
    return placesOf(document, group);
  };
  const moveAll = (places: readonly ItemPlace[], to: ItemPlace) => {
    const { document, commit, selection } = store.getState();
    commit(moveItems(document, places, to));
    const part = partSelected(selection);
    if (part !== null) queueMicrotask(() => focusField(wholeField(part)));
  };
  const moveTo = (from: ItemPlace, to: ItemPlace) => {
    const all = together(from);
    if (all.length > 1) {
      moveAll(all, to);
      return;
    }
    const { document, commit } = store.getState();
    const target = from.section === to.section && to.item > from.item ? { ...to, item: to.item - 1 } : to;
    if (target.section === from.section && target.item === from.item) return;
    const name = itemKeyAt(store, from);
    commit(moveItem(document, from, target));
    if (name !== null && nameAt(name, 'break') !== null) store.getState().select(itemKeyAt(store, target));
    queueMicrotask(() => focusItem(target));
  };
  return {
    addAt,
    addAfter: ({ section, item }) => addAt({ section, item: item + 1 }),
    remove(place) {
      const { document, commit, select } = store.getState();
      const all = together(place);
      commit(all.length > 1 ? removeItems(document, all) : removeItem(document, place));
      const count = store.getState().document.sections[place.section]?.items.length ?? 0;
      const next = { section: place.section, item: Math.min(place.item, count - 1) };
      select(itemKeyAt(store, next));
      queueMicrotask(() => focusItem(next));
    },
    duplicate(place) {
      const { document, commit, select } = store.getState();
      const all = together(place);
      const last = all.at(-1) ?? place;
      commit(duplicateItems(document, all));
      const copy = { section: last.section, item: last.item + 1 };
      select(itemKeyAt(store, copy));
      queueMicrotask(() => focusItem(copy));
    },
    moveBy(place, by) {
      const { sections } = store.getState().document;
      const all = together(place);
      const { section, item } = (by < 0 ? all[0] : all.at(-1)) ?? place;
      const count = sections[section]?.items.length ?? 0;
      if (by < 0) {
        if (item > 0) moveTo({ section, item }, { section, item: item - 1 });
        else if (section > 0)
          moveTo({ section, item }, { section: section - 1, item: sections[section - 1]?.items.length ?? 0 });
      } else if (item < count - 1) moveTo({ section, item }, { section, item: item + 2 });
      else if (section < sections.length - 1) moveTo({ section, item }, { section: section + 1, item: 0 });
    },
    moveTo,
  };
}
