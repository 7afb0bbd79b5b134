/** Codes of two versions that are added, gone, or stand for something else, with what they are called. */
import { optionsOf } from '../document/shape';
import type { Questionnaire } from '../document/types';

export interface CodeChange {
  /** Of the question, the given or the derived variable; of the plan of missing codes, the reason. */
  readonly name: string;
  readonly code: number;
  /** What it is called; null where it is none. */
  readonly old: string | null;
  readonly now: string | null;
}

/** Of what both versions have; in the order of the new one, codes that are gone behind those that are there. */
export function codeChanges(old: Questionnaire, now: Questionnaire): CodeChange[] {
  const before = listsIn(old);
  return [...listsIn(now)].flatMap(([name, list]) => {
    const earlier = before.get(name);
    if (earlier === undefined) return [];
    return [...new Set([...list.keys(), ...earlier.keys()])].flatMap((code) => {
      const [was, is] = [earlier.get(code) ?? null, list.get(code) ?? null];
      return was === is ? [] : [{ name: nameOf(name), code, old: was, now: is }];
    });
  });
}

const MISSING = 'missing ';
const nameOf = (key: string) => (key.startsWith(MISSING) ? key.slice(MISSING.length) : key);

/** By variable, its codes with their labels; by reason, its code. */
function listsIn({
  missing,
  given = [],
  sections,
  derived = [],
}: Questionnaire): Map<string, Map<number, string>> {
  const found = new Map<string, Map<number, string>>();
  for (const { reason, code, label } of missing) found.set(`${MISSING}${reason}`, new Map([[code, label]]));
  const add = (name: string, list: readonly { readonly code: number; readonly label: string }[]) =>
    found.set(name, new Map(list.map(({ code, label }) => [code, label])));
  for (const { name, answer } of given) add(name, optionsOf(answer));
  for (const { items } of sections)
    for (const item of items) if (item.kind === 'question') add(item.name, optionsOf(item.answer));
  for (const each of derived)
    if ('cases' in each) {
      const { cases, else: rest } = each;
      const all = rest === undefined ? cases : [...cases, rest];
      add(
        each.name,
        all.map(({ code, label = '' }) => ({ code, label })),
      );
    }
  return found;
}
