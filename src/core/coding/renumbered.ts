/**
 * What an edit of a questionnaire means for rows that are already there: variables under other names, answers under other
 * codes. Names and codes are known again by what they stand for.
 */
import { readPassKey, renamedKey } from '../document/addresses';
import { answeredNames, rowsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { GridRow, Question, Questionnaire, Value } from '../document/types';

export interface Renumbering {
  /** New names of questions and grid rows, by old ones. */
  readonly names: ReadonlyMap<string, string>;
  /** By the old name of a variable: new codes by old ones. */
  readonly codes: ReadonlyMap<string, ReadonlyMap<number, number>>;
}

/** Null where nothing that a row holds is called otherwise. */
export function renumberingBetween(before: Questionnaire, after: Questionnaire): Renumbering | null {
  const names = new Map<string, string>();
  const codes = new Map<string, ReadonlyMap<number, number>>();
  const now = questionsOf(after);
  const byName = new Map(now.map((question) => [question.name, question]));
  const known = new Set(questionsOf(before).map(({ name }) => name));
  const fresh = now.filter(({ name }) => !known.has(name));
  for (const question of questionsOf(before)) {
    const same = byName.get(question.name) ?? fresh.find((each) => isAlike(question, each));
    if (same === undefined || same.answer.type !== question.answer.type) continue;
    if (same.name !== question.name) names.set(question.name, same.name);
    const mapped = codesBetween(question, same);
    for (const [old, name] of rowsBetween(question, same)) names.set(old, name);
    if (mapped.size > 0) for (const name of answeredNames(question)) codes.set(name, mapped);
  }
  return names.size === 0 && codes.size === 0 ? null : { names, codes };
}

/** Answers under the names and codes that they have now; texts to specify and remarks go along. */
export function renumberAnswers<Held extends Value | null>(
  { names, codes }: Renumbering,
  answers: Readonly<Record<string, Held>>,
): Record<string, Held> {
  return Object.fromEntries(
    Object.entries(answers).map(([key, value]) => {
      const { name } = readPassKey(key);
      const detail = /^(.*)_(\d+)_text$/.exec(name);
      const remark = /^(.*)_comment$/.exec(name);
      if (detail !== null && (names.has(detail[1] ?? '') || codes.has(detail[1] ?? ''))) {
        const [, of = '', code = ''] = detail;
        return [
          renamedKey(key, `${names.get(of) ?? of}_${codes.get(of)?.get(Number(code)) ?? code}_text`),
          value,
        ];
      }
      if (remark !== null && names.has(remark[1] ?? ''))
        return [renamedKey(key, `${names.get(remark[1] ?? '')}_comment`), value];
      return [renamedKey(key, names.get(name) ?? name), recoded(value, codes.get(name))];
    }),
  );
}

function recoded<Held extends Value | null>(
  value: Held,
  codes: ReadonlyMap<number, number> | undefined,
): Held {
  if (codes === undefined) return value;
  if (typeof value === 'number') return (codes.get(value) ?? value) as Held;
  if (Array.isArray(value))
    return (value as readonly number[]).map((code) => codes.get(code) ?? code) as unknown as Held;
  return value;
}

/** By the words of the answers where each has its own, and else by their places. */
function codesBetween(before: Question, after: Question): Map<number, number> {
  const [old, now] = [optionsOf(before.answer), optionsOf(after.answer)];
  const found = new Map<number, number>();
  old.forEach((option, n) => {
    const named = now.filter(({ label }) => label === option.label);
    const once = old.filter(({ label }) => label === option.label).length === 1;
    const same = named.length === 1 && once ? named[0] : old.length === now.length ? now[n] : undefined;
    if (same !== undefined && same.label === option.label && same.code !== option.code)
      found.set(option.code, same.code);
  });
  return found;
}

/**
 * Rows of a grid that are called otherwise: known by their words, or by their place where no row came, went or moved. A
 * name that is still there is still its row, wherever that stands now.
 */
function rowsBetween(before: Question, after: Question): Map<string, string> {
  const [old, now] = [rowsOf(before.answer), rowsOf(after.answer)];
  const [known, kept] = [old, now].map((rows) => new Set(rows.map(({ name }) => name)));
  const isFresh = (row: GridRow | undefined) => row !== undefined && !known?.has(row.name);
  const found = new Map<string, string>();
  old.forEach((row, n) => {
    if (kept?.has(row.name)) return;
    const named = now.filter((each) => isFresh(each) && each.label === row.label);
    const same = named.length === 1 ? named[0] : old.length === now.length ? now[n] : undefined;
    if (same !== undefined && isFresh(same)) found.set(row.name, same.name);
  });
  return found;
}

/** The same question under another name: its words and its answers, conditions aside. */
function isAlike(a: Question, b: Question): boolean {
  const labels = ({ answer }: Question) =>
    optionsOf(answer)
      .map(({ label }) => label)
      .join('\n');
  return a.text === b.text && a.text !== '' && a.answer.type === b.answer.type && labels(a) === labels(b);
}

function questionsOf({ sections }: Questionnaire): Question[] {
  return sections.flatMap(({ items }) => items.filter((item) => item.kind === 'question'));
}
