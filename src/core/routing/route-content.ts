/**
 * What a route presents to a respondent, as a fingerprint: the words, answers and messages, in order.
 *
 * A verdict is kept under it, so an edit re-opens just the routes on which something is shown differently;
 * renaming a variable or moving what a route does not meet changes none.
 */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { passKey, readPassKey } from '../document/addresses';
import { rowsOf } from '../document/answer-types';
import { propertiesOf, propertiesThat, type HolderKind, type PartOf } from '../document/properties';
import { optionsOf } from '../document/shape';
import type { Answer } from '../document/types';
import type { Plan, PlanItem } from './plan';

/** Marks of what is shown: equal marks, equal words, answers and messages. */
export interface ContentMarks {
  item(name: string, pass: number | null): string;
  ending(id: string): string;
}

/** Equal marks: what is shown is equal, whatever it is called. */
export function contentMarks(plan: Plan): ContentMarks {
  const items = new Map<string, string>();
  for (const section of plan.sections) {
    for (const planItem of section.items) items.set(planItem.item.name, mark(presented(planItem)));
  }
  const endings = new Map<string, string>();
  for (const { ending } of plan.endings) {
    endings.set(ending.id, mark(seenOf('ending', ending)));
  }
  return {
    item: (name, pass) => passKey(items.get(name) ?? '', pass),
    ending: (id) => endings.get(id) ?? '',
  };
}

/** The marks of a route's items and, last, of its ending. */
export function routeMarks(marks: ContentMarks, items: readonly string[], ending: string): string[] {
  const shown = items.map((key) => {
    const { name, pass } = readPassKey(key);
    return marks.item(name, pass);
  });
  return [...shown, marks.ending(ending)];
}

/** SHA-256 of a route's marks, in hexadecimal. */
export function fingerprint(marks: readonly string[]): string {
  return bytesToHex(sha256(utf8ToBytes(marks.join('\n'))));
}

/** Ten characters of a hash tell the items of one questionnaire apart. */
function mark(content: unknown): string {
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(content)))).slice(0, 10);
}

/** What a respondent sees of an item: nothing of names, codes' meaning for routing, or conditions. */
function presented({ item }: PlanItem): unknown {
  return seenOf(item.kind, item);
}

const shownBefore = new Map<HolderKind, readonly string[]>();

/** The properties that are shown of such parts: asked for with every option of every item. */
function shownOf(kind: HolderKind): readonly string[] {
  const shown =
    shownBefore.get(kind) ?? propertiesThat<HolderKind>(kind, (property) => property.shown === true);
  shownBefore.set(kind, shown);
  return shown;
}

/** What is shown of a part, in the order of the table; of a part of which one property is shown, that. */
function seenOf(kind: HolderKind, part: object): unknown {
  const holder = part as Record<string, unknown>;
  if (kind === 'answer') return answerSeen(part as Answer);
  const shown = shownOf(kind);
  const seen = shown.map((name) => valueSeen(propertiesOf(kind)[name]?.parts, holder[name]));
  if (kind === 'option' || kind === 'next')
    return Object.fromEntries(shown.map((name, n) => [name, seen[n]]));
  return seen.length === 1 ? seen[0] : seen;
}

function valueSeen(parts: PartOf | undefined, value: unknown): unknown {
  if (parts === undefined || parts === 'item' || value === undefined) return value;
  return Array.isArray(value)
    ? value.map((each) => seenOf(parts, each as object))
    : seenOf(parts, value as object);
}

/** As it is written, with what the answers and rows show; specials are answers like others. */
function answerSeen(answer: Answer): unknown {
  const rows = rowsOf(answer);
  const seen = Object.entries(answer).map(([name, value]) => [
    name,
    valueSeen(propertiesOf('answer')[name]?.parts, value),
  ]);
  return {
    ...Object.fromEntries(seen),
    rows: valueSeen('row', rows),
    options: valueSeen('option', optionsOf(answer)),
  };
}
