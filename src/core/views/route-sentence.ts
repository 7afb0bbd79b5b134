/**
 * A route as a plain sentence: who takes it. “A respondent who says yes to “Aged 18 or over” and answers Rent it to “Tenure” …”
 * It speaks of the answers that steer, of numbers by the span that steers alike.
 */
import { steeringParts } from './steering-parts';
import { alikeTo } from '../analysis';
import { isNumeric } from '../document/answer-types';
import type { Answer, Answers, Value } from '../document/types';
import type { Plan } from '../routing/plan';
import { valueWords } from '../wording/values';

/** A piece of the sentence; what was answered is told apart. */
export interface SentencePart {
  readonly text: string;
  readonly answer: boolean;
}

interface SaidAnswer {
  readonly label: string;
  readonly passes: readonly number[];
  readonly words: string;
}

/** Without its full stop; “Every respondent” where nothing steers. */
export function routeSentence(
  plan: Plan,
  route: { readonly items: readonly string[]; readonly answers: Answers },
): SentencePart[] {
  const said = saidOn(plan, route);
  const yes = said.filter(({ words }) => isYesOrNo(words, 'yes'));
  const no = said.filter(({ words }) => isYesOrNo(words, 'no'));
  const blank = said.filter(({ words }) => words === '');
  const rest = said.filter((each) => ![yes, no, blank].some((list) => list.includes(each)));
  if (said.length === 0) return [plain('Every respondent')];
  const parts: SentencePart[] = [plain('A respondent')];
  const clauses: SentencePart[][] = [];
  if (yes.length > 0) clauses.push([plain('says '), strong('yes'), plain(' to '), ...labels(yes)]);
  if (no.length > 0) clauses.push([plain('says '), strong('no'), plain(' to '), ...labels(no)]);
  if (blank.length > 0) clauses.push([plain('leaves '), ...labels(blank), plain(' '), strong('blank')]);
  if (rest.length > 0)
    clauses.push([
      plain('answers '),
      ...rest.flatMap((each, n) => [
        plain(between(n, rest.length)),
        strong(each.words),
        plain(` to ${labelOf(each)}`),
      ]),
    ]);
  clauses.forEach((clause, n) => {
    // Each clause is a list with an “and” of its own: between them stands a comma.
    parts.push(plain(n === 0 ? ' who ' : n === clauses.length - 1 ? ', and ' : ', '), ...clause);
  });
  return parts;
}

const plain = (text: string): SentencePart => ({ text, answer: false });
const strong = (text: string): SentencePart => ({ text, answer: true });

function labels(list: readonly SaidAnswer[]): SentencePart[] {
  return list.map((each, n) => plain(`${between(n, list.length)}${labelOf(each)}`));
}

function between(n: number, count: number): string {
  return n === 0 ? '' : n === count - 1 ? ' and ' : ', ';
}

function labelOf({ label, passes }: SaidAnswer): string {
  const words = `“${label}”`;
  if (passes.length === 0) return words;
  const [first = 0, last] = [passes[0], passes.at(-1)];
  const inARow = passes.length > 2 && passes.every((pass, n) => pass === first + n);
  return `${words} (${passes.length === 1 ? 'pass' : 'passes'} ${inARow ? `${first} to ${last}` : passes.join(', ')})`;
}

function isYesOrNo(words: string, which: 'yes' | 'no'): boolean {
  return new RegExp(`^${which}\\b`, 'i').test(words);
}

function saidOn(
  plan: Plan,
  route: { readonly items: readonly string[]; readonly answers: Answers },
): SaidAnswer[] {
  const found: SaidAnswer[] = [];
  for (const { driver, answer, label, pass, value } of steeringParts(plan, route)) {
    const words = wordsOf(driver, answer, value);
    const same = found.findIndex((each) => each.label === label && each.words === words);
    const before = found[same];
    if (before !== undefined && pass !== null) found[same] = { ...before, passes: [...before.passes, pass] };
    else found.push({ label, passes: pass === null ? [] : [pass], words });
  }
  return found;
}

function wordsOf(
  driver: Parameters<typeof alikeTo>[0],
  answer: Answer,
  value: Value | null | undefined,
): string {
  const alike = value === undefined || value === null ? null : alikeTo(driver, answer, value);
  if (alike === null || !isNumeric(answer) || alike.least === alike.most) return valueWords(answer, value);
  const { least, most } = alike;
  if (least === answer.min && most === answer.max) return 'anything';
  if (least === answer.min) return `at most ${most}`;
  return most === answer.max ? `at least ${least}` : `${least} to ${most}`;
}
