/**
 * An edit as small operations, each with what it was made on: how edits travel between tabs and people.
 *
 * A questionnaire is taken as parts (sections, items, answers, endings …), told by their names rather than by where
 * they stand, so that an operation still finds its part after somebody else has moved, added or removed others.
 * `apply-operations.ts` applies them. Lists that are read as a whole (skips, checks, messages, cases) are one value.
 */
import isEqual from 'fast-deep-equal';
import {
  ANSWER_LISTS,
  listKey,
  numberedPart,
  PART_NAMED_BY,
  partKey,
  readPart,
  STUDY_LISTS,
  STUDY_PART,
  type AnswerList,
  type ListKey,
  type PartKey,
} from '../document/addresses';
import type { Questionnaire } from '../document/types';
import { longestAscending } from './ascending';

/** A place in a list: behind the part with the key `after`, or first. */
export interface ListPosition {
  readonly list: ListKey;
  readonly after: PartKey | null;
}

export type Operation =
  /** `before` and `after`: undefined where the property is absent. */
  | {
      readonly do: 'set';
      readonly part: PartKey;
      readonly field: string;
      readonly before?: unknown;
      readonly after?: unknown;
    }
  | { readonly do: 'add'; readonly part: PartKey; readonly to: ListPosition; readonly value: unknown }
  | { readonly do: 'remove'; readonly part: PartKey; readonly value: unknown }
  | {
      readonly do: 'move';
      readonly part: PartKey;
      /** `before`: the part that followed. */
      readonly from: ListPosition & { readonly before: PartKey | null };
      readonly to: ListPosition;
    };

export type Holder = Record<string, unknown>;

/** The lists that an answer may have, in the order in which they are gone through. */
export const LISTS_OF_ANSWER = Object.keys(ANSWER_LISTS) as AnswerList[];

/** One part of a questionnaire: its key, the list it stands in, and itself. */
export interface DocumentPart {
  readonly key: PartKey;
  readonly list: ListKey;
  readonly value: Holder;
}

/** The property by which parts of a kind are told apart; null where they have none. */
export function namedBy(key: PartKey): string | null {
  const { kind } = readPart(key);
  return kind === 'study' || kind === 'break' ? null : PART_NAMED_BY[kind];
}

/** Properties that hold parts of their own, and so are no property of the part. */
export const LISTS_WITHIN: Readonly<Record<string, readonly string[]>> = {
  study: ['given', 'quotas', 'sections', 'derived', 'endings', 'format', 'version'],
  section: ['items'],
  item: ['answer.options', 'answer.specials', 'answer.rows'],
};

/** What turns the one into the other, to be applied with `applyOperations`. */
export function operationsBetween(before: Questionnaire, after: Questionnaire): Operation[] {
  const [a, b] = [before, after] as unknown as [Holder, Holder];
  const operations: Operation[] = fieldsBetween(STUDY_PART, a, b, 'study');
  for (const list of ['given', 'quotas', 'derived', 'endings'] as const) {
    if (a[list] === b[list]) continue;
    operations.push(...listBetween(partsIn(list, a[list]), partsIn(list, b[list])));
  }
  if (a.sections !== b.sections) {
    const sections = partsIn('sections', a.sections);
    const sectionsNow = partsIn('sections', b.sections);
    const paired = pairs(sections, sectionsNow);
    const homes = new Map(sectionsNow.map(({ key }) => [key, paired.get(key)?.key ?? key]));
    const items = sections.flatMap(itemsOf);
    const itemsNow = sectionsNow.flatMap((section) =>
      itemsOf({ ...section, key: homes.get(section.key) ?? section.key }),
    );
    operations.push(...listBetween(sections, sectionsNow), ...listBetween(items, itemsNow));
  }
  // Until everything is in its place, all are called as they were.
  const renames = (operation: Operation) =>
    operation.do === 'set' && operation.field === namedBy(operation.part);
  const removals = (operation: Operation) => operation.do === 'remove';
  const rank = (operation: Operation) =>
    renames(operation)
      ? 3
      : operation.do === 'set'
        ? 0
        : removals(operation) && readPart(operation.part).kind === 'section'
          ? 2
          : 1;
  return operations
    .map((operation, n) => ({ operation, n }))
    .sort((x, y) => rank(x.operation) - rank(y.operation) || x.n - y.n)
    .map(({ operation }) => operation);
}

const KIND_IN = { ...STUDY_LISTS, ...ANSWER_LISTS };

/** The parts of a list; where a key stands twice, the later ones are numbered. `owner`: of lists of an answer, the item. */
export function partsIn(
  list: keyof typeof KIND_IN,
  values: unknown,
  owner: string | null = null,
): DocumentPart[] {
  const kind = KIND_IN[list];
  const key = listKey(list, owner);
  return numbered(
    ((values ?? []) as Holder[]).map((value) => ({
      key: partKey(kind, String(value[PART_NAMED_BY[kind]]), owner),
      list: key,
      value,
    })),
  );
}

/** The items of a section; page breaks, which have no name, are told by what stands before them. */
export function itemsOf({ key, value }: DocumentPart): DocumentPart[] {
  const list = listKey('items', readPart(key).name);
  let last = '';
  return numbered(
    (value.items as Holder[]).map((item) => {
      if (item.kind === 'page_break') return { key: partKey('break', last, list), list, value: item };
      last = String(item.name);
      return { key: partKey('item', last), list, value: item };
    }),
  );
}

function numbered(parts: DocumentPart[]): DocumentPart[] {
  const used = new Map<PartKey, number>();
  return parts.map((part) => {
    const times = (used.get(part.key) ?? 0) + 1;
    used.set(part.key, times);
    return times === 1 ? part : { ...part, key: numberedPart(part.key, times) };
  });
}

/** The lists of an item's answer, with its key as it was before. */
export function listsOfItem(key: PartKey, value: Holder): DocumentPart[][] {
  const answer = (value.answer ?? {}) as Holder;
  return LISTS_OF_ANSWER.map((list) => partsIn(list, answer[list], readPart(key).name));
}

/** The part before, of each part after that is still the same one: by its key, or renamed. */
function pairs(before: readonly DocumentPart[], after: readonly DocumentPart[]): Map<PartKey, DocumentPart> {
  const byKey = new Map(before.map((part) => [part.key, part]));
  const paired = new Map<PartKey, DocumentPart>();
  for (const { key } of after) {
    const same = byKey.get(key);
    if (same === undefined) continue;
    paired.set(key, same);
    byKey.delete(key);
  }
  for (const part of after) {
    if (paired.has(part.key)) continue;
    const was = [...byKey.values()].find((other) => isRenamed(other, part));
    if (was === undefined) continue;
    paired.set(part.key, was);
    byKey.delete(was.key);
  }
  return paired;
}

/** Most of what it says is the same, under another name. */
function isRenamed(was: DocumentPart, is: DocumentPart): boolean {
  const { kind } = readPart(is.key);
  if (readPart(was.key).kind !== kind || kind === 'break' || was.list !== is.list) return false;
  const fields = Object.keys(is.value).filter((field) => field !== namedBy(is.key));
  const same = fields.filter((field) => isEqual(was.value[field], is.value[field]));
  return same.length * 2 > fields.length || (kind === 'item' && isEqual(was.value.answer, is.value.answer));
}

function listBetween(before: readonly DocumentPart[], after: readonly DocumentPart[]): Operation[] {
  const paired = pairs(before, after);
  const kept = new Set([...paired.values()].map(({ key }) => key));
  const operations: Operation[] = before
    .filter(({ key }) => !kept.has(key))
    .map(({ key, value }) => ({ do: 'remove', part: key, value: valueOf(key, value) }));
  for (const { key, value } of after) {
    const was = paired.get(key);
    if (was !== undefined && was.value !== value) operations.push(...partBetween(was.key, was.value, value));
  }
  return [...operations, ...spotsBetween(before, after, paired)];
}

/** A section without its items, which are parts of their own. */
export function valueOf(key: PartKey, value: Holder): unknown {
  return readPart(key).kind === 'section' ? { ...value, items: [] } : value;
}

function partBetween(key: PartKey, before: Holder, after: Holder): Operation[] {
  const { kind } = readPart(key);
  const types = [before, after].map(({ answer }) => (answer as Holder | undefined)?.type);
  const split = kind === 'item' && types[0] !== undefined && types[0] === types[1];
  const operations = fieldsBetween(key, before, after, split ? 'item' : kind === 'section' ? 'section' : '');
  if (!split || before.answer === after.answer) return operations;
  const was = listsOfItem(key, before);
  // In the terms of before, so that an item that is renamed at the same time keeps its answers.
  const is = listsOfItem(key, after);
  return [...operations, ...was.flatMap((list, n) => listBetween(list, is[n] ?? []))];
}

/** `as`: what of the value is told by parts of its own (`LISTS_WITHIN`). */
function fieldsBetween(part: PartKey, before: Holder, after: Holder, as: string): Operation[] {
  const [was, is] = [fieldsOf(before, as), fieldsOf(after, as)];
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((field): Operation[] => {
    const values = [was.get(field), is.get(field)];
    if (values[0] === values[1] || isEqual(values[0], values[1])) return [];
    return [{ do: 'set', part, field, before: values[0], after: values[1] }];
  });
}

function fieldsOf(value: Holder, as: string): Map<string, unknown> {
  const within = LISTS_WITHIN[as] ?? [];
  const opened = as === 'item' ? 'answer' : as === 'study' ? 'settings' : '';
  const fields = Object.entries(value).flatMap(([name, field]): [string, unknown][] =>
    name === opened && field !== undefined
      ? Object.entries(field as Holder).map(([inner, each]) => [`${name}.${inner}`, each])
      : [[name, field]],
  );
  return new Map(fields.filter(([name, field]) => field !== undefined && !within.includes(name)));
}

/** What was added, and what stands elsewhere now, from the first on. */
function spotsBetween(
  before: readonly DocumentPart[],
  after: readonly DocumentPart[],
  paired: ReadonlyMap<PartKey, DocumentPart>,
): Operation[] {
  const place = new Map(before.map(({ key }, n) => [key, n]));
  const stays = staying(
    after.flatMap(({ key, list }) => {
      const was = paired.get(key);
      return was === undefined || was.list !== list ? [] : [{ key, at: place.get(was.key) ?? 0, list }];
    }),
  );
  const last = new Map<ListKey, PartKey>();
  return after.flatMap((part): Operation[] => {
    const was = paired.get(part.key);
    const key = was?.key ?? part.key;
    const to = { list: part.list, after: last.get(part.list) ?? null };
    last.set(part.list, key);
    if (was === undefined) return [{ do: 'add', part: key, to, value: valueOf(key, part.value) }];
    if (stays.has(part.key)) return [];
    const at = place.get(key) ?? 0;
    const beside = (other: DocumentPart | undefined) => (other?.list === was.list ? other.key : null);
    const from = { list: was.list, after: beside(before[at - 1]), before: beside(before[at + 1]) };
    return [{ do: 'move', part: key, from, to }];
  });
}

/** As many as possible that stay in order, list by list. */
function staying(parts: readonly { key: PartKey; at: number; list: ListKey }[]): ReadonlySet<PartKey> {
  const byList = new Map<ListKey, { key: PartKey; at: number }[]>();
  for (const { key, at, list } of parts) {
    const own = byList.get(list);
    if (own === undefined) byList.set(list, [{ key, at }]);
    else own.push({ key, at });
  }
  return new Set(
    [...byList.values()].flatMap((own) => {
      const run = longestAscending(own.map(({ at }) => at));
      return own.filter((_, n) => run.has(n)).map(({ key }) => key);
    }),
  );
}
