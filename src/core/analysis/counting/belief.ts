/**
 * What can be true of a respondent, given all that they were shown so far.
 *
 * A belief is the item in hand with the diagram of everything that still matters and fits what was seen. From it,
 * everybody moves on silently, in masses, until each is presented an item or arrives at an ending; masses that
 * meet become one, so that each thing seen leads to one belief, and equal beliefs have equal futures.
 */
import type { EncodedPlan } from '../conditions/encoded-plan';
import { eachMove, movesOf, type Departure, type Moves } from '../conditions/moves';
import { FALSE, type Diagram } from '../diagrams/diagram';
import { Observations, type Observation } from './observations';

export interface Belief {
  readonly at: number;
  /** Over variables that still matter. */
  readonly known: Diagram;
}

/** Something that can be seen next, and what is true of all who see it, nothing forgotten yet. */
export interface Emission {
  readonly observation: Observation;
  readonly mass: Diagram;
}

/** What can be seen before a place is passed, and what is true of those who come there unseen. */
export interface SeenOnward {
  /** In canonical order. */
  readonly seen: readonly Emission[];
  readonly out: Diagram;
}

export class Beliefs {
  private readonly moves: Moves;
  /** What is seen is often the same whatever follows after. */
  private readonly settled = new WeakMap<Emission, Belief>();

  constructor(
    readonly encoded: EncodedPlan,
    readonly observations = new Observations(),
  ) {
    this.moves = movesOf(encoded);
    observations.renew(encoded.plan, encoded.course);
  }

  /** What can be seen first, in canonical order. */
  start(): readonly Emission[] {
    return this.entering(this.encoded.course.gate(0), this.encoded.given, Infinity).seen;
  }

  /** What can be seen after the item in hand has been answered and left, in canonical order. */
  after(belief: Belief): readonly Emission[] {
    return this.leaving(belief, Infinity).seen;
  }

  /** What those see first who come to a place, up to another that all pass who do not come to an ending before. */
  entering(at: number, mass: Diagram, until: number): SeenOnward {
    const masses = new Masses(this.encoded);
    masses.put(at, mass);
    return this.sweep(masses, at, until);
  }

  /** The same after the item in hand. */
  leaving({ at, known }: Belief, until: number): SeenOnward {
    const { encoded } = this;
    const { diagrams } = encoded;
    const masses = new Masses(encoded);
    const answered = diagrams.and(encoded.answering(known, at), encoded.itemAt(at).checks);
    this.send(masses, at, answered, this.moves.after(at));
    return this.sweep(masses, at + 1, until);
  }

  /** The belief of those who see an item. */
  settle(emission: Emission): Belief {
    let belief = this.settled.get(emission);
    if (belief === undefined) {
      const { mass, observation } = emission;
      const known = this.encoded.diagrams.forget(mass, this.encoded.isDeadAt(observation.rank));
      belief = { at: observation.rank, known };
      this.settled.set(emission, belief);
    }
    return belief;
  }

  private sweep(masses: Masses, from: number, until: number): SeenOnward {
    const { encoded } = this;
    const { diagrams, course } = encoded;
    const seen: Emission[] = [];
    let out: Diagram = FALSE;
    for (let at = from; masses.left > 0; at += 1) {
      if (at === until) {
        out = masses.take(at);
        // Whoever is not stopped here is at an ending: the places between hold nobody.
        at = course.ending(0) - 1;
        continue;
      }
      const mass = masses.take(at);
      if (mass === FALSE) continue;
      const place = course.places[at];
      if (place?.kind === 'ending') {
        seen.push({ observation: this.observations.at(at), mass });
        continue;
      }
      if (place?.kind === 'item') {
        const presented = diagrams.and(mass, encoded.itemAt(at).asked);
        if (presented !== FALSE) seen.push({ observation: this.observations.at(at), mass: presented });
      }
      this.send(masses, at, mass, this.moves.from(at));
    }
    return { seen, out };
  }

  private send(masses: Masses, at: number, mass: Diagram, { first, moves }: Departure): void {
    const { diagrams } = this.encoded;
    eachMove(diagrams, diagrams.and(mass, first), moves, (moving, { then, to }) => {
      if (to !== null) masses.send(at, to, diagrams.and(moving, then));
    });
  }
}

/** Those on their way, by the place they come to next. */
class Masses {
  /** Places that wait. */
  left = 0;
  private readonly waiting = new Map<number, Diagram>();

  constructor(private readonly encoded: EncodedPlan) {}

  /** Sends on; what stands between is passed over. */
  send(from: number, to: number, mass: Diagram): void {
    if (mass === FALSE) return;
    const { diagrams, course } = this.encoded;
    // At an ending nothing matters any more.
    const ends = course.places[to]?.kind === 'ending';
    if (ends) this.put(to, diagrams.and(mass, this.encoded.endingFrom(from)));
    else this.put(to, to === from + 1 ? mass : diagrams.and(mass, this.encoded.passedOver(from, to)));
  }

  put(to: number, mass: Diagram): void {
    if (mass === FALSE) return;
    const before = this.waiting.get(to);
    if (before === undefined) this.left += 1;
    this.waiting.set(to, before === undefined ? mass : this.encoded.diagrams.or(before, mass));
  }

  take(at: number): Diagram {
    const mass = this.waiting.get(at);
    if (mass === undefined) return FALSE;
    this.waiting.delete(at);
    this.left -= 1;
    return mass;
  }
}
