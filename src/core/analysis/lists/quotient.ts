/**
 * Routes that differ only in what was drawn, as one: in their graph, what a section draws is one thing to be seen,
 * whichever of its questions it is. Ways that then look the same are joined (the subset construction: Rabin and
 * Scott, "Finite automata and their decision problems", 1959); parts that draw nothing stay as they are.
 */
import type { Plan } from '../../routing/plan';
import type { Edge, ForkNode, Node } from '../counting/graph';
import type { Observation } from '../counting/observations';
import { beginning, stepsOf, type Prefix } from '../counting/prefix';
import { isNamed } from './filters';
import {
  forksOf,
  MOST_STATES,
  newFork,
  NodeNames,
  NOTHING_AHEAD,
  prefixOfForks,
  together,
  TooEntangled,
} from './part-graphs';

/** What is asked of the questions drawn themselves. */
export interface DrawnFilter {
  /** Of each list at least one was drawn. */
  readonly through: readonly (readonly string[])[];
  readonly avoid: readonly string[];
}

export interface Variants {
  /** How many routes are one here. */
  readonly times: bigint;
  /** The observations of the first of them, in canonical order. */
  readonly observations: readonly Observation[];
}

/** A way on, with a bit for each list that is still to be gone through. */
interface Thread {
  readonly prefix: Prefix | null;
  readonly waiting: number;
}

export class Quotient {
  private readonly names = new NodeNames();
  private readonly known = new Map<string, ForkNode | null>();
  private readonly clean = new Map<Node, boolean>();
  private readonly last = new Map<Node, number>();
  private readonly lists: readonly ReadonlySet<string>[];
  private readonly avoid: ReadonlySet<string>;

  constructor(
    private readonly plan: Plan,
    private readonly from: Node,
    { through, avoid }: DrawnFilter,
  ) {
    this.lists = through.map((names) => new Set(names));
    this.avoid = new Set(avoid);
  }

  /** What an observation is told by: of a question that was drawn, its section and pass. */
  labelOf({ planItem, pass, rank }: Observation): string {
    if (planItem === null || planItem.item.kind === 'statement') return String(rank);
    const section = this.plan.sections[planItem.section];
    return section?.section.draw === undefined ? String(rank) : `drawn in ${planItem.section} ${pass ?? 0}`;
  }

  /** What it is ordered by: all that a section draws stands where its first question stands. */
  private rankOf({ planItem, rank }: Observation): number {
    if (planItem === null || planItem.item.kind === 'statement') return rank;
    const section = this.plan.sections[planItem.section];
    if (section?.section.draw === undefined) return rank;
    return rank - planItem.index + section.items.findIndex(({ item }) => item.kind === 'question');
  }

  /** The graph of what is left apart; null where nothing is. Throws `TooEntangled`. */
  graph(): Node | null {
    const start = beginning(this.from);
    return start === null ? null : this.ahead([{ prefix: start, waiting: this.all }]);
  }

  /** The routes that are one, by what its observations are told by. */
  variants(labels: readonly string[]): Variants {
    let ways = new Map<string, { way: Thread; times: bigint }>();
    const start = { prefix: beginning(this.from), waiting: this.all };
    ways.set(this.keyOf(start), { way: start, times: 1n });
    for (const label of labels) {
      const next: typeof ways = new Map();
      for (const { way, times } of ways.values()) {
        for (const { observation, to } of this.stepsFrom(way)) {
          if (observation === null || this.labelOf(observation) !== label) continue;
          const key = this.keyOf(to);
          next.set(key, { way: to, times: times + (next.get(key)?.times ?? 0n) });
        }
      }
      ways = next;
    }
    const ended = [...ways.values()].filter(({ way }) => way.prefix === null && way.waiting === 0);
    const observations = this.first(start, labels, 0, new Set());
    if (observations === null) throw new RangeError('no route looks like this');
    return { times: ended.reduce((sum, { times }) => sum + times, 0n), observations };
  }

  private first(
    way: Thread,
    labels: readonly string[],
    at: number,
    failed: Set<string>,
  ): Observation[] | null {
    if (at === labels.length) return way.prefix === null && way.waiting === 0 ? [] : null;
    const key = `${at} ${this.keyOf(way)}`;
    if (failed.has(key)) return null;
    for (const { observation, to } of this.stepsFrom(way)) {
      if (observation === null || this.labelOf(observation) !== labels[at]) continue;
      const rest = this.first(to, labels, at + 1, failed);
      if (rest !== null) return [observation, ...rest];
    }
    failed.add(key);
    return null;
  }

  private get all(): number {
    return (1 << this.lists.length) - 1;
  }

  private keyOf({ prefix, waiting }: Thread): string {
    return `${prefix === null ? '-' : this.names.along(prefix)}:${waiting}`;
  }

  private *stepsFrom({
    prefix,
    waiting,
  }: Thread): Generator<{ observation: Observation | null; to: Thread }> {
    for (const step of stepsOf(prefix)) {
      if (step.observation === null) {
        if (waiting === 0) yield { observation: null, to: { prefix: null, waiting } };
        continue;
      }
      const { observation } = step;
      if (isNamed(observation, this.avoid)) continue;
      const still = this.lists.reduce(
        (bits, names, n) => (isNamed(observation, names) ? bits & ~(1 << n) : bits),
        waiting,
      );
      if (step.to === null && still !== 0) continue;
      yield { observation: step.observation, to: { prefix: step.to, waiting: still } };
    }
  }

  /** Joined ways on; what all have ahead and draws nothing stands by itself. */
  private ahead(ways: readonly Thread[]): Node | null {
    const lists = ways.map(({ prefix }) => forksOf(prefix));
    const isShared = (fork: ForkNode) => this.isClean(fork) && lists.every((forks) => forks.includes(fork));
    const own = lists.flatMap((forks) => forks.filter((fork) => !isShared(fork)));
    // What stands by itself is put in between again by where it stands, so all that is joined has to come before it.
    const last = Math.max(...own.map((fork) => this.lastSeen(fork)));
    const shared = (lists[0] ?? []).filter((fork) => isShared(fork) && fork.at.rank > last);
    const rest = ways.map(({ waiting }, n) => ({
      prefix: prefixOfForks((lists[n] ?? []).filter((fork) => !shared.includes(fork))),
      waiting,
    }));
    if (rest.every(({ prefix }) => prefix === null))
      return rest.some(({ waiting }) => waiting === 0) ? together(shared) : null;
    const joined = this.joined(rest);
    return joined && together([...shared, joined]);
  }

  private joined(ways: readonly Thread[]): ForkNode | null {
    const key = [...new Set(ways.map((way) => this.keyOf(way)))].sort().join('|');
    const known = this.known.get(key);
    if (known !== undefined) return known;
    if (this.known.size >= MOST_STATES) throw new TooEntangled();
    const groups = new Map<string, { observation: Observation | null; to: Map<string, Thread> }>();
    for (const way of ways) {
      for (const { observation, to } of this.stepsFrom(way)) {
        const label = observation === null ? '' : this.labelOf(observation);
        const group = groups.get(label) ?? { observation, to: new Map<string, Thread>() };
        group.to.set(this.keyOf(to), to);
        groups.set(label, group);
      }
    }
    const edges: Edge[] = [];
    const rankOf = (observation: Observation | null) =>
      observation === null ? Infinity : this.rankOf(observation);
    const inOrder = [...groups.values()].sort((a, b) => rankOf(a.observation) - rankOf(b.observation));
    for (const { observation, to } of inOrder) {
      const further = [...to.values()];
      if (observation !== null && observation.planItem === null) edges.push({ observation, to: null });
      else if (observation === null || further.every(({ prefix }) => prefix === null))
        edges.push({ observation, to: NOTHING_AHEAD });
      else {
        const ahead = this.ahead(further);
        if (ahead !== null) edges.push({ observation, to: ahead });
      }
    }
    const spots = ways.flatMap(({ prefix }) => (prefix === null ? [] : [prefix.fork.at]));
    const [first] = spots.sort((a, b) => a.rank - b.rank);
    const fork = edges.length === 0 || first === undefined ? null : newFork(first, edges);
    this.known.set(key, fork);
    return fork;
  }

  /** The last place at which something can be seen from here on, in this part. */
  private lastSeen(node: Node): number {
    let last = this.last.get(node);
    if (last !== undefined) return last;
    last =
      node.kind === 'parts'
        ? Math.max(-1, ...node.parts.map((part) => this.lastSeen(part)))
        : Math.max(
            node.at.rank,
            ...node.edges.map(({ observation, to }) =>
              Math.max(observation?.rank ?? -1, to === null ? -1 : this.lastSeen(to)),
            ),
          );
    this.last.set(node, last);
    return last;
  }

  /** Whether nothing from here on, in this part, is drawn or looked for. */
  private isClean(node: Node): boolean {
    const known = this.clean.get(node);
    if (known !== undefined) return known;
    if (node.kind === 'fork' && !node.opened) throw new TooEntangled();
    const clean =
      node.kind === 'parts'
        ? node.parts.every((part) => this.isClean(part))
        : node.edges.every(
            ({ observation, to }) =>
              (observation === null || this.isPlain(observation)) && (to === null || this.isClean(to)),
          );
    this.clean.set(node, clean);
    return clean;
  }

  private isPlain(observation: Observation): boolean {
    return (
      !this.labelOf(observation).startsWith('drawn') &&
      !this.lists.some((names) => isNamed(observation, names))
    );
  }
}
