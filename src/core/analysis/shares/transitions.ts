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
    const to = targetOf(encoded, observation);
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

/** Those who go on from some items, of those who are presented any of them (`there`): all, and in each pass of the section. */
export interface Going {
  readonly going: Diagram;
  readonly there: Diagram;
  /** Pass after pass from the first; none of a section that is not repeated. */
  readonly passes: readonly { readonly going: Diagram; readonly there: Diagram }[];
}

/** What is true of those who go from one of some items to one of others, or to an ending, and of those who were presented one of the first. */
export function massesBetween(
  encoded: EncodedPlan,
  coming: Coming,
  from: ReadonlySet<string> | null,
  isThere: (observation: Emission['observation']) => boolean,
): Going {
  const goes = new ByPass(encoded);
  for (const { mass, observation, from: last } of emissionsIn(encoded, coming, from)) {
    if (from === null ? last !== null : last === null) continue;
    if (isThere(observation)) goes.add(last?.pass ?? null, mass);
  }
  if (from === null) return { going: goes.all, there: TRUE, passes: [] };
  const places = [...placesOf(encoded.plan)].flatMap(([name, place]) => (from.has(name) ? [place] : []));
  return together(goes, presentedAny(encoded, coming, places));
}

type Place = Readonly<{ section: number; passes: number | null; at: number }>;

/** Where each item stands, by its name; `passes` null outside repeated sections. */
function placesOf({ sections }: Plan): ReadonlyMap<string, Place> {
  return new Map(
    sections.flatMap(({ index, repeat, items }) =>
      items.map(({ item, index: at }) => [item.name, { section: index, passes: repeat?.max ?? null, at }]),
    ),
  );
}

/** Who is presented what stands in any of some places. */
function presentedAny(encoded: EncodedPlan, coming: Coming, places: readonly Place[]): ByPass {
  const presented = new ByPass(encoded);
  for (const { section, passes, at } of places)
    for (let pass = 1; pass <= (passes ?? 1); pass += 1)
      presented.add(
        passes === null ? null : pass,
        coming.presentedAt(encoded.course.item(section, pass, at)),
      );
  return presented;
}

/** Of everybody who is presented an item, those who go on to each other item, or ending. */
export function flowMasses(
  encoded: EncodedPlan,
  coming: Coming,
): (Going & { readonly from: string; readonly to: Transition['to'] })[] {
  const flows = new Map<string, { from: string; to: Transition['to']; goes: ByPass }>();
  for (const { mass, observation, from } of emissionsIn(encoded, coming)) {
    if (from === null) continue;
    const to = targetOf(encoded, observation);
    const key = JSON.stringify([from.name, to]);
    const flow = flows.get(key) ?? { from: from.name, to, goes: new ByPass(encoded) };
    flow.goes.add(from.pass, mass);
    flows.set(key, flow);
  }
  const there = new Map(
    [...placesOf(encoded.plan)].map(([name, place]) => [name, presentedAny(encoded, coming, [place])]),
  );
  return [...flows.values()].map(({ from, to, goes }) => ({
    from,
    to,
    ...together(goes, there.get(from) ?? new ByPass(encoded)),
  }));
}

/** Who does something in any pass, and in each. */
class ByPass {
  all: Diagram = FALSE;
  readonly passes: Diagram[] = [];

  constructor(private readonly encoded: EncodedPlan) {}

  /** `pass` from 1; null outside a repeated section. */
  add(pass: number | null, mass: Diagram): void {
    const { diagrams } = this.encoded;
    this.all = diagrams.or(this.all, mass);
    if (pass !== null) this.passes[pass - 1] = diagrams.or(this.passes[pass - 1] ?? FALSE, mass);
  }
}

function together(goes: ByPass, presented: ByPass): Going {
  return {
    going: goes.all,
    there: presented.all,
    passes: presented.passes.map((there, n) => ({ going: goes.passes[n] ?? FALSE, there })),
  };
}

function targetOf({ plan }: EncodedPlan, { planItem, ending }: Emission['observation']): Transition['to'] {
  return planItem === null ? { ending: plan.endings[ending]?.ending.id ?? '' } : { item: planItem.item.name };
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
        const presented = coming.presentedAt(at);
        for (const emission of beliefs.after({ at, known: presented }))
          // Where many options hide, who was presented the item is forgotten on the way.
          yield { ...emission, mass: encoded.diagrams.and(emission.mass, presented), from };
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
