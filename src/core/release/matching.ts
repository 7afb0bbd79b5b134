/**
 * Which items of two versions of a questionnaire are the same: those of one name, and of the rest those that were renamed,
 * told by what they ask.
 */
import { distance } from 'fastest-levenshtein';
import type { Item, Questionnaire } from '../document/types';
import { longestAscending } from '../editing/ascending';

export interface ItemMatching {
  /** By name in the old version, the name in the new one. */
  readonly byOld: ReadonlyMap<string, string>;
  readonly added: readonly string[];
  readonly gone: readonly string[];
  readonly renamed: readonly (readonly [old: string, now: string])[];
  /** By their new names: in another section, or elsewhere among those that both versions have. */
  readonly moved: readonly string[];
}

type NamedItem = Exclude<Item, { kind: 'page_break' }>;
interface Placed {
  readonly item: NamedItem;
  readonly section: string;
}

/** Words that differ in more than this share of their letters are another question. */
const ALIKE = 0.25;

export function matchItems(old: Questionnaire, now: Questionnaire): ItemMatching {
  const [before, after] = [placedItems(old), placedItems(now)];
  const byOld = new Map([...before.keys()].filter((name) => after.has(name)).map((name) => [name, name]));
  const lost = [...before].filter(([name]) => !after.has(name));
  const found = new Map([...after].filter(([name]) => !before.has(name)));
  const renamed: (readonly [string, string])[] = [];
  // The surest first, so that of two that are alike each finds its own.
  const pairs = lost.flatMap(([name, one]) =>
    [...found].flatMap(([other, two]) => {
      const apart = difference(one, two);
      return apart <= ALIKE ? [{ name, other, apart }] : [];
    }),
  );
  for (const { name, other } of pairs.sort((a, b) => a.apart - b.apart)) {
    if (byOld.has(name) || !found.delete(other)) continue;
    byOld.set(name, other);
    renamed.push([name, other]);
  }
  const order = [...before.keys()];
  return {
    byOld,
    added: [...found.keys()],
    gone: order.filter((name) => !byOld.has(name)),
    renamed: renamed.sort((a, b) => order.indexOf(a[0]) - order.indexOf(b[0])),
    moved: movedItems(before, after, byOld),
  };
}

function placedItems({ sections }: Questionnaire): Map<string, Placed> {
  const placed = new Map<string, Placed>();
  for (const { id, items } of sections)
    for (const item of items) if (item.kind !== 'page_break') placed.set(item.name, { item, section: id });
  return placed;
}

/** From 0, the same words and answers, to 1. Statements are no questions, and answers of another type another question. */
function difference({ item: one }: Placed, { item: other }: Placed): number {
  if (one.kind !== other.kind) return 1;
  if (one.kind === 'question' && other.kind === 'question') {
    if (one.answer.type !== other.answer.type) return 1;
    const answers = JSON.stringify(one.answer) === JSON.stringify(other.answer) ? 0 : ALIKE / 2;
    return answers + wordsApart(one.text, other.text);
  }
  return wordsApart(one.text, other.text);
}

/** The share of letters that have to be written anew. */
function wordsApart(one: string, other: string): number {
  const longest = Math.max(one.length, other.length);
  return longest === 0 ? 0 : distance(one, other) / longest;
}

function movedItems(
  before: ReadonlyMap<string, Placed>,
  after: ReadonlyMap<string, Placed>,
  byOld: ReadonlyMap<string, string>,
): string[] {
  const place = new Map([...after.keys()].map((name, n) => [name, n]));
  const common = [...before].flatMap(([name, placed]) => {
    const now = byOld.get(name);
    return now === undefined ? [] : [{ now, from: placed.section, at: place.get(now) ?? -1 }];
  });
  const stayed = longestAscending(common.map(({ at }) => at));
  const sections = new Set([...after.values()].map(({ section }) => section));
  const moved = new Set(
    common.flatMap(({ now, from }, n) => {
      const to = after.get(now)?.section;
      // A section that is called otherwise now, or gone, has taken nothing anywhere.
      return !stayed.has(n) || (to !== from && sections.has(from)) ? [now] : [];
    }),
  );
  return [...after.keys()].filter((name) => moved.has(name));
}
