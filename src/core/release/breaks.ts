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
  readonly by: 'type' | 'words' | 'codes' | 'base';
}

/** Both under the names of the new version; in its order. */
export function seriesBreaks(
  old: Questionnaire,
  now: Questionnaire,
  bases: readonly BaseChange[],
  codes: readonly CodeChange[],
): SeriesBreak[] {
  const before = questionsIn(old);
  const found: SeriesBreak[] = [...questionsIn(now)].flatMap(([name, question]) => {
    const earlier = before.get(name);
    return earlier === undefined ? [] : otherQuestion(name, earlier, question);
  });
  for (const change of codes) {
    const why = otherMeaning(change, codes);
    if (why !== null) found.push({ name: change.name, why, by: 'codes' });
  }
  for (const { name, old: was, now: is } of bases)
    if (before.has(name)) found.push({ name, why: `asked of others: ${was} before, ${is} now`, by: 'base' });
  const order = new Map([...questionsIn(now).keys()].map((name, n) => [name, n]));
  const place = ({ name }: SeriesBreak) => order.get(name) ?? order.size;
  return found.sort((a, b) => place(a) - place(b));
}

function otherQuestion(name: string, one: Question, other: Question): SeriesBreak[] {
  const found: SeriesBreak[] = [];
  const [type, typeNow] = [one.answer.type, other.answer.type];
  if (type !== typeNow)
    found.push({ name, why: `another type of answer: ${type} before, ${typeNow} now`, by: 'type' });
  if (plainWords(one.text) !== plainWords(other.text))
    found.push({ name, why: 'another question under the same name', by: 'words' });
  return found;
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
