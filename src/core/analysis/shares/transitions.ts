/**
 * Who is presented what next: of everybody who is presented an item, where each goes on to, and with what share of the
 * sample. All ways of all routes, taken together item by item.
 */
import type { Plan } from '../../routing/plan';
import type { EncodedPlan } from '../conditions/encoded-plan';
import { encodedWithin } from '../conditions/encoded-within';
import { Beliefs, type Emission } from '../counting/belief';
import { FALSE, TRUE, type Diagram } from '../diagrams/diagram';
import { DEFAULT_CAPS, withinMemory, type Caps } from '../diagrams/limits';
import { Coming } from '../reach/coming';
import type { Weighing } from './weighing';

export interface Transition {
  /** Name of the item; null at the start. */
  readonly from: string | null;
  readonly to: { readonly item: string } | { readonly ending: string };
  /** How often it happens, per respondent: a share of the sample, but for passes. Null where it is not known exactly. */
  readonly share: number | null;
  /** On into a later pass of the section. */
  readonly again: boolean;
}

interface Met extends Emission {
  readonly from: { readonly name: string; readonly pass: number | null } | null;
}

/** Those that somebody makes, in order; with `weighing`, of the same encoded plan, their shares. */
export function transitionsIn(encoded: EncodedPlan, weighing: Weighing | null): Transition[] {
  const coming = weighing?.coming ?? new Coming(encoded);
  const found = new Map<string, { transition: Transition; share: number }>();
  for (const met of emissionsIn(encoded, coming)) {
    const { from, observation, mass } = met;
    const again =
      from !== null &&
      observation.planItem !== null &&
      from.pass !== observation.pass &&
      observation.pass !== null;
    const to =
      observation.planItem === null
        ? { ending: encoded.plan.endings[observation.ending]?.ending.id ?? '' }
        : { item: observation.planItem.item.name };
    const key = JSON.stringify([from?.name ?? null, to, again && from.pass !== null]);
    const share = weighing === null ? 0 : weighing.shareOf(mass);
    const known = found.get(key);
    if (known !== undefined) known.share += share;
    else
      found.set(key, {
        transition: { from: from?.name ?? null, to, share: null, again: again && from.pass !== null },
        share,
      });
  }
  return [...found.values()].map(({ transition, share }) =>
    weighing === null ? transition : { ...transition, share },
  );
}

/** What is true of those who go from one of some items to one of others, or to an ending, and of those who were presented one of the first. */
export function massesBetween(
  encoded: EncodedPlan,
  coming: Coming,
  from: ReadonlySet<string> | null,
  goes: (observation: Emission['observation']) => boolean,
): { readonly going: Diagram; readonly there: Diagram } {
  const { diagrams, course } = encoded;
  let [going, there]: [Diagram, Diagram] = [FALSE, from === null ? TRUE : FALSE];
  for (const { mass, observation, from: last } of emissionsIn(encoded, coming, from)) {
    if (from === null ? last !== null : last === null) continue;
    if (goes(observation)) going = diagrams.or(going, mass);
  }
  for (const { index, repeat, items } of encoded.plan.sections) {
    for (const { item, index: at } of items) {
      if (from === null || !from.has(item.name)) continue;
      for (let pass = 1; pass <= (repeat?.max ?? 1); pass += 1)
        there = diagrams.or(there, coming.presentedAt(course.item(index, pass, at)));
    }
  }
  return { going, there };
}

/** What those see next who are presented each item, or just those named, and who start. */
function* emissionsIn(
  encoded: EncodedPlan,
  coming: Coming,
  only: ReadonlySet<string> | null = null,
): Generator<Met> {
  const beliefs = new Beliefs(encoded);
  const { course } = encoded;
  for (const emission of beliefs.start()) yield { ...emission, from: null };
  for (const { index, repeat, items } of encoded.plan.sections) {
    for (let pass = 1; pass <= (repeat?.max ?? 1); pass += 1) {
      for (const { item, index: n } of items) {
        if (only !== null && !only.has(item.name)) continue;
        const at = course.item(index, pass, n);
        const from = { name: item.name, pass: repeat === null ? null : pass };
        for (const emission of beliefs.after({ at, known: coming.presentedAt(at) }))
          yield { ...emission, from };
      }
    }
  }
}

/** Who is presented what next; shares are null where they could not be exact. Null where it is too entangled. */
export function transitionsOf(
  plan: Plan,
  shares: { transitions(): Transition[] } | null,
  caps: Caps = DEFAULT_CAPS,
): Transition[] | null {
  const weighed = shares && withinMemory(() => shares.transitions());
  return weighed ?? withinMemory(() => transitionsIn(encodedWithin(plan, caps), null));
}
