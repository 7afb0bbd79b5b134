/** Changes of structure: sections, items, options, endings, skips. Indices are those of the moment. */
import { castDraft, type Draft } from 'immer';
import { hasRows } from '../document/answer-types';
import { freshName, RESERVED_WORDS } from '../document/names';
import { optionsOf } from '../document/shape';
import {
  ENDING_KINDS,
  MISSING_REASONS,
  SECTION_KINDS,
  type Answer,
  type AnswerType,
  type Ending,
  type Item,
  type Option,
  type Question,
  type Questionnaire,
  type Section,
  type SectionKind,
  type Settings,
} from '../document/types';
import { FIRST_MESSAGES, MISSING, SECTIONS } from '../document/vocabularies';
import type { Change, DocumentDraft } from './change';
import { isSuggested, suggest, suggestedAnswers, suggestedNumber } from './suggested';

/** Where an item stands. */
export interface ItemPlace {
  readonly section: number;
  readonly item: number;
}

/** Every variable name in use, in lower case. */
export function takenNames(document: Questionnaire): Set<string> {
  const taken = new Set<string>(RESERVED_WORDS);
  for (const { name } of [...(document.given ?? []), ...(document.derived ?? [])])
    taken.add(name.toLowerCase());
  for (const { items } of document.sections) {
    for (const item of items) {
      if (item.kind === 'page_break') continue;
      taken.add(item.name.toLowerCase());
      if (item.kind === 'question' && hasRows(item.answer)) {
        for (const row of item.answer.rows) taken.add(row.name.toLowerCase());
      }
    }
  }
  return taken;
}

/** A new question with the study's defaults. */
export function newQuestion(document: Questionnaire, text = ''): Question {
  const taken = takenNames(document);
  let number = [...taken].filter((name) => /^q\d+$/.test(name)).length + 1;
  while (taken.has(`q${number}`)) number += 1;
  const { required, dontKnow } = document.settings?.defaults ?? {};
  const options = suggestedAnswers(dontKnow === true);
  return {
    kind: 'question',
    name: `q${number}`,
    text,
    answer: { type: 'single', options },
    ...(required ? { required } : {}),
  };
}

export function newSection(document: Questionnaire, title: string, kind: SectionKind = 'topic'): Section {
  const taken = new Set(document.sections.map(({ id }) => id.toLowerCase()));
  return { id: freshName(title || 'section', taken), title, kind, items: [] };
}

export function addSection(document: Questionnaire, at: number, title: string): Change {
  const section = newSection(document, title, guessKind(title));
  return {
    label: `Add section ${title}`,
    apply: (draft) => void draft.sections.splice(at, 0, castDraft(section)),
  };
}

/** The kind that a section's title suggests. */
export function guessKind(title: string): SectionKind {
  const found = SECTION_KINDS.find((kind) => title.toLowerCase().includes(kind.slice(0, 6)));
  if (found !== undefined) return found;
  return SECTION_KINDS.find((kind) => SECTIONS[kind].suggestedBy?.test(title)) ?? 'topic';
}

export function removeSection(document: Questionnaire, at: number): Change {
  return {
    label: `Delete section ${document.sections[at]?.title ?? ''}`,
    ...deletion(document.sections[at]?.items ?? []),
    telling: true,
    apply: (draft) => void draft.sections.splice(at, 1),
  };
}

export function moveSection(document: Questionnaire, from: number, to: number): Change {
  return {
    label: `Move section ${document.sections[from]?.title ?? ''}`,
    telling: true,
    apply: (draft) => moveWithin(draft.sections, from, to),
  };
}

export function addItem(place: ItemPlace, item: Item): Change {
  const what = item.kind === 'page_break' ? 'a page break' : item.name;
  return {
    label: `Add ${what}`,
    apply: (draft) => void itemsOf(draft, place.section).splice(place.item, 0, castDraft(item)),
  };
}

export function removeItem(document: Questionnaire, { section, item }: ItemPlace): Change {
  return {
    label: `Delete ${itemTitle(document, { section, item })}`,
    ...deletion(itemsAt(document, { section, item })),
    telling: true,
    apply: (draft) => void itemsOf(draft, section).splice(item, 1),
  };
}

/** `to` is the index in the section once the item has been taken out. */
export function moveItem(document: Questionnaire, from: ItemPlace, to: ItemPlace): Change {
  return {
    label: `Move ${itemTitle(document, from)}`,
    telling: true,
    apply: (draft) => {
      const [item] = itemsOf(draft, from.section).splice(from.item, 1);
      if (item !== undefined) itemsOf(draft, to.section).splice(to.item, 0, item);
    },
  };
}

function itemsAt(document: Questionnaire, { section, item }: ItemPlace): readonly Item[] {
  return document.sections[section]?.items.slice(item, item + 1) ?? [];
}

/** What is told when items go in which something had been written. */
export function deletion(items: readonly Item[]): Pick<Change, 'said'> {
  const written = items.flatMap((item) =>
    item.kind !== 'page_break' && item.text.trim() !== '' ? [item] : [],
  );
  const [first] = written;
  if (first === undefined) return {};
  if (written.length > 1) return { said: `${written.length} items are deleted.` };
  const words = first.text.length > 60 ? `${first.text.slice(0, 59)}…` : first.text;
  return { said: `${first.name} (“${words}”) is deleted.` };
}

function itemTitle(document: Questionnaire, { section, item }: ItemPlace): string {
  const found = document.sections[section]?.items[item];
  return found === undefined || found.kind === 'page_break' ? 'a page break' : found.name;
}

/** Changes one item by hand; typing in one field is one step of the history, null names no field to type in. */
export function editItem(
  place: ItemPlace,
  field: string | null,
  label: string,
  edit: (item: Draft<Item>) => void,
): Change {
  return {
    label,
    ...(field === null ? {} : { mergeKey: `item ${place.section}/${place.item} ${field}` }),
    apply: (draft) => {
      const item = itemsOf(draft, place.section)[place.item];
      if (item !== undefined) edit(item);
    },
  };
}

export function editQuestion(
  place: ItemPlace,
  field: string | null,
  label: string,
  edit: (question: Draft<Question>) => void,
): Change {
  return editItem(place, field, label, (item) => {
    if (item.kind === 'question') edit(item);
  });
}

export function editSection(
  at: number,
  field: string,
  label: string,
  edit: (section: Draft<Section>) => void,
): Change {
  return editEntry((draft) => draft.sections[at], `section ${at} ${field}`, label, edit);
}

export function editEnding(
  at: number,
  field: string,
  label: string,
  edit: (ending: Draft<Ending>) => void,
): Change {
  return editEntry((draft) => draft.endings[at], `ending ${at} ${field}`, label, edit);
}

/** Changes an entry of a list, where it is there. `mergeKey`: changes of one key are one step of the history. */
export function editEntry<Entry>(
  entryOf: (draft: Draft<Questionnaire>) => Entry | undefined,
  mergeKey: string,
  label: string,
  edit: (entry: Entry) => void,
): Change {
  return {
    label,
    mergeKey,
    apply: (draft) => {
      const entry = entryOf(draft);
      if (entry !== undefined) edit(entry);
    },
  };
}

export function addEnding(document: Questionnaire, kind: Ending['kind']): Change {
  const taken = new Set(document.endings.map(({ id }) => id.toLowerCase()));
  const ending: Ending = { id: freshName(kind, taken), kind, messages: [{ text: 'Thank you.' }] };
  return { label: `Add ending ${ending.id}`, apply: (draft) => void draft.endings.push(castDraft(ending)) };
}

export function removeEnding(document: Questionnaire, at: number): Change {
  return {
    label: `Delete ending ${document.endings[at]?.id ?? ''}`,
    said: `The ending ${document.endings[at]?.id ?? ''} is deleted.`,
    telling: true,
    apply: (draft) => void draft.endings.splice(at, 1),
  };
}

export function editSettings(label: string, edit: (settings: Draft<Settings>) => void): Change {
  return {
    label,
    apply: (draft) => {
      draft.settings ??= {};
      edit(draft.settings);
    },
  };
}

export function setTitle(title: string): Change {
  return { label: 'Change the title', mergeKey: 'title', apply: (draft) => void (draft.title = title) };
}

/** The next free code of a list: above the ordinary ones, below the high codes kept for missing answers. */
export function nextCode(options: readonly Pick<Option, 'code' | 'missing' | 'exclusive'>[]): number {
  const ordinary = options
    .filter((option) => option.missing === undefined && !option.exclusive)
    .map(({ code }) => code);
  let code = Math.max(0, ...ordinary) + 1;
  while (options.some((option) => option.code === code)) code += 1;
  return code;
}

/** A fresh answer of another type that keeps the options and limits that still make sense; `words`: of its question. */
export function answerOfType(
  type: AnswerType,
  from: Answer,
  name: string,
  taken: ReadonlySet<string>,
  words = '',
): Answer {
  const options = optionsOf(from);
  const isWritten = options.some((option) => option.missing === undefined);
  const listed: Option[] = isWritten ? [...options] : suggestedAnswers(false);
  const again = (list: Option[]) => (isWritten && !isSuggested(options) ? list : suggest(list));
  const plain = listed.map(({ exclusive: _, ...option }) => option);
  const specials = options.filter((option) => option.missing !== undefined);
  const kept = specials.length > 0 ? { specials } : {};
  const limits =
    'min' in from && typeof from.min === 'number' && typeof from.max === 'number'
      ? { min: from.min, max: from.max }
      : null;
  switch (type) {
    case 'single':
      return { type, options: again(plain) };
    case 'multiple':
      return { type, options: again(listed) };
    case 'rank':
      return { type, options: again(plain.filter((option) => option.missing === undefined)) };
    case 'grid': {
      const first = freshName(`${name}_1`, taken);
      const second = freshName(`${name}_2`, new Set([...taken, first.toLowerCase()]));
      return {
        type,
        options: again(plain),
        rows: suggest([
          { name: first, label: 'First row' },
          { name: second, label: 'Second row' },
        ]),
      };
    }
    case 'scale':
      return { type, ...(limits ?? { min: 1, max: 5 }), ...kept };
    case 'number':
      return limits === null ? suggest({ ...suggestedNumber(words), ...kept }) : { type, ...limits, ...kept };
    case 'text':
      return { type, lines: 'one' };
    case 'date':
    case 'time':
    case 'datetime':
      return { type, ...kept };
    default:
      return type satisfies never;
  }
}

function itemsOf(draft: DocumentDraft, section: number): Draft<Item>[] {
  const found = draft.sections[section];
  if (found === undefined) throw new RangeError(`there is no section ${section}`);
  return found.items;
}

function moveWithin<Entry>(list: Entry[], from: number, to: number): void {
  const [entry] = list.splice(from, 1);
  if (entry !== undefined) list.splice(to, 0, entry);
}

/** An empty questionnaire to start from. */
export function emptyQuestionnaire(title: string): Questionnaire {
  return {
    format: 'jolly-fork/questionnaire',
    version: 1,
    title,
    language: 'en',
    missing: MISSING_REASONS.map((reason) => {
      const { code, label } = MISSING[reason];
      return { reason, code, label };
    }),
    sections: [{ id: 'consent', title: 'Consent', kind: 'consent', items: [] }],
    endings: ENDING_KINDS.flatMap((kind) => {
      const text = FIRST_MESSAGES[kind];
      return text === undefined ? [] : [{ id: kind, kind, messages: [{ text }] }];
    }),
    settings: { numbers: 'running', pages: 'section', progress: true, defaults: { required: true } },
  };
}
