/**
 * What lies ahead of a respondent in parts that have nothing to do with each other: blocks that read or decide a variable
 * in common stay together, as do those of which something is known together.
 *
 * Which blocks stay together hangs on which variables something is known of, not on what. That is the same for most of
 * those who come to a block, so it is worked out once for each list of blocks.
 */
import type { Diagram, Diagrams } from '../diagrams/diagram';
import { Factoring, type Factors } from '../diagrams/factors';
import { Numbering } from '../diagrams/numbering';
import type { BlockList, BlockLists } from './block-lists';
import type { Block } from './blocks';

/** Blocks still ahead, with what is known of the variables that only they read. */
export interface BlocksAhead {
  readonly list: BlockList;
  readonly factors: Factors;
}

/** The parts that a list of blocks falls into. */
interface Grouping {
  readonly groups: readonly BlockList[];
  /** By variables of a fact, the groups that read one of them. */
  readonly readers: Map<number, readonly number[]>;
}

/** What of a fact matters for which blocks stay together. */
interface Shape {
  /** A number for its variables. */
  readonly variables: number;
  /** It leaves them no choice. */
  readonly isDecided: boolean;
}

export class PartsAhead {
  private readonly shapes = new Map<Diagram, Shape>();
  private readonly supports = new Numbering<string>();
  private readonly groupings = new Map<BlockList, Map<string, Grouping>>();

  constructor(
    private readonly diagrams: Diagrams,
    private readonly factoring: Factoring,
    private readonly lists: BlockLists,
  ) {}

  /**
   * The parts of what lies ahead: blocks that read or decide a variable in common, or variables of which something
   * is known together. Where an ending may cut the rest short, all is one part.
   */
  apart({ list, factors }: BlocksAhead): BlocksAhead[] {
    if (list.blocks.length === 0) return [];
    const { groups, readers } = this.groupingOf(list, factors);
    const kept = groups.map((): Diagram[] => []);
    for (const factor of factors) {
      const { variables } = this.shapeOf(factor);
      let reading = readers.get(variables);
      if (reading === undefined) {
        const support = this.factoring.supportOf(factor);
        reading = groups.flatMap(({ reads }, n) => (support.some((level) => reads.has(level)) ? [n] : []));
        readers.set(variables, reading);
      }
      for (const n of reading) kept[n]?.push(...this.keptOf(groups[n] as BlockList, factor));
    }
    return groups.map((group, n) => ({ list: group, factors: (kept[n] ?? []).sort((a, b) => a - b) }));
  }

  private groupingOf(list: BlockList, factors: Factors): Grouping {
    const shapes = factors.map((factor) => {
      const { variables, isDecided } = this.shapeOf(factor);
      return isDecided ? -1 - variables : variables;
    });
    const key = shapes.sort((a, b) => a - b).join(' ');
    let known = this.groupings.get(list);
    if (known === undefined) {
      known = new Map();
      this.groupings.set(list, known);
    }
    let grouping = known.get(key);
    if (grouping === undefined) {
      grouping = { groups: this.grouped(list, factors), readers: new Map() };
      known.set(key, grouping);
    }
    return grouping;
  }

  private shapeOf(factor: Diagram): Shape {
    let shape = this.shapes.get(factor);
    if (shape === undefined) {
      const support = this.factoring.supportOf(factor).join(' ');
      shape = { variables: this.supports.of(support), isDecided: this.factoring.isDecided(factor) };
      this.shapes.set(factor, shape);
    }
    return shape;
  }

  private grouped(list: BlockList, factors: Factors): BlockList[] {
    const { blocks } = list;
    const whole = blocks.some(({ endsEarly }, n) => endsEarly && n < blocks.length - 1);
    if (blocks.length === 1 || whole) return [list];
    const decided = factors.filter((factor) => this.shapeOf(factor).isDecided);
    const settled = new Set(decided.flatMap((factor) => this.factoring.supportOf(factor)));
    const open = factors.filter((factor) => !this.shapeOf(factor).isDecided);

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
    return groups.size === 1 ? [list] : [...groups.values()].map((group) => this.lists.of(group));
  }

  /** Without what it tells of variables that none of the blocks reads. */
  private keptOf({ reads, keptOf }: BlockList, factor: Diagram): Factors {
    let kept = keptOf.get(factor);
    if (kept === undefined) {
      const isRead = this.factoring.supportOf(factor).every((level) => reads.has(level));
      kept = isRead
        ? [factor]
        : this.factoring.split(this.diagrams.forget(factor, (level) => !reads.has(level)));
      keptOf.set(factor, kept);
    }
    return kept;
  }
}
