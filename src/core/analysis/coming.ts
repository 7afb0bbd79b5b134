/**
 * Who comes to each place, among those who are possible at all, whatever they were shown on the way; and what is
 * possible: an answer that the item allows of those who are asked it, nothing of the rest. Nothing is forgotten, and
 * what is possible is brought in only for the answers that a question is about and those that decide on them.
 */
import { FALSE, TRUE, type Diagram, type Diagrams } from './diagram';
import type { Terrain, Way } from './terrain';

export class Coming {
  private readonly diagrams: Diagrams;
  private readonly comes: Diagram[] = [];
  /** Levels of the variables of being drawn, and of a pass having been begun, with the start of the pass. */
  private readonly passOfDraw = new Map<number, number>();
  private readonly passOfBegun = new Map<number, number>();

  constructor(private readonly terrain: Terrain) {
    this.diagrams = terrain.diagrams;
    const { layout } = terrain;
    for (const [at, level] of terrain.drawnLevel) {
      const place = layout.places[at];
      if (place?.kind === 'item') this.passOfDraw.set(level, layout.pass(place.section, place.pass));
    }
    for (const [at, level] of terrain.begunLevel) this.passOfBegun.set(level, at);
    this.spread();
  }

  at(place: number): Diagram {
    return this.comes[place] ?? FALSE;
  }

  presentedAt(place: number): Diagram {
    return this.diagrams.and(this.at(place), this.terrain.itemAt(place).asked);
  }

  /** Those who take each of the ways on from the end of a pass, or from an item once it was presented. */
  takingAt(place: number): { readonly way: Way; readonly mass: Diagram }[] {
    const { diagrams, terrain } = this;
    const isItem = terrain.layout.places[place]?.kind === 'item';
    let rest = isItem ? this.presentedAt(place) : this.at(place);
    const on: Way = { when: TRUE, by: null, to: place + 1 };
    const ways = isItem ? [...terrain.itemAt(place).ways, on] : terrain.endAt(place);
    return ways.map((way) => {
      const mass = diagrams.and(rest, way.when);
      rest = diagrams.and(rest, diagrams.not(way.when));
      return { way, mass };
    });
  }

  /** Of whom a variable of being drawn tells something: the start of the pass. */
  passDrawnIn(level: number): number | undefined {
    return this.passOfDraw.get(level);
  }

  /**
   * What is possible of the answers that some diagrams name, and of those that decide whether they are asked; with
   * what else is true of an item, for those who are asked it.
   */
  possible(
    about: readonly Diagram[],
    also: (place: number, asked: Diagram) => Diagram = () => TRUE,
  ): Diagram {
    const { diagrams, terrain } = this;
    const open = about.flatMap((a) => diagrams.support(a));
    const done = new Set<number>();
    let result = TRUE;
    let withGiven = false;
    const add = (fact: Diagram) => {
      result = diagrams.and(result, fact);
      open.push(...diagrams.support(fact));
    };
    for (let level = open.pop(); level !== undefined; level = open.pop()) {
      const drawnAt = this.passOfDraw.get(level);
      if (drawnAt !== undefined) result = diagrams.and(result, terrain.drawnIn(drawnAt));
      const begunAt = this.passOfBegun.get(level);
      if (begunAt !== undefined && !done.has(begunAt)) {
        done.add(begunAt);
        const begun = diagrams.variable(level);
        add(diagrams.choose(this.at(begunAt), begun, diagrams.not(begun)));
      }
      const settled = terrain.settledWith(level);
      if (settled !== undefined && !done.has(settled)) {
        done.add(settled);
        add(terrain.settledAt(settled));
      }
      const home = terrain.homeOf(level);
      if (home === null && !withGiven) {
        withGiven = true;
        result = diagrams.and(result, terrain.given);
      }
      if (home === null || home === undefined || done.has(home)) continue;
      done.add(home);
      const here = this.presentedAt(home);
      const allowed = diagrams.and(terrain.domainAt(home), terrain.itemAt(home).checks);
      result = diagrams.and(result, diagrams.choose(here, allowed, terrain.unasked(home)));
      open.push(...diagrams.support(here), ...diagrams.support(allowed));
      add(also(home, here));
    }
    return result;
  }

  private spread(): void {
    const { diagrams, terrain } = this;
    const { layout } = terrain;
    const send = (to: number, mass: Diagram) => {
      this.comes[to] = diagrams.or(this.at(to), mass);
    };
    send(layout.gate(0), TRUE);
    layout.places.forEach((place, at) => {
      const mass = this.at(at);
      switch (place.kind) {
        case 'gate': {
          const enters = terrain.gateAt(at);
          const inside =
            place.aim === 0 ? layout.pass(place.section, 1) : layout.item(place.section, 1, place.aim);
          send(inside, diagrams.and(mass, enters));
          send(layout.gate(place.section + 1), diagrams.and(mass, diagrams.not(enters)));
          break;
        }
        case 'pass':
          send(at + 1, mass);
          break;
        case 'item':
          send(at + 1, diagrams.and(mass, diagrams.not(terrain.itemAt(at).asked)));
          for (const { way, mass: taking } of this.takingAt(at)) send(way.to, taking);
          break;
        case 'end':
          for (const { way, mass: taking } of this.takingAt(at)) send(way.to, taking);
          break;
        case 'ending':
          break;
        default:
          place satisfies never;
      }
    });
  }
}
