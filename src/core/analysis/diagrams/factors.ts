/**
 * What is known, as a list of facts that have no variable in common: all of them together say the same. Sorted, so
 * that the same knowledge is the same list.
 */
import { FALSE, TRUE, type Diagram, type Diagrams } from './diagram';

export type Factors = readonly Diagram[];

export class Factoring {
  private readonly known = new Map<Diagram, Factors>();
  private readonly supports = new Map<Diagram, readonly number[]>();

  constructor(
    private readonly diagrams: Diagrams,
    /** Variables of one group stay together. */
    private readonly groupOf: (level: number) => number,
  ) {}

  /** Takes out every group that tells nothing of the others; what is left stays one fact. */
  split(diagram: Diagram): Factors {
    if (diagram === TRUE) return [];
    const before = this.known.get(diagram);
    if (before !== undefined) return before;
    const { diagrams, groupOf } = this;
    const found: Diagram[] = [];
    let rest = diagram;
    const groups = new Set(this.supportOf(diagram).map(groupOf));
    if (groups.size > 1) {
      for (const group of groups) {
        const alone = diagrams.forget(rest, (level) => groupOf(level) !== group);
        const others = diagrams.forget(rest, (level) => groupOf(level) === group);
        if (diagrams.and(alone, others) !== rest) continue;
        if (alone !== TRUE) found.push(alone);
        rest = others;
      }
    }
    if (rest !== TRUE) found.push(rest);
    const factors = found.sort((a, b) => a - b);
    this.known.set(diagram, factors);
    return factors;
  }

  supportOf(diagram: Diagram): readonly number[] {
    let support = this.supports.get(diagram);
    if (support === undefined) {
      support = this.diagrams.support(diagram);
      this.supports.set(diagram, support);
    }
    return support;
  }

  /** Whether a fact leaves its variables no choice. */
  isDecided(diagram: Diagram): boolean {
    for (let at = diagram; at !== TRUE;) {
      const [low, high] = [this.diagrams.lowOf(at), this.diagrams.highOf(at)];
      if (low !== FALSE && high !== FALSE) return false;
      at = low === FALSE ? high : low;
    }
    return true;
  }

  together(factors: Factors): Diagram {
    return factors.reduce((all, factor) => this.diagrams.and(all, factor), TRUE);
  }
}
