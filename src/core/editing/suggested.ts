/**
 * The answers, rows and limits that a new question begins with: a suggestion, until somebody writes or pastes their own.
 *
 * Known by the very list (or, for limits, the very answer), which every edit that leaves it alone passes on as it is; read anew from a file it is an
 * ordinary list.
 */
import type { NumberAnswer, Option } from '../document/types';

const suggested = new WeakSet<object>();

/** Yes and No, and "don't know" where the study has it as a default. */
export function suggestedAnswers(dontKnow: boolean): Option[] {
  const options: Option[] = [
    { code: 1, label: 'Yes' },
    { code: 2, label: 'No' },
  ];
  if (dontKnow) options.push({ code: 98, label: "Don't know", missing: 'dont_know' });
  return suggest(options);
}

/** A number with the limits that the words of its question make likely; the author is asked for the true ones. */
export function suggestedNumber(words: string): NumberAnswer {
  const [min, max] = likelyLimits(words);
  return suggest({ type: 'number', min, max });
}

function likelyLimits(words: string): [min: number, max: number] {
  if (/\b(?:what|which) year\b/i.test(words)) return [1900, 2100];
  if (/\bhow old\b|\byour age\b|\bage at\b/i.test(words)) return [0, 120];
  if (/per ?cent|%/i.test(words)) return [0, 100];
  return [0, 999];
}

/** Makes a list, or an answer, a suggestion. */
export function suggest<Value extends object>(value: Value): Value {
  suggested.add(value);
  return value;
}

export function isSuggested(value: object): boolean {
  return suggested.has(value);
}
