/**
 * What the analysis of a questionnaire leaves for the next, after an edit: diagrams, the ranks of variables, parts of
 * the graph of routes and conditions put into words. All of it is kept by what it means, so what an edit touches is
 * worked out anew and the rest is found again.
 *
 * One analysis at a time: what an earlier one gave is not to be asked any more once the next has begun.
 */
import { VariableOrder } from '../conditions/variable-order';
import { Diagrams } from '../diagrams/diagram';
import type { Caps } from '../diagrams/limits';
import { Numbering } from '../diagrams/numbering';
import type { Node } from './graph';
import { Observations } from './observations';

/** Diagrams grow with every edit; with so many nodes more than the first analysis has made they are begun anew. */
const MOST_MORE = 500_000;

/** What is worked out for different questions is kept apart: each has variables of its own. */
export type KindOfWork = 'routes' | 'asked' | 'checks';

/** What one kind of work leaves for the next of its kind. */
export class CachedWork {
  readonly ranks = new VariableOrder();
  readonly diagrams: Diagrams;
  readonly graph = new CachedGraphs();
  /** Conditions in words, by their diagrams. */
  readonly words = new Map<string, string>();
  private first: number | null = null;

  constructor({ nodes, steps }: Pick<Caps, 'nodes' | 'steps'>) {
    this.diagrams = new Diagrams(nodes, steps);
  }

  /** Made ready for the next analysis; false where too much of earlier ones has gathered. */
  again(): boolean {
    const { nodes } = this.diagrams;
    this.first ??= nodes;
    this.diagrams.rest();
    return nodes <= this.first + MOST_MORE;
  }
}

/** Graphs of what lies ahead, by the content of the blocks ahead and what is known of them. */
export class CachedGraphs {
  readonly observations = new Observations();
  starts: ReadonlyMap<string, Node> = new Map();
  /** What blocks are made of, by number. */
  readonly contents = new Numbering<string>();
}

export class AnalysisCache {
  private readonly kept = new Map<KindOfWork, CachedWork>();

  /** Some work, as it was left; with its steps to be counted anew. */
  work(kind: KindOfWork, caps: Caps): CachedWork {
    const kept = this.kept.get(kind);
    if (kept?.again() === true) return kept;
    const work = new CachedWork(caps);
    this.kept.set(kind, work);
    return work;
  }

  /** Leaves nothing of some work, where it could not be finished. */
  clear(kind: KindOfWork): void {
    this.kept.delete(kind);
  }
}
