/**
 * The graph of forks: a node is a place with what is true of those who come to it, an edge a way on with what
 * happens on it. Every path from the root is a sequence of outcomes that somebody meets, as long as nothing was
 * forgotten that still matters; otherwise every sequence that somebody meets is a path, though not the other way.
 */
import type { EncodedPlan } from '../conditions/encoded-plan';
import type { Diagram } from '../diagrams/diagram';
import { TooMuch } from '../diagrams/limits';
import { waysFrom, type Branch, type ForkEvent } from '../reach/fork-events';

export interface ForkNode {
  readonly at: number;
  /** Over variables that still matter. */
  readonly known: Diagram;
  /** Those that lead on to an ending. */
  edges: readonly ForkEdge[];
}

export interface ForkEdge {
  /** Ids of events, as `ForkEvents` numbers them. */
  readonly events: readonly number[];
  /** Number of the place it leads to, and the node there; null past an ending. */
  readonly place: number | null;
  readonly to: ForkNode | null;
}

export interface ForkGraph {
  /** Null where nobody comes to an ending. */
  readonly root: ForkNode | null;
  /** Children before parents. */
  readonly nodes: readonly ForkNode[];
}

/** Thrown where more nodes would have to be told apart than allowed. */
export class TooManyForks extends TooMuch {}

/** Numbers for events, and the events by number. */
export class ForkEvents {
  readonly all: ForkEvent[] = [];
  private readonly numbers = new Map<string, number>();

  numbersOf({ events }: Branch): readonly number[] {
    return events.map((event) => {
      const key = keyOf(event);
      let number = this.numbers.get(key);
      if (number === undefined) {
        number = this.all.push(event) - 1;
        this.numbers.set(key, number);
      }
      return number;
    });
  }

  /** Whether every branch on which it is met says so. */
  isTold(number: number): boolean {
    const event = this.all[number];
    return event?.kind !== 'ask-if' || event.overlaps !== true;
  }

  /** Those of them that are a side of a fork: which way was taken, whether an ask-if holds, how many passes. */
  outcomes(met: ReadonlySet<number>): ReadonlySet<number> {
    const kinds: ReadonlySet<string | undefined> = new Set(['ask-if', 'skip', 'quota', 'onward', 'pass']);
    return new Set([...this.counting(met)].filter((number) => kinds.has(this.all[number]?.kind)));
  }

  /** Sides of one fork have the same text. */
  forkOf(number: number): string {
    const event = this.all[number];
    switch (event?.kind) {
      case 'ask-if':
        return `a ${JSON.stringify(event.of)}`;
      case 'skip':
      case 'quota':
        return `w ${event.item}`;
      case 'onward':
      case 'pass':
        return `${event.kind} ${event.section}`;
      default:
        return `${number}`;
    }
  }

  /** Of those met, the ones that a covering set has to meet: of a section's passes none at all, and the last. */
  counting(met: ReadonlySet<number>): ReadonlySet<number> {
    const lastPass = new Map<string, number>();
    for (const number of met) {
      const event = this.all[number];
      if (event?.kind === 'pass')
        lastPass.set(event.section, Math.max(event.pass, lastPass.get(event.section) ?? 0));
    }
    const counts = (event: ForkEvent | undefined) =>
      event !== undefined &&
      (event.kind !== 'pass' || event.pass === 0 || lastPass.get(event.section) === event.pass);
    return new Set([...met].filter((number) => counts(this.all[number])));
  }
}

function keyOf(event: ForkEvent): string {
  switch (event.kind) {
    case 'presented':
      return `i ${event.item}`;
    case 'ask-if': {
      const of = 'section' in event.of ? `s ${event.of.section}` : `${event.of.item} ${event.of.part ?? ''}`;
      return `a ${of} ${event.holds}`;
    }
    case 'skip':
    case 'quota':
      return `${event.kind} ${event.item} ${event.index}`;
    case 'onward':
      return `o ${event.section} ${event.index}`;
    case 'pass':
      return `p ${event.section} ${event.pass}`;
    case 'ending':
      return `e ${event.ending}`;
    case 'message':
      return `m ${event.ending} ${event.index}`;
    default:
      return event satisfies never;
  }
}

export interface ForkGraphOptions {
  readonly mostNodes: number;
  /** Variables that are forgotten at once, though they may still matter. */
  readonly forgets?: (level: number) => boolean;
}

/** Throws a kind of `TooMuch` where it would have more than `mostNodes`. */
export function forkGraphOf(
  encoded: EncodedPlan,
  events: ForkEvents,
  { mostNodes, forgets = () => false }: ForkGraphOptions,
): ForkGraph {
  const { diagrams, course } = encoded;
  const known = new Map<number, Map<Diagram, ForkNode>>();
  const nodes: ForkNode[] = [];
  let count = 0;

  interface Frame {
    readonly node: ForkNode;
    readonly ways: readonly Branch[];
    next: number;
    readonly edges: ForkEdge[];
  }
  const frameAt = (at: number, what: Diagram): Frame => {
    count += 1;
    if (count > mostNodes) throw new TooManyForks();
    const node: ForkNode = { at, known: what, edges: [] };
    const here = known.get(at);
    if (here === undefined) known.set(at, new Map([[what, node]]));
    else here.set(what, node);
    return { node, ways: waysFrom(encoded, at, what), next: 0, edges: [] };
  };
  const settled = (mass: Diagram, at: number) => {
    const isPast = encoded.isPastAt(at);
    return diagrams.forget(mass, (level) => isPast(level) || forgets(level));
  };

  const start = course.gate(0);
  const stack = [frameAt(start, settled(encoded.given, start))];
  const root = (stack[0] as Frame).node;
  for (let frame = stack.at(-1); frame !== undefined; frame = stack.at(-1)) {
    const way = frame.ways[frame.next];
    if (way === undefined) {
      frame.node.edges = frame.edges;
      if (frame.edges.length > 0) nodes.push(frame.node);
      stack.pop();
      continue;
    }
    if (way.to === null) {
      frame.edges.push({ events: events.numbersOf(way), place: null, to: null });
      frame.next += 1;
      continue;
    }
    const what = settled(way.mass, way.to);
    const child = known.get(way.to)?.get(what);
    if (child === undefined) {
      // Comes back to this way once the child is finished.
      stack.push(frameAt(way.to, what));
      continue;
    }
    if (child.edges.length > 0) frame.edges.push({ events: events.numbersOf(way), place: way.to, to: child });
    frame.next += 1;
  }
  return { root: root.edges.length > 0 ? root : null, nodes };
}
