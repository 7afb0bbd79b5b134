/** Where a list goes in a study that is open: which of its sections each part belongs to, and the change that puts it there. */
import { castDraft } from 'immer';
import { isWritten } from '../document/answer-types';
import type { Ending, Item, Questionnaire, Section, SectionKind } from '../document/types';
import { sectionLetter } from '../document/variables';
import type { Change } from '../editing/change';
import { newSection } from '../editing/structure';
import { isSuggested } from '../editing/suggested';

/** What stands before the first heading goes to `at`, at the end of its section where `item` is null. */
export interface ListPlace {
  readonly document: Questionnaire;
  /** Null: over the whole of it. What has no heading then is a section of its own. */
  readonly at: { readonly section: number; readonly item: number | null } | null;
}

/** A section that a part of a list goes into. */
export interface SectionHome {
  /** The study's own, or a new one without items. */
  readonly section: Section;
  readonly isNew: boolean;
  /** Id of the section it comes after, where it is new; null before all. */
  readonly after: string | null;
  /** Index of the item that it is put in behind; null at the end. */
  readonly behind: number | null;
}

interface SectionPart {
  readonly title: string;
  readonly kind: SectionKind;
  /** Whether it has a heading. */
  readonly isHeaded: boolean;
}

/** A home for each part. A heading that the study has is that section; another is a new one, after what came before it. */
export function homesIn({ document, at }: ListPlace, parts: readonly SectionPart[]): SectionHome[] {
  const { sections } = document;
  const made: Section[] = [];
  const own = parts.map(({ title, isHeaded }) => {
    if (!isHeaded) return at === null ? undefined : sections[at.section];
    return sections.find((section) => plainTitle(section.title) === plainTitle(title));
  });
  let after = firstAfter(document, own, at);
  return parts.map(({ title, kind, isHeaded }, n): SectionHome => {
    const section = own[n];
    if (section !== undefined) {
      after = section.id;
      const behind = isHeaded || at === null ? null : at.item;
      return { section, isNew: false, after: null, behind };
    }
    const fresh = newSection({ ...document, sections: [...sections, ...made] }, title, kind);
    made.push(fresh);
    const home = { section: fresh, isNew: true, after, behind: null };
    after = fresh.id;
    return home;
  });
}

/** Titles are the same without the letter or number in front, whatever their case and stops. */
function plainTitle(title: string): string {
  return title
    .toLowerCase()
    .replace(/^(?:(?:section|part|block)\s+)?(?:[a-z]|\d{1,2})\s*[.:)–-]\s+/u, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
}

/** What the first new section comes after: what is selected; else before the first that has a home; else before the closing. */
function firstAfter(
  { sections }: Questionnaire,
  own: readonly (Section | undefined)[],
  at: ListPlace['at'],
): string | null {
  if (at !== null) return sections[at.section]?.id ?? null;
  const known = own.find((section) => section !== undefined);
  const closing = sections.findIndex(({ kind }) => kind === 'closing');
  const before = known === undefined ? (closing < 0 ? sections.length : closing) : sections.indexOf(known);
  return sections[before - 1]?.id ?? null;
}

/** The ids of all sections as they stand afterwards. */
export function orderWith({ document }: ListPlace, homes: readonly SectionHome[]): string[] {
  const order = document.sections.map(({ id }) => id);
  for (const { section, isNew, after } of homes)
    if (isNew) order.splice(after === null ? 0 : order.indexOf(after) + 1, 0, section.id);
  return order;
}

/** What is said of the section that a heading of the list is. */
export function homeWords({ document }: ListPlace, { section, isNew }: SectionHome): string {
  if (isNew) return `new section ${section.title}`;
  return `section ${sectionLetter(document.sections.indexOf(section))} ${section.title}, which is there already`;
}

/** Puts the items of each home where they belong. A question nobody has written in makes room for them. */
export function putIn(
  { document }: ListPlace,
  homes: readonly SectionHome[],
  itemsOf: readonly (readonly Item[])[],
  endings: readonly Ending[],
): Change {
  const count = itemsOf.reduce((sum, items) => sum + items.length, 0);
  return {
    label: `Paste a list of ${count === 1 ? 'one item' : `${count} items`}`,
    telling: true,
    apply: (draft) => {
      const touched = new Set<string>();
      homes.forEach(({ isNew, after, behind, section }, n) => {
        const items = castDraft(itemsOf[n] ?? []);
        if (isNew) {
          const at = after === null ? 0 : draft.sections.findIndex((each) => each.id === after) + 1;
          draft.sections.splice(at, 0, castDraft({ ...section, items }));
          return;
        }
        const home = draft.sections.find(({ id }) => id === section.id);
        if (home === undefined) return;
        const at = behind === null ? home.items.length : behind + 1;
        const makesRoom = !touched.has(section.id) && isBlank(section.items[at - 1]);
        touched.add(section.id);
        home.items.splice(makesRoom ? at - 1 : at, makesRoom ? 1 : 0, ...items);
      });
      const had = new Set(document.endings.map(({ id }) => id));
      draft.endings.push(...castDraft(endings.filter(({ id }) => !had.has(id))));
    },
  };
}

function isBlank(item: Item | undefined): boolean {
  if (item?.kind !== 'question' || item.text.trim() !== '') return false;
  return 'options' in item.answer ? isSuggested(item.answer.options) : isWritten(item.answer);
}
