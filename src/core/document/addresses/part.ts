/** What an operation changes: the parts of a questionnaire and the lists that they stand in. */
import { keySchema, type Branded } from './brand';

/** The kinds of parts, with the property by which those of a list are told apart. */
export const PART_NAMED_BY = {
  given: 'name',
  quota: 'id',
  section: 'id',
  item: 'name',
  derived: 'name',
  ending: 'id',
  option: 'code',
  special: 'code',
  row: 'name',
} as const;
/** `study` is the questionnaire itself; a page `break` has no name of its own. */
export type PartKind = keyof typeof PART_NAMED_BY | 'study' | 'break';

/**
 * `KIND:NAME`, of parts of an answer `KIND:ITEM/NAME`; the second with a name is `…#2`. `study` for the questionnaire. Of a
 * page break, its list and what stands before it there.
 */
export type PartKey = Branded<'part key'>;
export const STUDY_PART = 'study' as PartKey;

/** `owner`: of parts of an answer the item, of page breaks the list, as their own keys call them. */
export function partKey(
  kind: Exclude<PartKind, 'study'>,
  name: string,
  owner: string | null = null,
): PartKey {
  return `${kind}:${owner === null ? '' : `${owner}/`}${name}` as PartKey;
}

/** The `times`th part of a list that has this key, from 1. */
export function numberedPart(key: PartKey, times: number): PartKey {
  return (times === 1 ? key : `${key}#${times}`) as PartKey;
}

/** `name` is as the key calls it, with its number where another has it as well. */
export function readPart(key: PartKey): {
  readonly kind: PartKind;
  readonly name: string;
  readonly owner: string | null;
} {
  const colon = key.indexOf(':');
  if (colon < 0) return { kind: 'study', name: '', owner: null };
  const [kind, rest] = [key.slice(0, colon) as PartKind, key.slice(colon + 1)];
  const slash = WITHIN_ANSWER.has(kind) ? rest.indexOf('/') : -1;
  return { kind, name: rest.slice(slash + 1), owner: slash < 0 ? null : rest.slice(0, slash) };
}

const WITHIN_ANSWER: ReadonlySet<PartKind> = new Set(['option', 'special', 'row']);

export function parsePart(text: string): PartKey | null {
  const kind = text.slice(0, text.indexOf(':'));
  return text === STUDY_PART || kind === 'break' || Object.hasOwn(PART_NAMED_BY, kind)
    ? (text as PartKey)
    : null;
}

export const PartSchema = keySchema(parsePart, 'a part of a questionnaire is meant');

/** The key of the same part once it is called `now`; null where the key does not end with `was`. */
export function renamedPart(key: PartKey, was: string, now: string): PartKey | null {
  return key.endsWith(was) ? ((key.slice(0, key.length - was.length) + now) as PartKey) : null;
}

/** The lists of parts: those of the questionnaire, of a section, and of an item's answer. */
export const STUDY_LISTS = {
  given: 'given',
  quotas: 'quota',
  sections: 'section',
  derived: 'derived',
  endings: 'ending',
} as const;
export const ANSWER_LISTS = { options: 'option', specials: 'special', rows: 'row' } as const;
export type AnswerList = keyof typeof ANSWER_LISTS;
export type ListName = keyof typeof STUDY_LISTS | 'items' | AnswerList;

/** `LIST` of the questionnaire, `LIST:OWNER` of a section or an item, as their own keys call them. */
export type ListKey = Branded<'list key'>;

export function listKey(list: ListName, owner: string | null = null): ListKey {
  return (owner === null ? list : `${list}:${owner}`) as ListKey;
}

export function readList(key: ListKey): { readonly list: ListName; readonly owner: string | null } {
  const colon = key.indexOf(':');
  return colon < 0
    ? { list: key as string as ListName, owner: null }
    : { list: key.slice(0, colon) as ListName, owner: key.slice(colon + 1) };
}

export function parseList(text: string): ListKey | null {
  const { list, owner } = readList(text as ListKey);
  const known =
    owner === null ? Object.hasOwn(STUDY_LISTS, list) : list === 'items' || Object.hasOwn(ANSWER_LISTS, list);
  return known ? (text as ListKey) : null;
}

export const ListSchema = keySchema(parseList, 'a list of a questionnaire is meant');
