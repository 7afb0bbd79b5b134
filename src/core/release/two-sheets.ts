/**
 * What is other in a new version, as two sheets side by side: chapter by chapter, what stood there and what stands there
 * now, with the words that differ marked, and what breaks the series said.
 */
import { diffWordsWithSpace } from 'diff';
import { itemPlaces, type ItemPlaceIn } from './item-places';
import { optionsOf } from '../document/shape';
import type { Question, Questionnaire } from '../document/types';
import type { Plan } from '../routing/plan';
import { baseOf } from '../wording/base';
import { placeWords } from '../wording/places';
import { endingLabel } from '../wording/targets';
import type { BaseChange } from './base-changes';
import type { SeriesBreak } from './breaks';
import type { CodeChange } from './code-changes';
import type { Comparison } from './compare';
import type { TextChange } from './text-changes';
import type { Versions } from './versions';

/** In the order in which they are told. */
export const CHAPTERS = {
  bases: 'Who is asked',
  items: 'Items',
  words: 'Wording',
  codes: 'Codes and labels',
  conditions: 'Conditions',
  endings: 'Endings',
} as const;
export type Chapter = keyof typeof CHAPTERS;

/** Words in a row; those that the other side has not are marked. */
export interface Piece {
  readonly text: string;
  readonly isOther: boolean;
}

export interface SheetLine {
  /** What of the entry it is (“note”, “asked if”); null for its own words. */
  readonly part: string | null;
  readonly pieces: readonly Piece[];
  /** Of an answer. */
  readonly code: number | null;
}

export interface SheetEntry {
  /** A name, or the words for a place. */
  readonly title: string;
  readonly isName: boolean;
  /** What is other about it, in a few words. */
  readonly tag: string;
  /** The series of data breaks here. */
  readonly isBreak: boolean;
  /** None where it is not there. */
  readonly old: readonly SheetLine[];
  readonly now: readonly SheetLine[];
}

export type TwoSheets = readonly { readonly chapter: Chapter; readonly entries: readonly SheetEntry[] }[];

/** Chapters without a difference are left out. */
export function twoSheets(versions: Versions, found: Comparison): TwoSheets {
  const { renamed, now } = versions;
  const breaksBy = (by: SeriesBreak['by']) =>
    new Map(found.breaks.filter((each) => each.by === by).map(({ name, why }) => [name, why]));
  const entries: Readonly<Record<Chapter, readonly SheetEntry[]>> = {
    bases: found.bases.map((change) => baseEntry(versions, change, breaksBy('base').has(change.name))),
    items: itemEntries(versions, found, breaksBy('type')),
    words: textEntries(renamed, now, found.words, breaksBy('words')),
    codes: codeEntries(renamed, now, found.codes, breaksBy('codes')),
    conditions: textEntries(renamed, now, found.conditions, new Map()),
    endings: endingEntries(renamed, now, found.endings),
  };
  return (Object.keys(CHAPTERS) as Chapter[])
    .map((chapter) => ({ chapter, entries: entries[chapter] }))
    .filter((each) => each.entries.length > 0);
}

/** Two texts, each in pieces of what both have and what it has alone; null where there is none. */
export function marked(
  old: string | null,
  now: string | null,
): readonly [old: readonly Piece[], now: readonly Piece[]] {
  if (old === null || now === null) return [whole(old), whole(now)];
  const [left, right]: [Piece[], Piece[]] = [[], []];
  for (const { value: text, added, removed } of diffWordsWithSpace(old, now)) {
    if (!added) left.push({ text, isOther: removed });
    if (!removed) right.push({ text, isOther: added });
  }
  return [left, right];
}

const whole = (text: string | null): Piece[] => (text === null ? [] : [{ text, isOther: true }]);

const plain = (text: string, part: string | null = null): SheetLine => ({
  part,
  pieces: [{ text, isOther: false }],
  code: null,
});

/** The lines of a text on both sides; on a side that has none, no line. */
function textLines(part: string | null, old: string | null, now: string | null) {
  const [left, right] = marked(old, now);
  const line = (pieces: readonly Piece[]): SheetLine[] =>
    pieces.length === 0 ? [] : [{ part, pieces, code: null }];
  return { old: line(left), now: line(right) };
}

function baseEntry({ before, after }: Versions, change: BaseChange, isBreak: boolean): SheetEntry {
  const { name, old, now, oldShare, nowShare } = change;
  const sentence = (plan: Plan, text: string) => baseOf(plan.variables, { if: text, passes: [] }).sentence;
  const shares = oldShare === null || nowShare === null ? '' : ` ${percent(oldShare)} → ${percent(nowShare)}`;
  return {
    title: name,
    isName: true,
    tag: `base${shares}`,
    isBreak,
    ...textLines(null, sentence(before, old), sentence(after, now)),
  };
}

/** Of a share from 0 to 1, two digits that tell. */
export function percent(share: number): string {
  const of = 100 * share;
  return `${of === 0 || of >= 10 ? Math.round(of * 10) / 10 : Number(of.toPrecision(2))}%`;
}

function itemEntries(
  { old, renamed, now }: Versions,
  { items }: Comparison,
  otherType: ReadonlyMap<string, string>,
): SheetEntry[] {
  const [was, is] = [itemPlaces(renamed), itemPlaces(now)];
  const entry = (name: string, tag: string, rest: Partial<SheetEntry>): SheetEntry => ({
    title: name,
    isName: true,
    tag,
    isBreak: false,
    old: [],
    now: [],
    ...rest,
  });
  const words = (of: ItemPlaceIn | undefined): SheetLine[] =>
    of === undefined ? [] : [{ part: null, pieces: whole(of.text), code: null }];
  const places = itemPlaces(old);
  return [
    ...items.added.map((name) => entry(name, 'new', { now: words(is.get(name)) })),
    ...items.gone.map((name) => entry(name, 'gone', { old: words(places.get(name)) })),
    ...items.renamed.map(([from, to]) =>
      entry(`${from} → ${to}`, 'renamed', {
        old: [plain(places.get(from)?.text ?? '')],
        now: [plain(is.get(to)?.text ?? '')],
      }),
    ),
    ...items.moved.map((name) =>
      entry(name, 'moved', textLines(null, was.get(name)?.where ?? null, is.get(name)?.where ?? null)),
    ),
    ...[...otherType].map(([name, why]) =>
      entry(name, why, {
        isBreak: true,
        old: [plain(was.get(name)?.text ?? '')],
        now: [plain(is.get(name)?.text ?? '')],
      }),
    ),
  ];
}

/** Texts of one place together. */
function textEntries(
  old: Questionnaire,
  now: Questionnaire,
  changes: readonly TextChange[],
  breaks: ReadonlyMap<string, string>,
): SheetEntry[] {
  const byPlace = new Map<string, TextChange[]>();
  for (const change of changes) {
    const place = JSON.stringify(change.at);
    byPlace.set(place, [...(byPlace.get(place) ?? []), change]);
  }
  return [...byPlace.values()].map((texts) => {
    const [{ at }] = texts as [TextChange];
    const name = at.item ?? at.derived ?? at.given;
    const isName = name !== undefined && Object.keys(at).length === 1;
    const lines = texts.map((change) => {
      const part = isName && change.part === 'words' ? null : change.part;
      return textLines(part, change.old, change.now);
    });
    const why = isName ? breaks.get(name) : undefined;
    return {
      title: isName ? name : placeWords(at.section !== undefined || at.ending !== undefined ? now : old, at),
      isName,
      tag: why ?? [...new Set(texts.map(({ part }) => part))].join(', '),
      isBreak: why !== undefined,
      old: lines.flatMap((each) => each.old),
      now: lines.flatMap((each) => each.now),
    };
  });
}

/** Whole lists where something of them is other; of a plan of missing codes, what is other. */
function codeEntries(
  old: Questionnaire,
  now: Questionnaire,
  changes: readonly CodeChange[],
  breaks: ReadonlyMap<string, string>,
): SheetEntry[] {
  const [lists, listsNow] = [answerLists(old), answerLists(now)];
  const byName = new Map<string, CodeChange[]>();
  for (const change of changes) byName.set(change.name, [...(byName.get(change.name) ?? []), change]);
  return [...byName].map(([name, of]) => {
    const other = new Map(of.map((change) => [change.code, change]));
    const listed = (list: Codes | undefined, side: 'old' | 'now'): SheetLine[] =>
      (
        list ?? of.flatMap((each) => (each[side] === null ? [] : [{ code: each.code, label: each[side] }]))
      ).map(({ code, label }) => {
        const change = other.get(code);
        const [left, right] = marked(change?.old ?? null, change?.now ?? null);
        return {
          part: null,
          code,
          pieces: change === undefined ? [{ text: label, isOther: false }] : side === 'old' ? left : right,
        };
      });
    const why = breaks.get(name);
    return {
      title: name,
      isName: true,
      tag: why ?? 'codes and labels',
      isBreak: why !== undefined,
      old: listed(lists.get(name), 'old'),
      now: listed(listsNow.get(name), 'now'),
    };
  });
}

type Codes = readonly { readonly code: number; readonly label: string }[];

function answerLists({ sections }: Questionnaire): ReadonlyMap<string, Codes> {
  const questions = sections.flatMap(({ items }) =>
    items.filter((item): item is Question => item.kind === 'question'),
  );
  return new Map(questions.map(({ name, answer }) => [name, optionsOf(answer)]));
}

function endingEntries(
  old: Questionnaire,
  now: Questionnaire,
  { added, gone }: Comparison['endings'],
): SheetEntry[] {
  const entry = (document: Questionnaire, id: string, tag: string) => ({
    title: id,
    isName: true,
    tag,
    isBreak: false,
    lines: [{ part: null, pieces: whole(endingLabel(document, id)), code: null }],
  });
  return [
    ...added.map((id) => {
      const { lines, ...rest } = entry(now, id, 'new');
      return { ...rest, old: [], now: lines };
    }),
    ...gone.map((id) => {
      const { lines, ...rest } = entry(old, id, 'gone');
      return { ...rest, old: lines, now: [] };
    }),
  ];
}
