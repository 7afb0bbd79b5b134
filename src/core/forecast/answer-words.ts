/** Answers that shares are assumed of, in words. */
import { optionsOf } from '../document/shape';
import type { Answer } from '../document/types';
import type { AssumedAnswer } from './one-more-point';

/** As short as it can be said: a label, “3”, “1 to 3”, “left blank”. */
export function assumedWords(answer: Answer, of: AssumedAnswer): string {
  if (of === 'blank') return 'left blank';
  if ('code' in of) {
    const label = optionsOf(answer).find(({ code }) => code === of.code)?.label ?? '';
    return label === '' ? String(of.code) : label;
  }
  return of.from === of.to ? String(of.from) : `${of.from} to ${of.to}`;
}
