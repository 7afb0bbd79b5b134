/** Who goes from one part of a questionnaire straight to another, of those who are presented anything of the first. */
import { parseCondition } from '../../condition/parse';
import { printCondition } from '../../condition/print';
import { eachName } from '../../condition/syntax';
import type { Plan } from '../../routing/plan';
import { EncodedPlan } from '../conditions/encoded-plan';
import { CachedWork } from '../counting/analysis-cache';
import { FALSE } from '../diagrams/diagram';
import { withinMemory } from '../diagrams/limits';
import { Reaching } from '../reach/reach';
import { flowMasses, massesBetween, type Going, type Transition } from './transitions';

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
    const masses = massesBetween(
      encoded,
      reaching.coming,
      from === null ? null : new Set(from),
      ({ planItem, ending }) =>
        planItem === null
          ? 'ending' in to && plan.endings[ending]?.ending.id === to.ending
          : names.has(planItem.item.name),
    );
    const last = plan.sections.find(({ items }) => items.some(({ item }) => from?.includes(item.name)));
    return new WhoGoes(plan, reaching).of(masses, last?.index ?? 0);
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
    const who = new WhoGoes(plan, reaching);
    return flowMasses(encoded, reaching.coming).map(({ from, to, ...masses }) => ({
      from,
      to,
      who: masses.going === FALSE ? 'never' : who.of(masses, section.get(from) ?? 0),
    }));
  });
}

/** Who goes a way on, in words that mean the same in whichever pass they are read. */
class WhoGoes {
  constructor(
    private readonly plan: Plan,
    private readonly reaching: Reaching,
  ) {}

  of({ going, there, passes }: Going, section: number): string {
    const who = this.reaching.whoOf(going, there, section);
    if (passes.length < 2 || !this.namesOwn(who, section)) return who;
    // What is answered in the pass may decide in one pass and not in another.
    const each = passes.map((in_, n) =>
      in_.there === FALSE ? null : this.reaching.whoOf(in_.going, in_.there, section, n + 1),
    );
    const texts = [...new Set(each.filter((text) => text !== null))];
    if (texts.length === 1) return texts[0] ?? who;
    const ways = texts
      .filter((text) => text !== 'never')
      .map((text) => {
        const passes = each.flatMap((of, n) => (of === text ? [`pass = ${n + 1}`] : [])).join(' or ');
        if (text === 'always') return passes;
        return `(${passes}) and ${text.includes(' or ') ? `(${text})` : text}`;
      });
    const read = parseCondition(ways.join(' or '));
    return read.ok ? printCondition(read.tree) : who;
  }

  /** Whether a condition names a question of the section otherwise than by counting passes. */
  private namesOwn(text: string, section: number): boolean {
    const read = parseCondition(text);
    let found = false;
    if (read.ok)
      eachName(read.tree, ({ name }) => {
        const variable = this.plan.variables.get(name.toLowerCase());
        if ((variable?.of === 'question' || variable?.of === 'row') && variable.section === section)
          found = true;
      });
    return found;
  }
}
