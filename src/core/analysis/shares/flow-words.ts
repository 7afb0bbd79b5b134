/** Who goes from one part of a questionnaire straight to another, of those who are presented anything of the first. */
import type { Plan } from '../../routing/plan';
import { EncodedPlan } from '../conditions/encoded-plan';
import { CachedWork } from '../counting/analysis-cache';
import { FALSE } from '../diagrams/diagram';
import { withinMemory } from '../diagrams/limits';
import { Reaching } from '../reach/reach';
import { flowMasses, massesBetween, type Transition } from './transitions';

/** Items by name, and an ending by id; `from` null: the start. */
export interface Flowing {
  readonly from: readonly string[] | null;
  readonly to: readonly string[] | { readonly ending: string };
}

const MOST_NODES = 4_000_000;

/** A condition, `always` or `never`; null where that is too entangled to say. */
export function whoFlows(plan: Plan, { from, to }: Flowing): string | null {
  return withinMemory(() => {
    const work = new CachedWork({ nodes: MOST_NODES });
    const { diagrams, ranks } = work;
    const encoded = new EncodedPlan(plan, diagrams, { opaque: true, ranks });
    const reaching = new Reaching(encoded, work);
    const names = new Set('ending' in to ? [] : to);
    const { going, there } = massesBetween(
      encoded,
      reaching.coming,
      from === null ? null : new Set(from),
      ({ planItem, ending }) =>
        planItem === null
          ? 'ending' in to && plan.endings[ending]?.ending.id === to.ending
          : names.has(planItem.item.name),
    );
    const last = plan.sections.find(({ items }) => items.some(({ item }) => from?.includes(item.name)));
    return reaching.whoOf(going, there, last?.index ?? 0);
  });
}

/** A way from item to item, or to an ending. */
export interface FlowWords extends Pick<Transition, 'to'> {
  /** Name of the item. */
  readonly from: string;
  /** A condition, `always` or `never`. Names of a repeated section are of the pass that is left, its passes counted when over. */
  readonly who: string;
}

/** The same for every item and whatever comes straight after it, worked out together; null where that is too entangled. */
export function whoFlowsOn(plan: Plan): FlowWords[] | null {
  return withinMemory(() => {
    const work = new CachedWork({ nodes: MOST_NODES });
    const { diagrams, ranks } = work;
    const encoded = new EncodedPlan(plan, diagrams, { opaque: true, ranks });
    const reaching = new Reaching(encoded, work);
    const section = new Map(
      plan.sections.flatMap(({ index, items }) => items.map(({ item }) => [item.name, index] as const)),
    );
    return flowMasses(encoded, reaching.coming).map(({ from, to, going, there }) => ({
      from,
      to,
      who: going === FALSE ? 'never' : reaching.whoOf(going, there, section.get(from) ?? 0),
    }));
  });
}
