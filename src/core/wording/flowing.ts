/** Who of those that come to a place goes on from it in some way, as a sentence. */
import { parseCondition } from '../condition/parse';
import type { Variables } from '../document/variables';
import { asSentence, conditionSentence } from './sentence';

/** `who`: a condition, `always` or `never`; null where it is too entangled to say. */
export function flowingSentence(who: string | null, variables: Variables): string {
  if (who === null) return 'Too entangled to say in words.';
  if (who === 'always') return 'Everybody who comes here.';
  if (who === 'never') return 'Nobody.';
  const parsed = parseCondition(who);
  return parsed.ok ? asSentence(conditionSentence(parsed.tree, variables)) : who;
}
