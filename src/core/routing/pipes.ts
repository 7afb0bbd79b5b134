/**
 * Answers piped into texts: `{name}`, `{each}` and `{pass}`; `{{` and `}}` stand for braces.
 * A brace that opens neither is left as it is.
 */

import { rowsOf } from '../document/answer-types';
import { propertiesThat, type HolderKind } from '../document/properties';
import { optionsOf } from '../document/shape';
import type { RoutedItem } from '../document/types';

const PIPED = new Map<HolderKind, readonly string[]>();

/** The texts of a part itself into which answers can be piped, with the names of their properties. */
export function textsOf(kind: HolderKind, part: object): { readonly name: string; readonly text: string }[] {
  let names = PIPED.get(kind);
  if (names === undefined) {
    names = propertiesThat(kind, ({ holds }) => holds === 'piped words');
    PIPED.set(kind, names);
  }
  const holder = part as Readonly<Record<string, string | undefined>>;
  return names.flatMap((name) => (holder[name] === undefined ? [] : [{ name, text: holder[name] }]));
}

/** The texts of an item with those of its answers and rows. */
export function textsOfItem(item: RoutedItem): string[] {
  const own = textsOf(item.kind, item).map(({ text }) => text);
  if (item.kind === 'statement') return own;
  const options = optionsOf(item.answer).flatMap((option) => textsOf('option', option));
  const rows = rowsOf(item.answer).flatMap((row) => textsOf('row', row));
  return [...own, ...[...options, ...rows].map(({ text }) => text)];
}

const PIPED_INTO = new WeakMap<RoutedItem, readonly string[]>();

/** The names piped into any text of an item, each once; kept as long as the item is the same. */
export function pipedInto(item: RoutedItem): readonly string[] {
  let names = PIPED_INTO.get(item);
  if (names === undefined) {
    names = [...new Set(textsOfItem(item).flatMap(pipedNames))];
    PIPED_INTO.set(item, names);
  }
  return names;
}

export type TextPart =
  { readonly kind: 'words'; readonly text: string } | { readonly kind: 'pipe'; readonly name: string };

const PART = /\{\{|\}\}|\{([A-Za-z][A-Za-z0-9_]*)\}/g;

/** Words and pipes in turn; put together they are the text. */
export function textParts(text: string): TextPart[] {
  const parts: TextPart[] = [];
  let words = '';
  let at = 0;
  for (const match of text.matchAll(PART)) {
    words += text.slice(at, match.index);
    at = match.index + match[0].length;
    const name = match[1];
    if (name === undefined) {
      words += match[0].charAt(0);
      continue;
    }
    if (words !== '') parts.push({ kind: 'words', text: words });
    words = '';
    parts.push({ kind: 'pipe', name });
  }
  words += text.slice(at);
  if (words !== '') parts.push({ kind: 'words', text: words });
  return parts;
}

/** The names piped into a text, in order. */
export function pipedNames(text: string): string[] {
  return textParts(text).flatMap((part) => (part.kind === 'pipe' ? [part.name] : []));
}

/** Fills the pipes with `shown(name)`. */
export function fillPipes(text: string, shown: (name: string) => string): string {
  return textParts(text)
    .map((part) => (part.kind === 'words' ? part.text : shown(part.name)))
    .join('');
}
