/**
 * Who comes to each place, whatever they were shown on the way: one diagram a place, exact, of those who are
 * possible at all. Also finds one of them, with all they answer up to an ending.
 */
import { passKey } from '../../document/addresses';
import { routingContent } from '../../document/routing-content';
import { pipedInto } from '../../routing/pipes';
import type { Plan } from '../../routing/plan';
import type { DocumentPlace } from '../../routing/problems';
import { EncodedPlan } from '../conditions/encoded-plan';
import { encodedWithin } from '../conditions/encoded-within';
import type { AnalysisCache, CachedWork } from '../counting/analysis-cache';
import { chooseFor, respondentOf, valuesAlong, type Presented, type Witness } from '../counting/witness';
import { FALSE, TRUE, type Diagram } from '../diagrams/diagram';
import { DEFAULT_CAPS, TooManyNodes, TooMuch, withinMemory, type Caps } from '../diagrams/limits';
import { waysFrom, type Branch } from './fork-events';

/** A respondent, with what they are presented. */
export interface ExampleRespondent extends Witness {
  /** `name`, or `name#pass`. */
  readonly items: readonly string[];
  /** Null where they are stuck before one. */
  readonly ending: string | null;
}

/** Thrown where those who come on from a place cannot be told apart any more. */
export class Entangled extends TooManyNodes {
  constructor(readonly at: DocumentPlace) {
    super('the conditions are too entangled from here on');
  }
}

function placeOf({ course, plan }: EncodedPlan, at: number): DocumentPlace {
  const place = course.places[at];
  if (place === undefined) return {};
  if (place.kind === 'ending') return { ending: plan.endings[place.ending]?.ending.id ?? '' };
  const section = plan.sections[place.section];
  const item = place.kind === 'item' ? section?.items[place.item]?.item.name : undefined;
  return item === undefined ? { section: section?.section.id ?? '' } : { item };
}

interface Arrivals {
  readonly from: number;
  readonly branch: Branch;
}

export class Flow {
  private readonly comes: Diagram[] = [];
  private readonly arrivals: Arrivals[][] = [];
  private maySticks: boolean | null = null;
  /** Respondents found, by place and diagram. */
  private readonly examples = new Map<string, ExampleRespondent | null>();

  constructor(readonly encoded: EncodedPlan) {
    const { course } = encoded;
    this.comes[course.gate(0)] = encoded.given;
    course.places.forEach((_, at) => {
      try {
        this.arriveFrom(at);
      } catch (error) {
        throw error instanceof TooManyNodes ? new Entangled(placeOf(encoded, at)) : error;
      }
    });
  }

  private arriveFrom(at: number): void {
    this.forward(this.comesTo(at), at, (to, branch, mass) => {
      this.comes[to] = this.encoded.diagrams.or(this.comesTo(to), mass);
      (this.arrivals[to] ??= []).push({ from: at, branch });
    });
  }

  /** Those who come to a place. */
  comesTo(at: number): Diagram {
    const { diagrams } = this.encoded;
    return diagrams.and(this.comes[at] ?? FALSE, this.encoded.settledAt(at));
  }

  /** Of those who come to an item, the ones who are presented it. */
  presentedAt(at: number, mass = this.comesTo(at)): Diagram {
    return this.encoded.diagrams.and(mass, this.encoded.itemAt(at).asked);
  }

  /** Of those presented an item, with an answer that it allows. */
  answersAt(at: number, mass = this.comesTo(at)): Diagram {
    const { diagrams } = this.encoded;
    const allowed = diagrams.and(this.encoded.domainAt(at), this.encoded.itemAt(at).checks);
    return diagrams.and(this.presentedAt(at, mass), allowed);
  }

  /** Where some of those who come to a place get from there: by place, until `stop` says to look no further. */
  spread(
    from: number,
    mass: Diagram,
    stop: (at: number) => boolean = () => false,
  ): ReadonlyMap<number, Diagram> {
    const reached = new Map<number, Diagram>([[from, mass]]);
    for (let at = from; at < this.encoded.course.places.length; at += 1) {
      const here = reached.get(at);
      if (here === undefined || (at !== from && stop(at))) continue;
      this.forward(here, at, (to, _, sent) => {
        reached.set(to, this.encoded.diagrams.or(reached.get(to) ?? FALSE, sent));
      });
    }
    return reached;
  }

  /**
   * One of those who come to a place with something true of them; null where nobody does, or none was found. They go
   * on to an ending, if any of them can.
   */
  respondent(at: number, mass: Diagram): ExampleRespondent | null {
    const here = this.encoded.diagrams.and(this.comesTo(at), mass);
    if (here === FALSE) return null;
    const key = `${at} ${here}`;
    let example = this.examples.get(key);
    if (example === undefined) {
      example = this.exampleOf(at, here);
      this.examples.set(key, example);
    }
    return example;
  }

  private exampleOf(at: number, here: Diagram): ExampleRespondent | null {
    const { encoded } = this;
    const onward = this.toAnEnding(at, here) ?? [];
    const from = [here, ...onward.map(({ branch }) => branch.mass)];
    const before = this.wayTo(at, from);
    if (before === null) return null;
    const way = [...before, ...onward];
    const masses = [...before.map(({ branch }) => branch.mass), ...from];
    const presented = this.presentedOn(way);
    const last = onward.at(-1);
    const place = last === undefined ? undefined : encoded.course.places[last.from];
    const witness = respondentOf(encoded, [encoded.given, ...masses], presented);
    if (witness === null) return null;
    return {
      ...witness,
      items: presented.map(({ planItem, pass }) => passKey(planItem.item.name, pass)),
      ending: place?.kind === 'ending' ? (encoded.plan.endings[place.ending]?.ending.id ?? null) : null,
    };
  }

  /** A way from the start that some of those take who come to a place, every mass being true of them; null for none. */
  wayTo(at: number, masses: readonly Diagram[]): Arrivals[] | null {
    const { encoded } = this;
    const { diagrams } = encoded;
    const way: Arrivals[] = [];
    const values = valuesAlong(diagrams, masses);
    if (values === null) return null;
    for (let place = at; place !== encoded.course.gate(0);) {
      const found = this.arrivals[place]?.find(({ branch }) => chooseFor(diagrams, branch.mass, values));
      if (found === undefined) return null;
      way.push(found);
      place = found.from;
    }
    return way.reverse();
  }

  /** Whether some of those who go on to a place can come to an ending from there. */
  canEnd(at: number, mass: Diagram): boolean {
    this.maySticks ??= this.encoded.course.places.some(
      (place, n) => place.kind === 'item' && this.maySticksAt(n),
    );
    if (!this.maySticks) return true;
    return this.toAnEnding(at, this.encoded.diagrams.forget(mass, this.encoded.isPastAt(at))) !== null;
  }

  /** Whether, for all that its conditions say, an item may leave no answer to give. */
  private maySticksAt(at: number): boolean {
    const { encoded } = this;
    const allowed = encoded.diagrams.and(encoded.domainAt(at), encoded.itemAt(at).checks);
    return encoded.diagrams.forget(allowed, (level) => encoded.homeOf(level) === at) !== TRUE;
  }

  private forward(
    mass: Diagram,
    at: number,
    send: (to: number, branch: Branch, mass: Diagram) => void,
  ): void {
    if (mass === FALSE) return;
    const { encoded } = this;
    for (const branch of waysFrom(encoded, at, mass)) {
      if (branch.to !== null)
        send(branch.to, branch, encoded.diagrams.forget(branch.mass, encoded.isPastAt(branch.to)));
    }
  }

  private presentedOn(ways: readonly Arrivals[]): Presented[] {
    return ways.flatMap(({ from, branch }) => {
      if (!branch.presented) return [];
      const { planItem, pass } = this.encoded.itemAt(from);
      return [{ planItem, pass }];
    });
  }

  /** A way from a place past an ending, depth first; null where there is none. */
  private toAnEnding(at: number, mass: Diagram): Arrivals[] | null {
    const { encoded } = this;
    const dead = new Set<string>();
    /** From its end: it is as long as the questionnaire, and put together once. */
    const way: Arrivals[] = [];
    const search = (place: number, here: Diagram): boolean => {
      const key = `${place} ${here}`;
      if (dead.has(key)) return false;
      for (const branch of waysFrom(encoded, place, here)) {
        const { to, mass: sent } = branch;
        if (to === null || search(to, encoded.diagrams.forget(sent, encoded.isPastAt(to)))) {
          way.push({ from: place, branch });
          return true;
        }
      }
      dead.add(key);
      return false;
    };
    return search(at, mass) ? way.reverse() : null;
  }
}

/** Who comes to each place; where the conditions are too entangled, from which place on that is not known. */
type FlowFound = Flow | { readonly entangledAt: DocumentPlace };

/** What was found last with what is kept from one edit to the next, and of what. */
const found = new WeakMap<CachedWork, { readonly content: string; readonly flow: FlowFound }>();

/**
 * Who comes to each place, for the checks: every part of every condition can be asked about. With a cache, an edit of words
 * alone gives what was found before it, of the plan before it: who gets where is the same.
 */
export function flowOf(plan: Plan, caps: Caps = DEFAULT_CAPS, cache: AnalysisCache | null = null): FlowFound {
  if (cache === null) return flowFromNothing(plan, caps);
  const work = cache.work('checks', caps);
  const content = followedContent(plan);
  const known = found.get(work);
  if (known?.content === content) {
    // It may have diagrams of its own, where those that are kept were too full.
    if (known.flow instanceof Flow) known.flow.encoded.diagrams.rest();
    return known.flow;
  }
  const { diagrams, ranks } = work;
  const again = withinMemory(() => new Flow(new EncodedPlan(plan, diagrams, { parts: true, ranks })));
  if (again === null) cache.clear('checks');
  const flow = again ?? flowFromNothing(plan, caps);
  found.set(again === null ? cache.work('checks', caps) : work, { content, flow });
  return flow;
}

function flowFromNothing(plan: Plan, caps: Caps): FlowFound {
  try {
    return new Flow(encodedWithin(plan, caps, { parts: true }));
  } catch (error) {
    if (!(error instanceof TooMuch)) throw error;
    return { entangledAt: error instanceof Entangled ? error.at : {} };
  }
}

/** What decides who gets where, and what is looked into beside it: answers that texts use. */
function followedContent({ document, sections }: Plan): string {
  const piped = sections.flatMap(({ items }) =>
    items.flatMap(({ item }) => {
      const names = pipedInto(item);
      return names.length === 0 ? [] : [[item.name, ...names].join(' ')];
    }),
  );
  return [routingContent(document), ...piped].join('\n');
}
