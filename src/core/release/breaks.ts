/**
 * Where a series of data breaks between two versions: a variable that keeps its name and means something else, because
 * its question, a code of its answers, or the base of who is asked is another.
 */
import type { Question, Questionnaire } from '../document/types';
import { questionsIn } from './aligned';
import type { BaseChange } from './base-changes';
import type { CodeChange } from './code-changes';

export interface SeriesBreak {
  readonly name: string;
  /** A clause without a full stop. */
  readonly why: string;
}

/** Both under the names of the new version; in its order. */
export function seriesBreaks(
  old: Questionnaire,
  now: Questionnaire,
  bases: readonly BaseChange[],
  codes: readonly CodeChange[],
): SeriesBreak[] {
  const before = questionsIn(old);
  const found = [...questionsIn(now)].flatMap(([name, question]) => {
    const earlier = before.get(name);
    return earlier === undefined ? [] : otherQuestion(earlier, question).map((why) => ({ name, why }));
  });
  for (const change of codes) {
    const why = otherMeaning(change, codes);
    if (why !== null) found.push({ name: change.name, why });
  }
  for (const { name, old: was, now: is } of bases)
    if (before.has(name)) found.push({ name, why: `asked of others: ${was} before, ${is} now` });
  const order = new Map([...questionsIn(now).keys()].map((name, n) => [name, n]));
  const place = ({ name }: SeriesBreak) => order.get(name) ?? order.size;
  return found.sort((a, b) => place(a) - place(b));
}

function otherQuestion(one: Question, other: Question): string[] {
  const why: string[] = [];
  if (one.answer.type !== other.answer.type)
    why.push(`another type of answer: ${one.answer.type} before, ${other.answer.type} now`);
  if (plainWords(one.text) !== plainWords(other.text)) why.push('another question under the same name');
  return why;
}

/** A code that was there and is called otherwise, or whose words have another code now. */
function otherMeaning({ name, code, old, now }: CodeChange, all: readonly CodeChange[]): string | null {
  if (old === null) return null;
  if (now !== null)
    return plainWords(old) === plainWords(now)
      ? null
      : `code ${code} means something else: “${old}” before, “${now}” now`;
  const moved = all.find(
    (other) =>
      other.name === name &&
      other.old === null &&
      other.now !== null &&
      plainWords(other.now) === plainWords(old),
  );
  return moved === undefined ? null : `“${old}” has another code: ${code} before, ${moved.code} now`;
}

/** Without what does not change a meaning: capitals, spaces, and signs between and after words. */
function plainWords(text: string): string {
  return text
    .toLowerCase()
    .replaceAll(/[\p{P}\s]+/gu, ' ')
    .trim();
}
