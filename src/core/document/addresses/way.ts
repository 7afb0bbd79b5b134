/** Which way is taken, and how many passes: what a list of routes is asked for in a link. */
import { address, nameAt, parseAddress } from './address';
import type { Branded } from './brand';

/** A skip of an item or an entry of a section's end, by its index in its list. */
export type WrittenWay =
  { readonly item: string; readonly skip: number } | { readonly section: string; readonly onward: number };

/** `NAME/INDEX` of a skip, `section:ID/INDEX` of an onward entry. */
export type WayKey = Branded<'way key'>;

export function wayKey(way: WrittenWay): WayKey {
  return ('item' in way
    ? `${way.item}/${way.skip}`
    : address('section', way.section, way.onward)) as string as WayKey;
}

/** Null for text that is none. */
export function parseWay(text: string): WrittenWay | null {
  const [, place = '', index = ''] = /^(.+)\/(\d+)$/s.exec(text) ?? [];
  if (place === '') return null;
  const section = nameAt(parseAddress(place), 'section');
  return section === null ? { item: place, skip: Number(index) } : { section, onward: Number(index) };
}

/** `ID/COUNT`: so many passes of a repeated section. */
export type PassCount = Branded<'pass count'>;

export function passCount(section: string, count: number): PassCount {
  return `${section}/${count}` as PassCount;
}

/** Null for text that is none. */
export function parsePassCount(text: string): { readonly section: string; readonly count: number } | null {
  const [, section = '', count = ''] = /^(.+)\/(\d+)$/s.exec(text) ?? [];
  return section === '' ? null : { section, count: Number(count) };
}
