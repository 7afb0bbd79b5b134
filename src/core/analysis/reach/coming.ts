/**
 * Who comes to each place, among those who are possible at all, whatever they were shown on the way; and what is
 * possible: an answer that the item allows of those who are asked it, nothing of the rest. Nothing is forgotten, and
 * what is possible is brought in only for the answers that a question is about and those that decide on them.
 */
import type { EncodedPlan } from '../conditions/encoded-plan';
import type { Exit } from '../conditions/exits';
import { eachMove, movesOf, type Departure, type Move, type Moves } from '../conditions/moves';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';

/** Facts with more nodes are not gone through for every item. */
const MOST_FACTS = 4000;

/** The place of what is known beforehand. */
const BEFOREHAND = -1;

/** Something that is true of everybody, and what is settled by it: an answer, a draw, a pass begun, a count. */
export interface Fact {
  readonly of: 'answer' | 'given' | 'draw' | 'begun' | 'settled';
  /** Of an answer and a count, the place; of a draw and a pass begun, that of the start of the pass. */
  readonly at: number;
  readonly holds: Diagram;
}

export class Coming {
  private readonly diagrams: Diagrams;
  private readonly moves: Moves;
  private readonly comes: Diagram[] = [];
  /** Levels of the variables of being drawn, and of a pass having been begun, with the start of the pass. */
  private readonly passOfDraw = new Map<number, number>();
  private readonly passOfBegun = new Map<number, number>();
  private readonly possibleBefore = new Map<string, Diagram>();
  private readonly aroundBefore = new Map<string, Diagram>();

  /** `loosely`: of many hidden options it is not minded which are hidden; more is then held to be possible. */
  constructor(
    private readonly encoded: EncodedPlan,
    private readonly loosely = false,
  ) {
    this.diagrams = encoded.diagrams;
    this.moves = movesOf(encoded);
    const { course } = encoded;
    for (const [at, level] of encoded.drawnLevel) {
      const place = course.places[at];
      if (place?.kind === 'item') this.passOfDraw.set(level, course.pass(place.section, place.pass));
    }
    for (const [at, level] of encoded.begunLevel) this.passOfBegun.set(level, at);
    this.spread();
  }

  at(place: number): Diagram {
    return this.comes[place] ?? FALSE;
  }

  presentedAt(place: number): Diagram {
    return this.diagrams.and(this.at(place), this.encoded.itemAt(place).asked);
  }

  /** Those who take each of the ways on from the end of a pass, or from an item once it was presented. */
  takingAt(place: number): { readonly by: Exit['by']; readonly mass: Diagram }[] {
    const isItem = this.encoded.course.places[place]?.kind === 'item';
    const { moves } = isItem ? this.moves.after(place) : this.moves.from(place);
    const taking = new Map<Move, Diagram>();
    eachMove(this.diagrams, isItem ? this.presentedAt(place) : this.at(place), moves, (mass, move) =>
      taking.set(move, mass),
    );
    return moves.map((move) => ({
      by: move.by.kind === 'way' ? move.by.written : null,
      mass: taking.get(move) ?? FALSE,
    }));
  }

  /** Of whom a variable of being drawn tells something: the start of the pass. */
  passDrawnIn(level: number): number | undefined {
    return this.passOfDraw.get(level);
  }

  /**
   * What is possible of the answers that some diagrams name, and of those that decide whether they are asked; with
   * what else is true of an item, for those who are asked it. `before`: only what is settled before a place.
   */
  possible(
    about: readonly Diagram[],
    also: (place: number, asked: Diagram) => Diagram = () => TRUE,
    before = Infinity,
  ): Diagram {
    const { diagrams, encoded } = this;
    const open = about.flatMap((a) => diagrams.support(a));
    // Variables of one answer bring in the same: what is known of them before can be used again.
    const ranks = new Set(open.map((level) => encoded.homeOf(level) ?? `${level}`));
    const key = `${[...ranks].sort().join(' ')} < ${before}`;
    const known = this.possibleBefore.get(key);
    if (known !== undefined) return known;
    let result = TRUE;
    for (const { holds } of this.facts(about, also, before)) result = diagrams.and(result, holds);
    this.possibleBefore.set(key, result);
    return result;
  }

  /**
   * The same, said of the answers that the diagrams are about and those that decide whether they are asked; what only
   * limits what can be answered (options hidden by earlier picks) has been minded, and is forgotten.
   */
  possibleAround(about: readonly Diagram[]): Diagram {
    const { diagrams, encoded } = this;
    const gating = new Set<number>();
    const open = about.flatMap((a) => diagrams.support(a));
    for (let level = open.pop(); level !== undefined; level = open.pop()) {
      const home = encoded.homeOf(level);
      if (home === null || home === undefined || gating.has(home)) continue;
      gating.add(home);
      open.push(...diagrams.support(this.presentedAt(home)));
    }
    const key = [...gating].sort((a, b) => a - b).join(' ');
    const facts = this.possible(about);
    const of = `${facts}|${key}`;
    let result = this.aroundBefore.get(of);
    if (result === undefined) {
      const onlyOf = (homes: ReadonlySet<number>) =>
        diagrams.forget(facts, (level) => {
          const home = encoded.homeOf(level);
          return home !== null && home !== undefined && !homes.has(home);
        });
      result = onlyOf(gating);
      // Less of what is possible means more words at worst.
      if (diagrams.size(result, MOST_FACTS) === MOST_FACTS)
        result = onlyOf(
          new Set(about.flatMap((a) => diagrams.support(a)).flatMap((level) => encoded.homeOf(level) ?? [])),
        );
      this.aroundBefore.set(of, result);
    }
    return result;
  }

  /** Every fact that `possible` puts together, by itself, with the variables that it settles. */
  facts(
    about: readonly Diagram[],
    also: (place: number, asked: Diagram) => Diagram = () => TRUE,
    before = Infinity,
  ): readonly Fact[] {
    const { diagrams, encoded } = this;
    const open = about.flatMap((a) => diagrams.support(a));
    const done = new Set<string>();
    const facts: Fact[] = [];
    const add = (of: Fact['of'], at: number, fact: () => Diagram) => {
      if ((at >= before && of !== 'draw') || done.has(`${of} ${at}`)) return;
      done.add(`${of} ${at}`);
      const holds = fact();
      if (holds !== TRUE) facts.push({ of, at, holds });
      // What is drawn hangs on nothing else.
      if (of !== 'draw') open.push(...diagrams.support(holds));
    };
    for (let level = open.pop(); level !== undefined; level = open.pop()) {
      const drawnAt = this.passOfDraw.get(level);
      if (drawnAt !== undefined) add('draw', drawnAt, () => encoded.drawnIn(drawnAt));
      const begunAt = this.passOfBegun.get(level);
      const begun = diagrams.variable(level);
      if (begunAt !== undefined)
        add('begun', begunAt, () => diagrams.choose(this.at(begunAt), begun, diagrams.not(begun)));
      const settled = encoded.settledWith(level);
      if (settled !== undefined) add('settled', settled, () => encoded.settledAt(settled));
      const home = encoded.homeOf(level);
      if (home === null) add('given', BEFOREHAND, () => encoded.given);
      else if (home !== undefined) add('answer', home, () => this.answeredAt(home, also));
    }
    return facts;
  }

  /** That an item is answered as it allows by those who are presented it, and not at all by the rest. */
  private answeredAt(home: number, also: (place: number, asked: Diagram) => Diagram): Diagram {
    const { diagrams, encoded } = this;
    const here = this.presentedAt(home);
    const parts = encoded.domainParts(home);
    const domain = this.loosely && parts.length > 1 ? (parts[0] ?? TRUE) : encoded.domainAt(home);
    const allowed = diagrams.and(domain, encoded.itemAt(home).checks);
    const answered = diagrams.choose(here, allowed, encoded.unasked(home));
    return diagrams.and(answered, also(home, here));
  }

  private spread(): void {
    const { diagrams, encoded } = this;
    const { course } = encoded;
    const send = (to: number, mass: Diagram) => {
      this.comes[to] = diagrams.or(this.at(to), mass);
    };
    const follow = (mass: Diagram, { moves }: Departure) =>
      eachMove(diagrams, mass, moves, (moving, { to }) => {
        if (to !== null) send(to, moving);
      });
    send(course.gate(0), TRUE);
    course.places.forEach((place, at) => {
      if (place.kind === 'ending') return;
      follow(this.at(at), this.moves.from(at));
      if (place.kind === 'item') follow(this.presentedAt(at), this.moves.after(at));
    });
  }
}
