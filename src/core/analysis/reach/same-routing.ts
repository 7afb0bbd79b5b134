/**
 * Whether two versions of a questionnaire lead everybody the same way: every respondent is presented the same items, may
 * answer them alike, and comes to the same ending. Both are written over the same variables; then at every item those who
 * are presented it must be the same, among those who are possible as far as is settled before it: where two walks have
 * been alike so far, the same answers are known.
 */
import { passKey } from '../../document/addresses';
import type { Plan } from '../../routing/plan';
import { EncodedPlan } from '../conditions/encoded-plan';
import { CachedWork } from '../counting/analysis-cache';
import type { Diagram } from '../diagrams/diagram';
import { DEFAULT_CAPS, withinMemory, type Caps } from '../diagrams/limits';
import { Coming } from './coming';

interface Led {
  readonly encoded: EncodedPlan;
  readonly coming: Coming;
  /** By item and pass, or ending: those who come to it, those who answer it as it allows, and where it stands. */
  readonly places: ReadonlyMap<string, { readonly masses: readonly Diagram[]; readonly at: number }>;
}

/** Null where it cannot be told exactly. Throws `TooManyNodes` and the like where it is too much. */
function isSameRouting(one: Plan, other: Plan, work: CachedWork): boolean | null {
  // What is broken leads nobody as it is meant to.
  if (one.problems.length + other.problems.length > 0) return null;
  const first = led(one, work);
  const second = led(other, work);
  if (first.encoded.limits.length + second.encoded.limits.length > 0) return null;
  if (first.places.size !== second.places.size) return false;
  // Where the values of an answer are told apart in another way, nothing can be compared.
  for (const [key, symbol] of second.encoded.symbols) {
    const earlier = first.encoded.symbols.get(key);
    if (earlier !== undefined && earlier !== symbol) return null;
  }
  const { diagrams } = work;
  for (const [key, { masses, at }] of second.places) {
    const before = first.places.get(key)?.masses;
    if (before === undefined) return false;
    const isSame = masses.every((mass, n) => {
      const earlier = before[n] as Diagram;
      if (mass === earlier) return true;
      // The tests of both are made in the second, so what is possible there tells how they go together. What an item
      // may be answered with is asked of its own answer, too.
      const settled = second.coming.possible([mass, earlier], undefined, n === 0 ? at : at + 1);
      return diagrams.and(mass, settled) === diagrams.and(earlier, settled);
    });
    if (!isSame) return false;
  }
  return true;
}

function led(plan: Plan, { diagrams, ranks }: CachedWork): Led {
  const encoded = new EncodedPlan(plan, diagrams, { ranks, keepsTests: true });
  const coming = new Coming(encoded);
  const places = new Map<string, { masses: readonly Diagram[]; at: number }>();
  encoded.course.places.forEach((place, at) => {
    if (place.kind === 'item') {
      const { planItem, pass, checks } = encoded.itemAt(at);
      const presented = coming.presentedAt(at);
      const answered = diagrams.and(presented, diagrams.and(encoded.domainAt(at), checks));
      places.set(passKey(planItem.item.name, pass), { masses: [presented, answered], at });
    } else if (place.kind === 'ending') {
      const id = plan.endings[place.ending]?.ending.id ?? '';
      places.set(`> ${id}`, { masses: [coming.at(at)], at });
    }
  });
  return { encoded, coming, places };
}

/**
 * Whether two versions of a questionnaire lead everybody the same way; null where that cannot be told exactly, or the
 * conditions are too entangled.
 */
export function sameRouting(one: Plan, other: Plan, caps: Caps = DEFAULT_CAPS): boolean | null {
  return withinMemory(() => isSameRouting(one, other, new CachedWork(caps)));
}
