/**
 * A respondent as steps, as they are written for whoever programs the questionnaire elsewhere and read back of what their
 * implementation showed: each thing that is presented with its answer, the ending last.
 */
import { nameInKey, passKey, readPassKey } from '../document/addresses';
import { hasRows, isDated, picksMany, ranksOptions, traitsOf } from '../document/answer-types';
import type { Answer, Value } from '../document/types';
import { partsAtMost, variableAnswer } from '../routing/answers';
import type { Plan } from '../routing/plan';

/** The columns that both directions have. */
export const STEP_COLUMNS = ['respondent', 'step', 'item', 'answer'] as const;

/** Written in place of an item; none of them can be the name of one. */
export const GIVEN = 'given ';
export const DRAWN = 'drawn ';
export const FULL = 'quotas full';
export const ENDING = 'ending';

/** Several codes, in the order of a rank, with semicolons; empty for a blank. */
export function answerWritten(value: Value | null | undefined): string {
  if (value === null || value === undefined) return '';
  return typeof value === 'object' ? value.join(';') : String(value);
}

/** What an answer stands for; null for a blank, undefined where it is none of this type. */
export function answerRead(answer: Answer, text: string): Value | null | undefined {
  const words = text.trim();
  if (words === '') return null;
  if (picksMany(answer) || ranksOptions(answer)) {
    const codes = words.split(';').map((code) => (code.trim() === '' ? NaN : Number(code)));
    return codes.every(Number.isSafeInteger) ? codes : undefined;
  }
  const isCode = isDated(answer) && /^-?\d+$/.test(words);
  if (traitsOf(answer).value !== 'number' && !isCode) return text;
  const number = Number(words);
  return Number.isFinite(number) ? number : undefined;
}

/** What is answered under a key (`name`, `name#pass`), and the key of the item that asks for it; null where there is none. */
export interface AskedUnder {
  /** Of the item: of a row of a grid, that of the grid. */
  readonly item: string;
  /** Null for a statement and for a grid itself, which is answered row by row. */
  readonly answer: Answer | null;
}

/** By the name of an item or of a row of a grid. */
export function askedUnder(plan: Plan): (key: string) => AskedUnder | null {
  const items = new Map<string, string>();
  for (const { items: planItems } of plan.sections)
    for (const planItem of planItems) {
      items.set(planItem.item.name, planItem.item.name);
      for (const { name } of partsAtMost(planItem)) items.set(name, planItem.item.name);
    }
  return (key) => {
    const { pass } = readPassKey(key);
    const name = nameInKey(key);
    const item = items.get(name);
    if (item === undefined) return null;
    const variable = plan.variables.get(name.toLowerCase());
    const own = variableAnswer(variable);
    return { item: passKey(item, pass), answer: own !== null && hasRows(own) ? null : own };
  };
}
