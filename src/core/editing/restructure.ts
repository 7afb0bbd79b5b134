/**
 * Changes of the order of things: sections copied, split and merged, several items taken at once. What refers to
 * anything goes on meaning the same, and nobody's route changes by a split or a merge.
 */
import { castDraft, type Draft } from 'immer';
import { freshName } from '../document/names';
import type { Item, Questionnaire, RoutedItem, Section, Target } from '../document/types';
import { onwardList } from '../routing/plan';
import type { Change, DocumentDraft } from './change';
import { copiesOfItems, copyOfSection } from './copies';
import { bothHold } from './picking';
import { deletion, guessKind, newSection, takenNames, type ItemPlace } from './structure';

/** A section for every title, put in at a place. */
export function addSections(document: Questionnaire, at: number, titles: readonly string[]): Change {
  const sections: Section[] = [];
  for (const title of titles)
    sections.push(
      newSection({ ...document, sections: [...document.sections, ...sections] }, title, guessKind(title)),
    );
  return {
    label: `Add ${titles.length} sections`,
    apply: (draft) => void draft.sections.splice(at, 0, ...castDraft(sections)),
  };
}

export function duplicateSection(document: Questionnaire, at: number): Change {
  const section = document.sections[at] as Section;
  const copy = copyOfSection(document, section);
  return {
    label: `Copy section ${section.title}`,
    apply: (draft) => void draft.sections.splice(at + 1, 0, castDraft(copy)),
  };
}

/** Why a section cannot be split before an item; null where it can. */
export function splitProblem(document: Questionnaire, { section, item }: ItemPlace): string | null {
  const found = document.sections[section];
  if (found === undefined || item <= 0 || item >= found.items.length)
    return 'There is nothing before this item to keep.';
  return wholeProblem(found, 'split');
}

/** The item and all after it become a section of their own, asked of the same people. */
export function splitSection(
  document: Questionnaire,
  { section, item }: ItemPlace,
): Change & { readonly id: string } {
  const found = document.sections[section] as Section;
  const title = `${found.title} (continued)`;
  const { id } = newSection(document, title);
  return {
    id,
    label: `Split section ${found.title}`,
    telling: true,
    apply: (draft) => {
      const first = draft.sections[section];
      if (first === undefined) return;
      const items = first.items.splice(item);
      // A section begins a page as it is.
      if (items[0]?.kind === 'page_break') items.shift();
      const second: Draft<Section> = { id, title, kind: first.kind, items };
      if (first.askIf !== undefined) second.askIf = first.askIf;
      if (first.onward !== undefined) second.onward = first.onward;
      delete first.onward;
      draft.sections.splice(section + 1, 0, second);
    },
  };
}

/** Why a section cannot be merged with the next; null where it can. */
export function mergeProblem(document: Questionnaire, at: number): string | null {
  const [first, second] = [document.sections[at], document.sections[at + 1]];
  if (first === undefined || second === undefined) return 'There is no section to merge it with.';
  if (onwardList(first).length > 0) return `The end of “${first.title}” leads elsewhere for some.`;
  return wholeProblem(first, 'merged') ?? wholeProblem(second, 'merged');
}

function wholeProblem({ title, repeat, draw, shuffle, timeLimit }: Section, how: string): string | null {
  const what =
    repeat !== undefined
      ? 'is repeated'
      : draw !== undefined
        ? 'draws its questions'
        : shuffle
          ? 'is shown in random order'
          : timeLimit !== undefined
            ? 'has a time limit'
            : null;
  return what === null ? null : `“${title}” ${what}, so it cannot be ${how}.`;
}

/**
 * The next section's items are put at the end of this one. Where the two are not asked of the same people, each item
 * keeps what its section asked for; what the next section was introduced with becomes a statement.
 */
export function mergeSections(document: Questionnaire, at: number): Change {
  const [first, second] = [document.sections[at], document.sections[at + 1]] as [Section, Section];
  const alike = first.askIf === second.askIf;
  const intro = freshName(`${second.id}_intro`, takenNames(document));
  return {
    label: `Merge section ${second.title} into ${first.title}`,
    telling: true,
    apply: (draft) => {
      const [into, from] = [draft.sections[at], draft.sections[at + 1]];
      if (into === undefined || from === undefined) return;
      if (!alike) {
        narrow(into.items, into.askIf);
        narrow(from.items, from.askIf);
        delete into.askIf;
      }
      const statement: Draft<Item>[] =
        from.intro === undefined
          ? []
          : [
              {
                kind: 'statement',
                name: intro,
                text: from.intro,
                ...(alike || from.askIf === undefined ? {} : { askIf: from.askIf }),
              },
            ];
      const moved = [...statement, ...from.items];
      if (into.items.length > 0 && moved.length > 0) into.items.push({ kind: 'page_break' });
      into.items.push(...moved);
      const onward = onwardList(second).map((entry) => {
        const condition = alike ? entry.if : bothHold(second.askIf, entry.if);
        return { to: entry.to, ...(condition === undefined ? {} : { if: condition }) };
      });
      if (onward.length > 0) into.onward = castDraft(onward);
      draft.sections.splice(at + 1, 1);
      const named = moved.find((item): item is Draft<RoutedItem> => item.kind !== 'page_break');
      retarget(draft, second.id, named === undefined ? beyond(document, at + 1) : { item: named.name });
    },
  };
}

/** Where those go who come past a section. */
function beyond(document: Questionnaire, at: number): Target {
  const next = document.sections[at + 1];
  if (next !== undefined) return { section: next.id };
  return { ending: document.endings.find(({ kind }) => kind === 'complete')?.id ?? '' };
}

function narrow(items: Draft<Item>[], condition: string | undefined): void {
  if (condition === undefined) return;
  for (const item of items) {
    if (item.kind === 'page_break') continue;
    const narrower = bothHold(condition, item.askIf);
    if (narrower !== undefined) item.askIf = narrower;
  }
}

/** Everything that aimed at a section aims elsewhere. */
function retarget(draft: DocumentDraft, section: string, to: Target): void {
  const aim = (holder: { to: Draft<Target> }) => {
    if ('section' in holder.to && holder.to.section === section) holder.to = castDraft(to);
  };
  for (const quota of draft.quotas ?? []) aim(quota);
  for (const each of draft.sections) {
    if (Array.isArray(each.onward)) each.onward.forEach(aim);
    else if (each.onward !== undefined && 'section' in each.onward && each.onward.section === section)
      each.onward = castDraft(to);
    for (const item of each.items) if (item.kind !== 'page_break') item.skips?.forEach(aim);
  }
}

/** Several items, wherever they stand, copied to behind the last of them. */
export function duplicateItems(document: Questionnaire, places: readonly ItemPlace[]): Change {
  const sorted = inOrder(places);
  const items = sorted.flatMap((place) => itemAt(document, place) ?? []);
  const copies = copiesOfItems(document, items);
  const last = sorted.at(-1) as ItemPlace;
  return {
    label: `Copy ${titleOf(items)}`,
    apply: (draft) =>
      void draft.sections[last.section]?.items.splice(last.item + 1, 0, ...castDraft([...copies])),
  };
}

export function removeItems(document: Questionnaire, places: readonly ItemPlace[]): Change {
  const items = places.flatMap((place) => itemAt(document, place) ?? []);
  return {
    label: `Delete ${titleOf(items)}`,
    ...deletion(items),
    telling: true,
    apply: (draft) => {
      for (const { section, item } of inOrder(places).reverse())
        draft.sections[section]?.items.splice(item, 1);
    },
  };
}

/** Several items, in their order, to before the item at `to`; places are those before the change. */
export function moveItems(document: Questionnaire, places: readonly ItemPlace[], to: ItemPlace): Change {
  const sorted = inOrder(places);
  const items = sorted.flatMap((place) => itemAt(document, place) ?? []);
  const before = sorted.filter(({ section, item }) => section === to.section && item < to.item).length;
  return {
    label: `Move ${titleOf(items)}`,
    telling: true,
    apply: (draft) => {
      const taken = [...sorted]
        .reverse()
        .flatMap(({ section, item }) => draft.sections[section]?.items.splice(item, 1) ?? [])
        .reverse();
      draft.sections[to.section]?.items.splice(to.item - before, 0, ...taken);
    },
  };
}

function itemAt(document: Questionnaire, { section, item }: ItemPlace): Item | undefined {
  return document.sections[section]?.items[item];
}

function inOrder(places: readonly ItemPlace[]): ItemPlace[] {
  return [...places].sort((a, b) => a.section - b.section || a.item - b.item);
}

function titleOf(items: readonly Item[]): string {
  const [only] = items;
  if (items.length !== 1 || only === undefined) return `${items.length} items`;
  return only.kind === 'page_break' ? 'a page break' : only.name;
}
