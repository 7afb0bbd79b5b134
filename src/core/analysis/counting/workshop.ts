/**
 * What the analysis of a questionnaire leaves for the next, after an edit: diagrams, the ranks of variables, parts of
 * the graph of routes and conditions put into words. All of it is kept by what it means, so what an edit touches is
 * worked out anew and the rest is found again.
 *
 * One analysis at a time: what an earlier one gave is not to be asked any more once the next has begun.
 */
import type { Caps } from '../diagrams/limits';
import { Diagrams } from '../diagrams/diagram';
import type { Node } from './graph';
import { Ranks } from '../conditions/ranks';
import { Sights } from './sights';

/** Diagrams grow with every edit; with more nodes than this they are begun anew. */
const MOST_KEPT = 500_000;

/** For one kind of work. */
export class Bench {
  readonly ranks = new Ranks();
  readonly diagrams: Diagrams;
  readonly graph = new GraphMemory();
  /** Conditions in words, by their diagrams. */
  readonly words = new Map<string, string>();

  constructor({ nodes, steps }: Pick<Caps, 'nodes' | 'steps'>) {
    this.diagrams = new Diagrams(nodes, steps);
  }
}

/** Graphs of what lies ahead, by the content of the blocks ahead and what is known of them. */
export class GraphMemory {
  readonly sights = new Sights();
  starts: ReadonlyMap<string, Node> = new Map();
  private readonly numbers = new Map<string, number>();

  /** A number for a content: equal contents have the same. */
  numberOf(content: string): number {
    let number = this.numbers.get(content);
    if (number === undefined) {
      number = this.numbers.size;
      this.numbers.set(content, number);
    }
    return number;
  }
}

export class Workshop {
  private readonly benches = new Map<string, Bench>();

  /** The bench for some work, as it was left. */
  bench(work: 'routes' | 'asked' | 'checks', caps: Caps): Bench {
    let bench = this.benches.get(work);
    if (bench === undefined || bench.diagrams.nodes > MOST_KEPT) {
      bench = new Bench(caps);
      this.benches.set(work, bench);
    }
    bench.diagrams.rest();
    return bench;
  }

  /** Leaves nothing of some work, where it could not be finished. */
  clear(work: 'routes' | 'asked' | 'checks'): void {
    this.benches.delete(work);
  }
}
