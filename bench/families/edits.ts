/** One small edit of a questionnaire, as somebody makes it: an ask-if, a skip or a text. */
import type { Item, Questionnaire } from '../../src/core/document/types';
import type { Die } from './maker';

export const EDITS = ['ask-if', 'skip', 'text'] as const;
export type EditKind = (typeof EDITS)[number];

/** The questionnaire with the edit at some place; null where there is no place for it. */
export function edited(document: Questionnaire, kind: EditKind, die: Die): Questionnaire | null {
  const items = document.sections.flatMap(({ items: all }) => all);
  const places = items.filter((item) => canHave(item, kind));
  if (places.length === 0) return null;
  const place = die.of(places);
  const next = changed(place, kind);
  return {
    ...document,
    sections: document.sections.map((section) =>
      section.items.includes(place)
        ? { ...section, items: section.items.map((item) => (item === place ? next : item)) }
        : section,
    ),
  };
}

function canHave(item: Item, kind: EditKind): boolean {
  if (item.kind !== 'question') return false;
  if (kind === 'ask-if') return item.askIf !== undefined;
  return kind === 'text' || (item.skips?.length ?? 0) > 0;
}

/** Without its ask-if, or its skips; or with a word more. */
function changed(item: Item, kind: EditKind): Item {
  if (item.kind !== 'question') return item;
  if (kind === 'text') return { ...item, text: `${item.text} Please.` };
  const { askIf, skips, ...rest } = item;
  return kind === 'ask-if'
    ? { ...rest, ...(skips === undefined ? {} : { skips }) }
    : { ...rest, ...(askIf === undefined ? {} : { askIf }) };
}
