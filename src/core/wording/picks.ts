/** How many answers may be chosen, as respondents are told. */
import { hasRows, picksMany } from '../document/answer-types';
import type { Question } from '../document/types';

/** The author has said so already. */
const SAID = /all that apply|as many as|\b(?:up to|at most|no more than|exactly|at least) \S+/i;

/** “Choose all that apply.”; null where one answer is chosen, or the question's own words say how many. */
export function pickWords({ text, note = '', answer }: Question): string | null {
  if (SAID.test(text) || SAID.test(note)) return null;
  if (hasRows(answer)) return answer.pick === 'many' ? 'Choose all that apply in each row.' : null;
  if (!picksMany(answer)) return null;
  const { minPicks: least, maxPicks: most } = answer;
  if (least !== undefined && most !== undefined)
    return least === most ? `Choose exactly ${most}.` : `Choose ${least} to ${most}.`;
  if (most !== undefined) return most === 1 ? 'Choose one.' : `Choose at most ${most}.`;
  return least !== undefined && least > 1 ? `Choose at least ${least}.` : 'Choose all that apply.';
}
