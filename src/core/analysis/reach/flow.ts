/**
 * Who comes to each place, whatever they were shown on the way: one diagram a place, exact, of those who are
 * possible at all. Also finds one of them, with all they answer up to an ending.
 */
import type { Workshop } from '../counting/workshop';
import type { Plan } from '../../routing/plan';
import { terrainWithin } from '../conditions/within';
import { DEFAULT_CAPS, TooManyNodes, TooMuch, withinMemory, type Caps } from '../diagrams/limits';
import { passKey } from '../../document/addresses';
import type { Place } from '../../routing/problems';
import { FALSE, TRUE, type Diagram } from '../diagrams/diagram';
import { Terrain } from '../conditions/terrain';
import { waysFrom, type Branch } from './ways';
import { fitting, respondentOf, valuesAlong, type Presented, type Witness } from '../counting/witness';

/** A respondent, with what they are presented. */
export interface Respondent extends Witness {
  /** `name`, or `name#pass`. */
  readonly items: readonly string[];
  /** Null where they are stuck before one. */
  readonly ending: string | null;
}

/** Thrown where those who come on from a place cannot be told apart any more. */
export class Entangled extends TooManyNodes {
  constructor(readonly at: Place) {
    super('the conditions are too entangled from here on');
  }
}

function placeOf({ layout, plan }: Terrain, at: number): Place {
  const place = layout.places[at];
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

  constructor(readonly terrain: Terrain) {
    const { layout } = terrain;
    this.comes[layout.gate(0)] = terrain.given;
    layout.places.forEach((_, at) => {
      try {
        this.arriveFrom(at);
      } catch (error) {
        throw error instanceof TooManyNodes ? new Entangled(placeOf(terrain, at)) : error;
      }
    });
  }

  private arriveFrom(at: number): void {
    this.forward(this.comesTo(at), at, (to, branch, mass) => {
      this.comes[to] = this.terrain.diagrams.or(this.comesTo(to), mass);
      (this.arrivals[to] ??= []).push({ from: at, branch });
    });
  }

  /** Those who come to a place. */
  comesTo(at: number): Diagram {
    const { diagrams } = this.terrain;
    return diagrams.and(this.comes[at] ?? FALSE, this.terrain.settledAt(at));
  }

  /** Of those who come to an item, the ones who are presented it. */
  presentedAt(at: number, mass = this.comesTo(at)): Diagram {
    return this.terrain.diagrams.and(mass, this.terrain.itemAt(at).asked);
  }

  /** Of those presented an item, with an answer that it allows. */
  answersAt(at: number, mass = this.comesTo(at)): Diagram {
    const { diagrams } = this.terrain;
    const allowed = diagrams.and(this.terrain.domainAt(at), this.terrain.itemAt(at).checks);
    return diagrams.and(this.presentedAt(at, mass), allowed);
  }

  /** Where some of those who come to a place get from there: by place, until `stop` says to look no further. */
  spread(
    from: number,
    mass: Diagram,
    stop: (at: number) => boolean = () => false,
  ): ReadonlyMap<number, Diagram> {
    const reached = new Map<number, Diagram>([[from, mass]]);
    for (let at = from; at < this.terrain.layout.places.length; at += 1) {
      const here = reached.get(at);
      if (here === undefined || (at !== from && stop(at))) continue;
      this.forward(here, at, (to, _, sent) => {
        reached.set(to, this.terrain.diagrams.or(reached.get(to) ?? FALSE, sent));
      });
    }
    return reached;
  }

  /**
   * One of those who come to a place with something true of them; null where nobody does, or none was found. They go
   * on to an ending, if any of them can.
   */
  respondent(at: number, mass: Diagram): Respondent | null {
    const { terrain } = this;
    const { diagrams } = terrain;
    const here = diagrams.and(this.comesTo(at), mass);
    if (here === FALSE) return null;
    const onward = this.toAnEnding(at, here) ?? [];
    const from = [here, ...onward.map(({ branch }) => branch.mass)];
    const before = this.wayTo(at, from);
    if (before === null) return null;
    const way = [...before, ...onward];
    const masses = [...before.map(({ branch }) => branch.mass), ...from];
    const presented = this.presentedOn(way);
    const last = onward.at(-1);
    const place = last === undefined ? undefined : terrain.layout.places[last.from];
    const witness = respondentOf(terrain, [terrain.given, ...masses], presented);
    if (witness === null) return null;
    return {
      ...witness,
      items: presented.map(({ planItem, pass }) => passKey(planItem.item.name, pass)),
      ending: place?.kind === 'ending' ? (terrain.plan.endings[place.ending]?.ending.id ?? null) : null,
    };
  }

  /** A way from the start that some of those take who come to a place, every mass being true of them; null for none. */
  wayTo(at: number, masses: readonly Diagram[]): Arrivals[] | null {
    const { terrain } = this;
    const { diagrams } = terrain;
    const way: Arrivals[] = [];
    let values: ReadonlyMap<number, boolean> | null = valuesAlong(diagrams, masses);
    for (let place = at; place !== terrain.layout.gate(0);) {
      const so: ReadonlyMap<number, boolean> | null = values;
      if (so === null) return null;
      const found = (this.arrivals[place] ?? []).find(
        ({ branch }) => fitting(diagrams, branch.mass, so) !== FALSE,
      );
      if (found === undefined) return null;
      values = valuesAlong(diagrams, [found.branch.mass], so);
      way.unshift(found);
      place = found.from;
    }
    return way;
  }

  /** Whether some of those who go on to a place can come to an ending from there. */
  canEnd(at: number, mass: Diagram): boolean {
    this.maySticks ??= this.terrain.layout.places.some(
      (place, n) => place.kind === 'item' && this.maySticksAt(n),
    );
    if (!this.maySticks) return true;
    return this.toAnEnding(at, this.terrain.diagrams.forget(mass, this.terrain.isPastAt(at))) !== null;
  }

  /** Whether, for all that its conditions say, an item may leave no answer to give. */
  private maySticksAt(at: number): boolean {
    const { terrain } = this;
    const allowed = terrain.diagrams.and(terrain.domainAt(at), terrain.itemAt(at).checks);
    return terrain.diagrams.forget(allowed, (level) => terrain.homeOf(level) === at) !== TRUE;
  }

  private forward(
    mass: Diagram,
    at: number,
    send: (to: number, branch: Branch, mass: Diagram) => void,
  ): void {
    if (mass === FALSE) return;
    const { terrain } = this;
    for (const branch of waysFrom(terrain, at, mass)) {
      if (branch.to !== null)
        send(branch.to, branch, terrain.diagrams.forget(branch.mass, terrain.isPastAt(branch.to)));
    }
  }

  private presentedOn(ways: readonly Arrivals[]): Presented[] {
    return ways.flatMap(({ from, branch }) => {
      if (!branch.presented) return [];
      const { planItem, pass } = this.terrain.itemAt(from);
      return [{ planItem, pass }];
    });
  }

  /** A way from a place past an ending, depth first; null where there is none. */
  private toAnEnding(at: number, mass: Diagram): Arrivals[] | null {
    const { terrain } = this;
    const dead = new Set<string>();
    const search = (place: number, here: Diagram): Arrivals[] | null => {
      const key = `${place} ${here}`;
      if (dead.has(key)) return null;
      for (const branch of waysFrom(terrain, place, here)) {
        const step = { from: place, branch };
        if (branch.to === null) return [step];
        const rest = search(branch.to, terrain.diagrams.forget(branch.mass, terrain.isPastAt(branch.to)));
        if (rest !== null) return [step, ...rest];
      }
      dead.add(key);
      return null;
    };
    return search(at, mass);
  }
}

/**
 * Who comes to each place, for the checks: every part of every condition can be asked about. Where the conditions are too
 * entangled, from which place on.
 */
export function flowOf(
  plan: Plan,
  caps: Caps = DEFAULT_CAPS,
  workshop: Workshop | null = null,
): Flow | { readonly entangledAt: Place } {
  const bench = workshop?.bench('checks', caps);
  if (bench !== undefined) {
    const { diagrams, ranks } = bench;
    const again = withinMemory(() => new Flow(new Terrain(plan, diagrams, { parts: true, ranks })));
    if (again !== null) return again;
    workshop?.clear('checks');
  }
  try {
    return new Flow(terrainWithin(plan, caps, { parts: true }));
  } catch (error) {
    if (!(error instanceof TooMuch)) throw error;
    return { entangledAt: error instanceof Entangled ? error.at : {} };
  }
}
