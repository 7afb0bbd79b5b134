/**
 * Ways on through the graph that show only what is allowed: how many, or how many of each length. Both add up over the
 * edges of a fork and multiply over parts that have nothing to do with each other.
 */
import type { Item } from '../../document/types';
import { childrenFirst, type Node } from './graph';
import type { Observation } from './observations';
import type { Prefix } from './prefix';

/** A number of ways, or ways by what else is told of them. */
export interface Algebra<Ways> {
  readonly none: Ways;
  /** The one way on from an ending. */
  readonly one: Ways;
  plus(a: Ways, b: Ways): Ways;
  times(a: Ways, b: Ways): Ways;
  /** The same ways with an item more in front. */
  withItem(ways: Ways, item: Item): Ways;
}

export const HOW_MANY: Algebra<bigint> = {
  none: 0n,
  one: 1n,
  plus: (a, b) => a + b,
  times: (a, b) => a * b,
  withItem: (ways) => ways,
};

/** Ways by the number of items on them: `counts[n]` with `from + n`. */
export interface Lengths {
  readonly from: number;
  readonly counts: readonly bigint[];
}

export const BY_LENGTH: Algebra<Lengths> = {
  none: { from: 0, counts: [] },
  one: { from: 0, counts: [1n] },
  plus(a, b) {
    if (a.counts.length === 0) return b;
    if (b.counts.length === 0) return a;
    const from = Math.min(a.from, b.from);
    const until = Math.max(a.from + a.counts.length, b.from + b.counts.length);
    const counts = Array.from(
      { length: until - from },
      (_, n) => lengthIn(a, from + n) + lengthIn(b, from + n),
    );
    return { from, counts };
  },
  times(a, b) {
    if (a.counts.length === 0 || b.counts.length === 0) return { from: 0, counts: [] };
    const counts = Array.from({ length: a.counts.length + b.counts.length - 1 }, () => 0n);
    a.counts.forEach((some, n) => {
      if (some === 0n) return;
      b.counts.forEach((others, m) => {
        counts[n + m] = (counts[n + m] ?? 0n) + some * others;
      });
    });
    return { from: a.from + b.from, counts };
  },
  withItem: ({ from, counts }) => ({ from: from + 1, counts }),
};

/** How many of them have just so many items. */
export function lengthIn({ from, counts }: Lengths, items: number): bigint {
  return counts[items - from] ?? 0n;
}

/** Fewest and most questions on them; no way at all has more than any. */
export interface QuestionSpan {
  readonly least: number;
  readonly most: number;
}

export const BY_QUESTIONS: Algebra<QuestionSpan> = {
  none: { least: Infinity, most: -Infinity },
  one: { least: 0, most: 0 },
  plus: (a, b) => ({ least: Math.min(a.least, b.least), most: Math.max(a.most, b.most) }),
  times: (a, b) => ({ least: a.least + b.least, most: a.most + b.most }),
  withItem: (ways, { kind }) => {
    const own = kind === 'question' ? 1 : 0;
    return { least: ways.least + own, most: ways.most + own };
  },
};

export class Tally<Ways> {
  private readonly nodes = new Map<Node, Ways>();
  private readonly prefixes = new WeakMap<Prefix, Ways>();

  constructor(
    private readonly algebra: Algebra<Ways>,
    private readonly allows: (observation: Observation) => boolean,
    /** What a node counts that has no edges, because a cap kept it from being opened. */
    private readonly unopened: (node: Node) => Ways = () => algebra.none,
  ) {}

  from(node: Node): Ways {
    for (const each of this.nodes.has(node) ? [] : childrenFirst(node, (known) => this.nodes.has(known)))
      this.nodes.set(each, this.waysFrom(each));
    return this.known(node);
  }

  private known(node: Node): Ways {
    return this.nodes.get(node) ?? this.algebra.none;
  }

  /** Those of its children are known. */
  private waysFrom(node: Node): Ways {
    const { algebra } = this;
    if (node.kind === 'parts')
      return node.parts.reduce((product, part) => algebra.times(product, this.known(part)), algebra.one);
    if (!node.opened) return this.unopened(node);
    let ways = algebra.none;
    for (const { observation, to } of node.edges) {
      if (observation !== null && !this.allows(observation)) continue;
      const rest = to === null ? algebra.one : this.known(to);
      ways = algebra.plus(
        ways,
        observation?.planItem ? algebra.withItem(rest, observation.planItem.item) : rest,
      );
    }
    return ways;
  }

  /** Of all that lies ahead together; of nothing, one. */
  ahead(prefix: Prefix | null): Ways {
    const unknown: Prefix[] = [];
    let at = prefix;
    for (; at !== null && !this.prefixes.has(at); at = at.then) unknown.push(at);
    let ways = at === null ? this.algebra.one : (this.prefixes.get(at) as Ways);
    for (const each of unknown.reverse()) {
      ways = this.algebra.times(this.from(each.fork), ways);
      this.prefixes.set(each, ways);
    }
    return ways;
  }
}
