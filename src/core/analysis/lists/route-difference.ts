/**
 * The routes of one version of a questionnaire that another does not have: on which something else is shown. Both
 * graphs are gone along together, by what is shown; parts of which both have the same ways are set aside, so that
 * little but what differs is looked at.
 */
import type { Edge, ForkNode, Node } from '../counting/graph';
import type { Observation } from '../counting/observations';
import { beginning, inserted, stepsOf, type Prefix } from '../counting/prefix';
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
import { RouteContents } from './route-contents';

export interface RouteVersion {
  readonly root: Node;
  /** What is shown of an item or ending: equal marks, equal words and answers. */
  readonly markOf: (observation: Observation) => string;
  /** The marks of all items, in the order of the questionnaire, without passes. */
  readonly order: readonly string[];
}

/**
 * The graph of just those routes; null where there are none. Throws `TooEntangled`, also where a cap kept one of the
 * graphs from being whole. `contents`: of earlier comparisons of the same two.
 */
export function routesOnlyIn(
  version: RouteVersion,
  other: RouteVersion,
  contents = new RouteContents(),
): Node | null {
  const first = beginning(version.root);
  return first === null ? null : new Comparing(version, other, contents).only(first, [beginning(other.root)]);
}

class Comparing {
  private readonly names = new NodeNames();
  private readonly known = new Map<string, ForkNode | null>();
  /** The same of one part here and one there, as most are. */
  private readonly pairs = new Map<ForkNode, Map<ForkNode, ForkNode | null>>();
  private states = 0;
  /** Whether what both show, they show in the same order: only then do equal parts stay equal among others. */
  private readonly inOrder: boolean;

  constructor(
    private readonly one: RouteVersion,
    private readonly other: RouteVersion,
    private readonly contents: RouteContents,
  ) {
    const common = (of: RouteVersion, to: RouteVersion) => {
      const there = new Set(to.order);
      return of.order.filter((mark) => there.has(mark)).join('\n');
    };
    this.inOrder = common(one, other) === common(other, one);
  }

  /** Ways on in this version that none of the places in the other has. */
  only(here: Prefix, there: readonly (Prefix | null)[]): Node | null {
    if (there.length === 0) return together(forksOf(here));
    const [single] = there;
    if (!this.inOrder || there.length > 1 || !single) return this.differing(here, there);
    if (here.then === null && single.then === null) {
      const [own, other] = [
        this.contents.ahead(here.fork, this.one.markOf),
        this.contents.ahead(single.fork, this.other.markOf),
      ];
      return own === other ? null : this.differing(here, there);
    }
    const left = new Map<number, number>();
    for (const fork of forksOf(single)) {
      const content = this.contents.ahead(fork, this.other.markOf);
      left.set(content, (left.get(content) ?? 0) + 1);
    }
    const [same, rest]: [ForkNode[], ForkNode[]] = [[], []];
    const spare: number[] = [];
    for (const fork of forksOf(here)) {
      const content = this.contents.ahead(fork, this.one.markOf);
      const times = left.get(content) ?? 0;
      if (times > 0) {
        left.set(content, times - 1);
        same.push(fork);
        spare.push(content);
      } else rest.push(fork);
    }
    const others = forksOf(single).filter((fork) => {
      const at = spare.indexOf(this.contents.ahead(fork, this.other.markOf));
      if (at >= 0) spare.splice(at, 1);
      return at < 0;
    });
    if (rest.length === 0 && others.length === 0) return null;
    const restOfHere = prefixOfForks(rest);
    const restOfThere = prefixOfForks(others);
    if (same.length === 0 || restOfHere === null || restOfThere === null) return this.differing(here, there);
    const differing = this.differing(restOfHere, [restOfThere]);
    return differing && together([...same, differing]);
  }

  private differing(here: Prefix, there: readonly (Prefix | null)[]): ForkNode | null {
    const [single] = there;
    if (here.then === null && there.length === 1 && single?.then === null) {
      const pairs = this.pairs.get(here.fork) ?? new Map<ForkNode, ForkNode | null>();
      this.pairs.set(here.fork, pairs);
      const known = pairs.get(single.fork);
      if (known !== undefined) return known;
      const fork = this.differingAnew(here, there);
      pairs.set(single.fork, fork);
      return fork;
    }
    const names = there.length === 1 ? this.nameOf(single) : this.namesOf(there);
    const key = `${this.nameOf(here)}|${names}`;
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const fork = this.differingAnew(here, there);
    this.known.set(key, fork);
    return fork;
  }

  private differingAnew(here: Prefix, there: readonly (Prefix | null)[]): ForkNode | null {
    if (this.states >= MOST_STATES) throw new TooEntangled();
    this.states += 1;
    const offered = this.offeredAt(there);
    const edges: Edge[] = [];
    for (const { observation, to } of here.fork.edges) {
      const rest = to === null ? null : inserted(here.then, to);
      const met = observation === null ? there : offered(this.contents.mark(observation, this.one.markOf));
      if (rest !== null) {
        const further = this.only(rest, met);
        if (further !== null) edges.push({ observation, to: further });
      } else if (!met.some((each) => canBeOver(each))) {
        const ends = observation !== null && observation.planItem === null;
        edges.push({ observation, to: ends ? null : NOTHING_AHEAD });
      }
    }
    return edges.length === 0 ? null : newFork(here.fork.at, edges);
  }

  /** Where those places go on to where something with a mark is shown next. */
  private offeredAt(there: readonly (Prefix | null)[]): (mark: number) => readonly (Prefix | null)[] {
    const offered = new Map<number, (Prefix | null)[]>();
    for (const each of there) {
      for (const step of stepsOf(each)) {
        if (step.observation === null) continue;
        const mark = this.contents.mark(step.observation, this.other.markOf);
        const known = offered.get(mark);
        if (known === undefined) offered.set(mark, [step.to]);
        else known.push(step.to);
      }
    }
    return (mark) => offered.get(mark) ?? [];
  }

  private nameOf(prefix: Prefix | null | undefined): string {
    return prefix == null ? '-' : this.names.along(prefix);
  }

  private namesOf(prefixes: readonly (Prefix | null)[]): string {
    return [...new Set(prefixes.map((each) => this.nameOf(each)))].sort().join('|');
  }
}

function canBeOver(prefix: Prefix | null): boolean {
  if (prefix === null) return true;
  for (const { observation } of stepsOf(prefix)) if (observation === null) return true;
  return false;
}
