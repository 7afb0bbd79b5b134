/** Lists of blocks that lie ahead, each made once, so that what is worked out of it is kept with it. */
import type { Diagram } from '../diagrams/diagram';
import type { Factors } from '../diagrams/factors';
import type { Block } from './blocks';

export class BlockList {
  /** Levels of the variables that one of them shares with another block. */
  readonly reads: ReadonlySet<number>;
  /** What is known of the variables that these blocks read, by what is known of these and others. */
  readonly keptOf = new Map<Diagram, Factors>();

  constructor(
    readonly blocks: readonly Block[],
    /** Equal contents have the same. */
    readonly number: number,
  ) {
    this.reads = new Set(blocks.flatMap(({ shared }) => shared));
  }
}

export class BlockLists {
  private readonly byContents = new Map<string, BlockList>();
  private readonly shorter = new Map<BlockList, BlockList>();

  constructor(
    /** By index of the block, a number for its content. */
    private readonly contents: readonly number[],
    /** A number for the contents of a list. */
    private readonly numberOf: ((contents: string) => number) | null,
  ) {}

  of(blocks: readonly Block[]): BlockList {
    const contents = blocks.map(({ index }) => this.contents[index]).join(' ');
    let list = this.byContents.get(contents);
    if (list === undefined) {
      list = new BlockList(blocks, this.numberOf?.(`list ${contents}`) ?? this.byContents.size);
      this.byContents.set(contents, list);
    }
    return list;
  }

  /** Without the first block. */
  after(list: BlockList): BlockList {
    let rest = this.shorter.get(list);
    if (rest === undefined) {
      rest = this.of(list.blocks.slice(1));
      this.shorter.set(list, rest);
    }
    return rest;
  }
}
