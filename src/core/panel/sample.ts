/** A sample of made-up people: a name for each, and the values that are known of them beforehand, as they are assumed. */
import { optionsOf } from '../document/shape';
import type { Value } from '../document/types';
import type { PersonAsked } from '../responding/people';
import { generatorFor } from '../routing/chance';
import type { Plan } from '../routing/plan';
import { drawAnswer } from '../simulate/drawing';

/** The same people for the same seed. */
export function madeUpSample(plan: Plan, count: number, seed: number): PersonAsked[] {
  const width = String(count).length;
  const entries = (plan.document.given ?? []).filter(({ random }) => !random);
  return Array.from({ length: count }, (_, n) => {
    const given = entries.map(({ name, answer, assume }): [string, Value | null] => {
      const shown = { options: optionsOf(answer).map(() => true), rows: [] };
      const of = { answer, required: true, ...(assume ? { assume } : {}) };
      return [name, drawAnswer(generatorFor(seed, `${n + 1}/given/${name}`), of, shown)];
    });
    return { name: `Member ${String(n + 1).padStart(width, '0')}`, given: Object.fromEntries(given) };
  });
}
