/**
 * One way to lead respondents written as the other: a skip over some items as an ask-if on each of them, and back. Whether
 * it means the same for everybody is for the analysis to say, before it is done.
 */
import type { Draft } from 'immer';
import { parseCondition } from '../condition/parse';
import type { Item, Questionnaire, RoutedItem, Section, Skip, Target } from '../document/types';
import type { Change } from './change';
import { bothHold } from './picking';
import type { ItemPlace } from './structure';

/** Takes a skip away and asks each item that it went over, or section, only of the others; null where there is nothing to ask. */
export function skipToAskIf(document: Questionnaire, place: ItemPlace, skip: number): Change | null {
  const section = document.sections[place.section];
  const item = section?.items[place.item];
  if (section === undefined || item === undefined || item.kind === 'page_break') return null;
  const written = item.skips?.[skip];
  if (written?.if === undefined || !parseCondition(written.if).ok) return null;
  const over = passedOver(document, place, written.to);
  if (over === null || over.items.length + over.sections.length === 0) return null;
  const others = negated(written.if);
  return {
    label: `Ask instead of skipping from ${item.name}`,
    apply: (draft) => {
      const from = draft.sections[place.section]?.items[place.item];
      if (from === undefined || from.kind === 'page_break') return;
      from.skips?.splice(skip, 1);
      if (from.skips?.length === 0) delete from.skips;
      for (const at of over.items) narrow(draft.sections[at.section]?.items[at.item], others);
      for (const at of over.sections) {
        const found = draft.sections[at];
        if (found !== undefined) found.askIf = bothHold(found.askIf, others) ?? others;
      }
    },
  };
}

/** What a skip leads over: items of its own section, and sections as a whole; null where it leads to none of these. */
function passedOver(
  { sections }: Questionnaire,
  { section, item }: ItemPlace,
  to: Target,
): { readonly items: readonly ItemPlace[]; readonly sections: readonly number[] } | null {
  const own = sections[section]?.items ?? [];
  const between = (until: number) =>
    own.flatMap((each, n) =>
      n > item && n < until && each.kind !== 'page_break' ? [{ section, item: n }] : [],
    );
  if ('item' in to) {
    const at = own.findIndex((each) => each.kind !== 'page_break' && each.name === to.item);
    return at < 0 ? null : { items: between(at), sections: [] };
  }
  if (!('section' in to)) return null;
  const at = sections.findIndex(({ id }) => id === to.section);
  if (at <= section) return null;
  return {
    items: between(own.length),
    sections: Array.from({ length: at - section - 1 }, (_, n) => section + 1 + n),
  };
}

/**
 * Takes an ask-if away from an item, and from those after it that are asked of just the same people, and leads the others
 * over them by a skip from the item before; null where there is none, or nothing to lead over.
 */
export function askIfToSkip(document: Questionnaire, { section, item }: ItemPlace): Change | null {
  const found = document.sections[section];
  const first = found?.items[item];
  if (found === undefined || first === undefined || first.kind === 'page_break') return null;
  const { askIf } = first;
  if (askIf === undefined || !parseCondition(askIf).ok) return null;
  const from = found.items.findLastIndex((each, n) => n < item && each.kind !== 'page_break');
  if (from < 0) return null;
  let end = item;
  while (end < found.items.length && isAskedOf(found.items[end], askIf)) end += 1;
  const target = beyond(document, found, section, end);
  if (target === null) return null;
  const skip: Skip = { if: negated(askIf), to: target };
  return {
    label: `Skip instead of asking ${first.name}`,
    apply: (draft) => {
      const items = draft.sections[section]?.items ?? [];
      for (const each of items.slice(item, end)) if (each.kind !== 'page_break') delete each.askIf;
      const before = items[from];
      if (before === undefined || before.kind === 'page_break') return;
      before.skips = [...(before.skips ?? []), skip as Draft<Skip>];
    },
  };
}

function isAskedOf(item: Item | undefined, askIf: string): boolean {
  return item?.kind === 'page_break' || item?.askIf === askIf;
}

/** The first thing after a run of items. */
function beyond(document: Questionnaire, { items }: Section, section: number, end: number): Target | null {
  const next = items.slice(end).find((item): item is RoutedItem => item.kind !== 'page_break');
  if (next !== undefined) return { item: next.name };
  const following = document.sections[section + 1];
  return following === undefined ? null : { section: following.id };
}

/** `not (C)`, or C where it was written as not. */
function negated(condition: string): string {
  const parsed = parseCondition(condition);
  if (parsed.ok && parsed.tree.kind === 'not') {
    const inner = /^\s*not\s*\(([\s\S]*)\)\s*$/i.exec(condition)?.[1];
    if (inner !== undefined && parseCondition(inner).ok) return inner.trim();
  }
  return `not (${condition.trim()})`;
}

function narrow(item: Draft<Item> | undefined, condition: string): void {
  if (item !== undefined && item.kind !== 'page_break')
    item.askIf = bothHold(item.askIf, condition) ?? condition;
}
