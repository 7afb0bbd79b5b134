/**
 * What a route presents to a respondent, as a fingerprint: the words, answers and messages, in order.
 *
 * A verdict is kept under it, so an edit re-opens just the routes on which something is shown differently;
 * renaming a variable or moving what a route does not meet changes none.
 */
import { passKey, readPassKey } from '../document/addresses';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Plan, PlanItem } from './plan';

/** Marks of what is shown: equal marks, equal words, answers and messages. */
export interface ContentMarks {
  item(name: string, pass: number | null): string;
  ending(id: string): string;
}

export function contentMarks(plan: Plan): ContentMarks {
  const items = new Map<string, string>();
  for (const section of plan.sections) {
    for (const planItem of section.items) items.set(planItem.item.name, mark(presented(planItem)));
  }
  const endings = new Map<string, string>();
  for (const { ending } of plan.endings) {
    endings.set(ending.id, mark([ending.kind, ending.messages.map(({ text }) => text), ending.next ?? null]));
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
  if (item.kind === 'statement') return [item.text, item.image?.src];
  const { answer } = item;
  const rows = answer.type === 'grid' ? answer.rows.map(({ label }) => label) : [];
  const options = 'options' in answer ? answer.options : 'specials' in answer ? (answer.specials ?? []) : [];
  const shownOptions = options.map(({ askIf: _, ...option }) => option);
  const rest = { ...answer, rows, options: shownOptions };
  const checks = item.checks?.map(({ kind, message }) => [kind, message]);
  return [
    item.text,
    item.note,
    item.image?.src,
    item.required,
    item.requiredMessage,
    item.limitMessage,
    item.comment,
    rest,
    checks,
  ];
}
