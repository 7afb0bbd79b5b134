/**
 * Who is asked an item, in words: a sentence, and the conditions that it is made of. Of a repeated item that is who has
 * the section at all, and within a pass its own condition.
 */
import { parseCondition } from '../condition/parse';
import type { Variables } from '../document/variables';
import { conditionSentence } from './sentence';

/** What the analysis tells of an item. Conditions, `always` or `never`. */
export interface AskedOf {
  /** Of a repeated item: in a pass that is run. Undefined until it has been worked out. */
  readonly if: string | undefined;
  /** Of a repeated item: who has each pass, as from outside the section; empty for others. */
  readonly passes: readonly string[];
}

export interface Base {
  /** A sentence without its full stop. */
  readonly sentence: string;
  /** Those that are neither `always` nor `never`: from outside first, then within a pass. */
  readonly conditions: readonly string[];
}

/** The conditions of a base together, as what comes after “where”; null where there are none. */
export function whereOf(variables: Variables, { conditions }: Pick<Base, 'conditions'>): string | null {
  return conditions.length === 0 ? null : conditions.map((text) => words(variables, text)).join(', and ');
}

/** `pass`: the base of one pass alone, as each has its columns in the data. */
export function baseOf(variables: Variables, asked: AskedOf, pass: number | null = null): Base {
  const { if: inPass, passes } = asked;
  if (inPass === undefined) return { sentence: '…', conditions: [] };
  const outer = passes.length === 0 ? null : (passes[(pass ?? 1) - 1] ?? 'never');
  if (inPass === 'never' || outer === 'never')
    return { sentence: pass === null ? 'Nobody: no route comes here' : 'Nobody', conditions: [] };
  const conditions = [outer ?? 'always', inPass].filter((text) => text !== 'always');
  const own = inPass === 'always' ? null : words(variables, inPass);
  if (outer === null) return { sentence: own === null ? 'Everyone' : `If ${own}`, conditions };
  const has = outer === 'always' ? 'Everyone' : `If ${words(variables, outer)}`;
  if (pass !== null) return { sentence: own === null ? has : `${has}, and there ${own}`, conditions };
  const most = passes.length;
  const times = most === 1 ? 'once' : `for each of up to ${most}`;
  return { sentence: own === null ? `${has}, ${times}` : `${has}, ${times} where ${own}`, conditions };
}

function words(variables: Variables, text: string): string {
  const parsed = parseCondition(text);
  return parsed.ok ? conditionSentence(parsed.tree, variables) : text;
}
