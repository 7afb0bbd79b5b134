/**
 * What lies ahead of a respondent in parts that have nothing to do with each other: blocks that read or decide a variable
 * in common stay together, as do those of which something is known together.
 */
import type { Diagrams } from '../diagrams/diagram';
import { Factoring, type Factors } from '../diagrams/factors';
import type { Block } from './blocks';

/** Blocks still ahead, with what is known of the variables that only they read. */
export interface BlocksAhead {
  readonly blocks: readonly Block[];
  readonly factors: Factors;
}

export class PartsAhead {
  constructor(
    private readonly diagrams: Diagrams,
    private readonly factoring: Factoring,
  ) {}

  /**
   * The parts of what lies ahead: blocks that read or decide a variable in common, or variables of which something
   * is known together. Where an ending may cut the rest short, all is one part.
   */
  apart({ blocks, factors }: BlocksAhead): BlocksAhead[] {
    if (blocks.length === 0) return [];
    const whole = blocks.some(({ endsEarly }, n) => endsEarly && n < blocks.length - 1);
    if (blocks.length === 1 || whole) return [this.only({ blocks, factors })];
    const decided = factors.filter((factor) => this.factoring.isDecided(factor));
    const open = factors.filter((factor) => !decided.includes(factor));
    const settled = new Set(decided.flatMap((factor) => this.factoring.supportOf(factor)));

    const parent = blocks.map((_, n) => n);
    const find = (n: number): number => {
      let at = n;
      while (parent[at] !== at) at = parent[at] as number;
      parent[n] = at;
      return at;
    };
    const firstWith = new Map<number, number>();
    const meets = (level: number, n: number) => {
      const other = firstWith.get(level);
      if (other === undefined) firstWith.set(level, n);
      else parent[find(n)] = find(other);
    };
    const factorOf = new Map<number, number>();
    for (const factor of open)
      for (const level of this.factoring.supportOf(factor)) factorOf.set(level, factor);
    blocks.forEach(({ shared }, n) => {
      for (const level of shared) {
        if (settled.has(level)) continue;
        const factor = factorOf.get(level);
        // Levels are not negative, so a fact has a key of its own.
        meets(factor === undefined ? level : -1 - factor, n);
      }
    });

    const groups = new Map<number, Block[]>();
    blocks.forEach((block, n) => {
      const root = find(n);
      const group = groups.get(root);
      if (group === undefined) groups.set(root, [block]);
      else group.push(block);
    });
    return [...groups.values()].map((group) => this.only({ blocks: group, factors }));
  }

  /** Without what is known of variables that none of the blocks reads. */
  private only({ blocks, factors }: BlocksAhead): BlocksAhead {
    const reads = new Set(blocks.flatMap(({ shared }) => shared));
    const kept = factors.flatMap((factor) => {
      const support = this.factoring.supportOf(factor);
      const needed = support.filter((level) => reads.has(level));
      if (needed.length === 0) return [];
      if (needed.length === support.length) return [factor];
      return this.factoring.split(this.diagrams.forget(factor, (level) => !reads.has(level)));
    });
    return { blocks, factors: kept.sort((a, b) => a - b) };
  }
}
