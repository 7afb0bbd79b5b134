/**
 * The answers and rows that a new question begins with: a suggestion, until somebody writes or pastes their own.
 *
 * Known by the very list, which every edit that leaves it alone passes on as it is; read anew from a file it is an
 * ordinary list.
 */
import type { Option } from '../document/types';

const suggested = new WeakSet<readonly object[]>();

/** Yes and No, and "don't know" where the study has it as a default. */
export function suggestedAnswers(dontKnow: boolean): Option[] {
  const options: Option[] = [
    { code: 1, label: 'Yes' },
    { code: 2, label: 'No' },
  ];
  if (dontKnow) options.push({ code: 98, label: "Don't know", missing: 'dont_know' });
  return suggest(options);
}

/** Makes a list a suggestion. */
export function suggest<Entry extends object>(list: Entry[]): Entry[] {
  suggested.add(list);
  return list;
}

export function isSuggested(list: readonly object[]): boolean {
  return suggested.has(list);
}
