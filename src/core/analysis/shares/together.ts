/**
 * What is presented together: a circuit over whole interviews rather than over one item at a time, in which every place that is
 * presented is met once. Worked out in any algebra it gives how long interviews are, or how many break off before a place.
 *
 * Diagrams of all places are gone through side by side, answer by answer in their order. Where what is left of them falls into
 * groups that share no answer, the groups multiply (component caching; Sang, Beame and Kautz, "Performing Bayesian inference
 * by weighted model counting", 2005). Answers on which nothing hangs any more come to 1 and are left out.
 */
import { VARIABLES_EACH } from '../answers/answer-symbol';
import type { EncodedPlan } from '../conditions/encoded-plan';
import { UNWEIGHTED, type Weight } from '../diagrams/circuit';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { TooMuch } from '../diagrams/limits';
import type { Fact } from '../reach/coming';
import { following } from './situations';
import type { Weighed } from './answer-weights';
import type { Weighing } from './weighing';

/** States told apart at most, and roots looked at in all of them. */
const MOST_STATES = 60_000;
const MOST_ROOTS = 4_000_000;

/** Thrown where interviews differ in too much at once. */
export class TooManyInterviews extends TooMuch {}

/** One way on: how likely it is, the places that are thereby presented, and what is open after it. */
export interface Way {
  readonly weight: Weight;
  readonly places: readonly number[];
  readonly on: readonly Together[];
}

/** Ways on, one of which is taken. Those it leads to are made before it. */
export interface Together {
  readonly index: number;
  readonly ways: readonly Way[];
}

/** How to reckon along interviews. */
export interface Algebra<Value> {
  /** Of an interview of which nothing is open. */
  readonly done: Value;
  /** What becomes of a value where places are presented. */
  presented(places: readonly number[], value: Value): Value;
  /** Of parts that have nothing to do with each other. */
  both(a: Value, b: Value): Value;
  either(ways: readonly { readonly weight: Weight; readonly value: Value }[]): Value;
}

export interface Interviews {
  readonly start: Way;
  /** Every node, those first that others lead to. */
  readonly nodes: readonly Together[];
  work<Value>(algebra: Algebra<Value>): Value;
}

interface Root {
  /** Places presented where it is true; none of a fact, without whose truth there is nobody. */
  readonly places: readonly number[];
  /** Of a fact, the answers (by rank) that it settles. */
  readonly settles: readonly number[];
  /** Of a fact about what is drawn, the start of the pass. */
  readonly draw: number | null;
}

/** What is left of some roots; parallel. */
interface State {
  readonly roots: readonly number[];
  readonly left: readonly Diagram[];
  /** Of answers of many options that are gone through just now, by rank: of whom the same is assumed. */
  readonly alike: ReadonlyMap<number, number>;
}

/** All whole interviews, with quotas open: `places` are those of items and endings. */
export function interviewsIn(
  encoded: EncodedPlan,
  weighing: Weighing,
  places: readonly { readonly at: number; readonly mass: Diagram }[],
): Interviews {
  return new InterviewTracer(encoded, weighing).trace(places);
}

class InterviewTracer {
  private readonly diagrams: Diagrams;
  private roots: readonly Root[] = [];
  private readonly nodes: Together[] = [];
  private readonly known = new Map<string, Together | null>();
  private readonly ranksBefore = new Map<Diagram, readonly number[]>();
  private looked = 0;

  constructor(
    private readonly encoded: EncodedPlan,
    private readonly weighing: Weighing,
  ) {
    this.diagrams = encoded.diagrams;
  }

  trace(places: readonly { readonly at: number; readonly mass: Diagram }[]): Interviews {
    const byMass = new Map<Diagram, number[]>();
    for (const { at, mass } of places) {
      if (mass === FALSE) continue;
      const known = byMass.get(mass);
      if (known === undefined) byMass.set(mass, [at]);
      else known.push(at);
    }
    const masses = [...byMass.keys()];
    const facts = this.weighing.facts(masses);
    this.roots = [
      ...[...byMass.values()].map((all): Root => ({ places: all, settles: [], draw: null })),
      ...facts.map((fact): Root => ({
        places: [],
        settles: this.settledBy(fact),
        draw: fact.of === 'draw' ? fact.at : null,
      })),
    ];
    const start = this.wayOn(UNWEIGHTED, {
      roots: this.roots.map((_, n) => n),
      left: [...masses, ...facts.map(({ holds }) => holds)],
      alike: new Map(),
    });
    const { nodes } = this;
    if (start === null) throw new TooManyInterviews();
    return { start, nodes, work: (algebra) => worked(nodes, start, algebra) };
  }

  private settledBy({ of, at, holds }: Fact): readonly number[] {
    const { encoded } = this;
    const rank = (level: number) => Math.floor(level / VARIABLES_EACH);
    const own = this.ranksOf(holds).filter((each) => {
      const level = each * VARIABLES_EACH;
      switch (of) {
        case 'answer':
          return encoded.homeOf(level) === at;
        case 'given':
          return encoded.homeOf(level) === null;
        case 'settled':
          return encoded.settledWith(level) === at;
        case 'begun':
          return rank(encoded.begunLevel.get(at) ?? NaN) === each;
        case 'draw':
          return true;
        default:
          return of satisfies never;
      }
    });
    return own;
  }

  /** What follows once some roots have been decided; null where nobody can be in this state. */
  private wayOn(weight: Weight, state: State): Way | null {
    const places: number[] = [];
    const roots: number[] = [];
    const left: Diagram[] = [];
    for (const [n, root] of state.roots.entries()) {
      const of = state.left[n] as Diagram;
      const presents = (this.roots[root] as Root).places;
      if (of === FALSE && presents.length === 0) return null;
      if (of === TRUE) places.push(...presents);
      if (of <= TRUE) continue;
      roots.push(root);
      left.push(of);
    }
    const on: Together[] = [];
    for (const group of this.groups({ roots, left, alike: state.alike })) {
      const node = this.node(group);
      if (node === null) return null;
      on.push(node);
    }
    return { weight, places, on };
  }

  /** Roots that share answers, directly or by others; facts on which nothing hangs are left out. */
  private groups({ roots, left, alike }: State): State[] {
    this.looked += roots.length;
    if (this.looked > MOST_ROOTS) throw new TooManyInterviews();
    const kept = this.thatMatter(roots, left);
    const groupOf = new Map<number, number>();
    const parent: number[] = [];
    const find = (group: number): number => {
      let at = group;
      while (parent[at] !== at) at = parent[at] as number;
      return at;
    };
    const first: number[] = [];
    for (const n of kept) {
      const own = parent.push(parent.length) - 1;
      first[n] = own;
      for (const rank of this.ranksOf(left[n] as Diagram)) {
        const other = groupOf.get(rank);
        if (other === undefined) groupOf.set(rank, own);
        else parent[find(other)] = find(own);
      }
    }
    const groups = new Map<number, { roots: number[]; left: Diagram[] }>();
    for (const n of kept) {
      const at = find(first[n] as number);
      const group = groups.get(at) ?? { roots: [], left: [] };
      groups.set(at, group);
      group.roots.push(roots[n] as number);
      group.left.push(left[n] as Diagram);
    }
    return [...groups.values()].map((group) => {
      const ranks = new Set(alike.size === 0 ? [] : group.left.flatMap((of) => this.ranksOf(of)));
      return { ...group, alike: new Map([...alike].filter(([rank]) => ranks.has(rank))) };
    });
  }

  /**
   * A fact sums to 1 over the answers that it settles as long as none of them is known: where nothing else reads those, it
   * need not be gone through.
   */
  private thatMatter(roots: readonly number[], left: readonly Diagram[]): number[] {
    const readers = new Map<number, number>();
    const count = (n: number, by: number) => {
      for (const rank of this.ranksOf(left[n] as Diagram)) readers.set(rank, (readers.get(rank) ?? 0) + by);
    };
    const all = roots.map((_, n) => n);
    for (const n of all) count(n, 1);
    const kept = new Set(all);
    const open = all.filter((n) => (this.roots[roots[n] as number] as Root).places.length === 0);
    // What is settled late hangs on what was settled before: from behind, one round finds nearly all.
    for (let again = true; again;) {
      again = false;
      for (const n of open.toReversed()) {
        if (!kept.has(n)) continue;
        const { settles } = this.roots[roots[n] as number] as Root;
        const ranks = this.ranksOf(left[n] as Diagram);
        if (
          !this.isUntouched(settles[0], left[n] as Diagram) ||
          settles.some((rank) => (readers.get(rank) ?? 0) > (ranks.includes(rank) ? 1 : 0))
        )
          continue;
        kept.delete(n);
        count(n, -1);
        again = true;
      }
    }
    return all.filter((n) => kept.has(n));
  }

  /** Whether nothing is known yet of the answers that a fact settles, the first of which has this rank. */
  private isUntouched(rank: number | undefined, left: Diagram): boolean {
    if (rank === undefined || !this.ranksOf(left).includes(rank)) return false;
    // Many options are gone through one by one, after whether any is picked.
    const symbol = this.encoded.symbolAt(rank * VARIABLES_EACH);
    return (symbol?.picks ?? null) === null || this.diagrams.support(left).includes(symbol?.level ?? NaN);
  }

  /** Null where nobody can be in this state. */
  private node(state: State): Together | null {
    const of = state.roots.map((root, n) => `${root}:${state.left[n]}`);
    const key = [...of, ...[...state.alike].map(([rank, among]) => `${rank}=${among}`)].join(' ');
    const before = this.known.get(key);
    if (before !== undefined) return before;
    const { diagrams } = this;
    const top = Math.min(...state.left.map((diagram) => diagrams.topOf(diagram)));
    const rank = Math.floor(top / VARIABLES_EACH);
    const ways: Way[] = [];
    for (const choice of this.choicesAt(top, state)) {
      const way = this.wayOn(choice.weight, {
        roots: state.roots,
        left: state.left.map((diagram) => chosen(diagrams, diagram, choice)),
        alike: choice.alike === undefined ? state.alike : new Map([...state.alike, [rank, choice.alike]]),
      });
      if (way !== null) ways.push(way);
    }
    let node: Together | null = null;
    if (ways.length > 0) {
      node = { index: this.nodes.length, ways };
      if (this.nodes.push(node) > MOST_STATES) throw new TooManyInterviews();
    }
    this.known.set(key, node);
    return node;
  }

  private choicesAt(level: number, { roots, left, alike }: State): readonly Weighed[] {
    const pass = this.weighing.coming.passDrawnIn(level);
    if (pass === undefined)
      return this.weighing.choicesAt(level, alike.get(Math.floor(level / VARIABLES_EACH)));
    const drawn = left[roots.findIndex((root) => this.roots[root]?.draw === pass)] ?? FALSE;
    return this.drawing(level, drawn);
  }

  /** Of what is left to draw from, each is as likely: the first is drawn as often as there are places among them. */
  private drawing(level: number, drawn: Diagram): readonly Weighed[] {
    const { diagrams } = this;
    let places = 0;
    for (let at = drawn; at > TRUE;) {
      const high = diagrams.highOf(at);
      if (high !== FALSE) places += 1;
      at = high === FALSE ? diagrams.lowOf(at) : high;
    }
    const chance = places / Math.max(1, diagrams.support(drawn).length);
    return [true, false].map((is) => ({
      literals: new Map([[level, is]]),
      weight: this.weighing.circuit.weight(is ? chance : 1 - chance),
    }));
  }

  private ranksOf(diagram: Diagram): readonly number[] {
    let ranks = this.ranksBefore.get(diagram);
    if (ranks === undefined) {
      ranks = [...new Set(this.diagrams.support(diagram).map((level) => Math.floor(level / VARIABLES_EACH)))];
      this.ranksBefore.set(diagram, ranks);
    }
    return ranks;
  }
}

/** What is left of a diagram after a choice. */
function chosen(diagrams: Diagrams, diagram: Diagram, { literals, later }: Weighed): Diagram {
  const left = following(diagrams, diagram, literals);
  if (later === undefined || left <= TRUE) return left;
  return diagrams.forget(diagrams.and(left, diagrams.cube(later)), (level) => later.has(level));
}

function worked<Value>(nodes: readonly Together[], start: Way, algebra: Algebra<Value>): Value {
  const values: Value[] = [];
  const along = ({ places, on }: Way) =>
    algebra.presented(
      places,
      on.reduce((all, { index }) => algebra.both(all, values[index] as Value), algebra.done),
    );
  for (const { ways } of nodes)
    values.push(algebra.either(ways.map((way) => ({ weight: way.weight, value: along(way) }))));
  return along(start);
}
