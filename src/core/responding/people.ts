/** People who are each sent a link of their own: read from a CSV file, with the values that are known of them beforehand. */
import { CsvRows, sniffFormat } from '../exchange/csv';
import { keyFields } from '../keying/fields';
import { readTyped } from '../keying/typed';
import type { Answers, Value } from '../document/types';
import type { Plan } from '../routing/plan';
import { walk } from '../routing/walk';

export interface PersonAsked {
  /** What they are called in the sample: told to nobody but the author. */
  readonly name: string;
  readonly given: Answers;
}

export type PeopleRead =
  | {
      readonly ok: true;
      readonly people: readonly PersonAsked[];
      /** Headings of columns that the questionnaire does not take. */
      readonly unused: readonly string[];
    }
  /** Sentences, each with its line; the first few where there are many. */
  | { readonly ok: false; readonly problems: readonly string[] };

export const MOST_PEOPLE = 20_000;
const LONGEST_NAME = 100;
const MOST_PROBLEMS = 8;

/**
 * Reads rows under a heading: the first column says who it is, the others are named like the values that the questionnaire takes
 * beforehand. Those that chance decides are not read.
 */
export function readPeople(plan: Plan, text: string): PeopleRead {
  const clean = text.replace(/^\uFEFF/, '');
  const [heading = [], ...rows] = new CsvRows(sniffFormat(clean.slice(0, 50_000))).push(clean, true);
  const headings = heading.map((cell) => cell.trim());
  const random = new Set((plan.document.given ?? []).flatMap((given) => (given.random ? [given.name] : [])));
  const fields = keyFields(plan).filter(({ planItem, key }) => planItem === null && !random.has(key));
  const columns = fields.map((field) => ({
    field,
    at: headings.findIndex((cell, n) => n > 0 && cell.toLowerCase() === field.key.toLowerCase()),
  }));
  const problems: string[] = [];
  for (const { field, at } of columns)
    if (at < 0) problems.push(`Line 1: there is no column “${field.key}” (${field.label}).`);
  if (rows.length === 0) problems.push('There is no line under the heading: each is a person.');
  if (rows.length > MOST_PEOPLE)
    problems.push(
      `There are ${rows.length.toLocaleString('en')} people; at most ${MOST_PEOPLE.toLocaleString('en')} are taken.`,
    );
  if (problems.length > 0) return { ok: false, problems };
  const lines = new Map<string, number>();
  const people = rows.flatMap((row, n): PersonAsked[] => {
    const line = n + 2;
    const name = (row[0] ?? '').trim();
    const before = lines.get(name);
    lines.set(name, line);
    if (name === '') problems.push(`Line ${line}: the first column says who it is, and is empty.`);
    else if (name.length > LONGEST_NAME)
      problems.push(`Line ${line}: the first column is longer than ${LONGEST_NAME} characters.`);
    else if (before !== undefined) problems.push(`Line ${line}: “${name}” stands on line ${before} already.`);
    const given: Record<string, Value> = {};
    for (const { field, at } of columns) {
      const typed = readTyped(field, row[at] ?? '');
      if (!typed.ok) problems.push(`Line ${line}, ${field.key}: ${typed.problem}.`);
      else if (typed.value === null) problems.push(`Line ${line}, ${field.key}: a value is needed.`);
      else given[field.key] = typed.value;
    }
    return [{ name, given }];
  });
  if (problems.length > 0)
    return {
      ok: false,
      problems: [
        ...problems.slice(0, MOST_PROBLEMS),
        ...(problems.length > MOST_PROBLEMS ? [`And ${problems.length - MOST_PROBLEMS} more.`] : []),
      ],
    };
  const unused = headings.slice(1).filter((_, n) => !columns.some(({ at }) => at === n + 1));
  return { ok: true, people, unused };
}

/** Names of the values that must be known before somebody can begin, and do not come by chance. */
export function neededBefore(plan: Plan): string[] {
  return (plan.document.given ?? []).flatMap(({ name, random }) => (random ? [] : [name]));
}

/** Whether a questionnaire can be begun with these values. */
export function canBegin(plan: Plan, given: Answers): boolean {
  return walk(plan, { answers: {}, given, seed: 1, lenient: true }).ok;
}
