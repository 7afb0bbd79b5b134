/**
 * What comes next for a respondent, as one part of the graph sees it: what can be seen in this block, or that it is over
 * and what then lies ahead. Each is worked out once.
 */
import { VARIABLES_EACH } from '../answers/answer-symbol';
import { FALSE, type Diagram } from '../diagrams/diagram';
import { Factoring, type Factors } from '../diagrams/factors';
import type { Belief, Beliefs, Emission, SeenOnward } from './belief';
import { BlockLists } from './block-lists';
import type { Block } from './blocks';
import type { Node } from './graph';
import type { Observation } from './observations';
import { PartsAhead, type BlocksAhead } from './parts-ahead';

/** Where a respondent stands, as one part sees it. */
export type State =
  | { readonly kind: 'ahead'; readonly ahead: BlocksAhead }
  | {
      readonly kind: 'at';
      readonly block: Block;
      readonly belief: Belief;
      readonly name: string;
      readonly then: Context;
    };

/** What comes after a block; forks in it are told apart by this, too. */
export interface Context {
  readonly ahead: BlocksAhead;
  readonly known: Map<number, Map<Diagram, Node>>;
}

export type Expansion =
  | { readonly kind: 'parts'; readonly parts: readonly State[] }
  | {
      readonly kind: 'fork';
      readonly at: number;
      readonly edges: readonly { readonly observation: Observation | null; readonly to: State | null }[];
    };

export class Expander {
  readonly factoring: Factoring;
  private readonly parts: PartsAhead;
  private readonly lists: BlockLists;
  private readonly contexts = new Map<string, Context>();
  private readonly onward = new Map<number, Map<Diagram, SeenOnward>>();
  private readonly outs = new WeakMap<SeenOnward, Factors>();
  /** Behind blocks that an ending may cut short. */
  private readonly seenBeyond = new Map<Diagram, SeenOnward['seen']>();

  constructor(
    private readonly beliefs: Beliefs,
    private readonly blocks: readonly Block[],
    /** For each block a number by which it is known. */
    contents: readonly number[],
    /** A number for the contents of a list of blocks, where it is kept for the next analysis. */
    numberOf: ((contents: string) => number) | null,
  ) {
    const { diagrams } = beliefs.encoded;
    this.factoring = new Factoring(diagrams, (level) => Math.floor(level / VARIABLES_EACH));
    this.lists = new BlockLists(contents, numberOf);
    this.parts = new PartsAhead(diagrams, this.factoring, this.lists);
  }

  /** All blocks, with what is given beforehand. */
  first(): State {
    const factors = this.factoring.split(this.beliefs.encoded.given);
    return { kind: 'ahead', ahead: { list: this.lists.of(this.blocks), factors } };
  }

  expand(standing: State): Expansion {
    if (standing.kind === 'at') {
      const { block, belief, then } = standing;
      return this.fork(belief.at, block, this.leaving(belief, block.exit), then);
    }
    const parts = this.parts.apart(standing.ahead);
    const [only] = parts;
    if (only === undefined || parts.length > 1 || !isSame(only, standing.ahead))
      return { kind: 'parts', parts: parts.map((ahead) => ({ kind: 'ahead', ahead })) };
    const [block] = only.list.blocks as [Block, ...Block[]];
    const isRead = (factor: Diagram) =>
      this.factoring.supportOf(factor).some((level) => block.shared.includes(level));
    const carried = only.factors.filter((factor) => !isRead(factor));
    const mass = this.factoring.together(only.factors.filter(isRead));
    const onward = this.beliefs.entering(block.start, mass, block.exit);
    return this.fork(
      block.start,
      block,
      onward,
      this.contextOf({ list: this.lists.after(only.list), factors: carried }),
    );
  }

  private fork(at: number, block: Block, onward: SeenOnward, then: Context): Expansion {
    const { seen, out } = onward;
    const ending = seen.findIndex(({ observation }) => observation.planItem === null);
    if (out !== FALSE && ending >= 0) {
      // They may come to an ending having seen no more than those who are at one already: all at once, then.
      const beyond = this.beyond(block, this.factoring.together([out, ...then.ahead.factors]));
      if (beyond.some(({ observation }) => observation.planItem === null))
        return this.joined(at, block, seen, beyond, then);
    }
    const edges = seen.map((emission) => ({
      observation: emission.observation,
      to: emission.observation.planItem === null ? null : this.standingAt(block, emission, then),
    }));
    if (out === FALSE) return { kind: 'fork', at, edges };
    const factors = [...this.knownOut(onward, block), ...then.ahead.factors].sort((a, b) => a - b);
    const over = {
      observation: null,
      to: { kind: 'ahead', ahead: { list: then.ahead.list, factors } } as const,
    };
    const items = ending < 0 ? edges.length : ending;
    return { kind: 'fork', at, edges: [...edges.slice(0, items), over, ...edges.slice(items)] };
  }

  /** What is known of those who come past a block unseen. */
  private knownOut(onward: SeenOnward, { exit }: Block): Factors {
    let known = this.outs.get(onward);
    if (known === undefined) {
      const { encoded } = this.beliefs;
      known = this.factoring.split(encoded.diagrams.forget(onward.out, encoded.isPastAt(exit)));
      this.outs.set(onward, known);
    }
    return known;
  }

  /** What is seen in a block together with what those see who leave it unseen. */
  private joined(
    at: number,
    block: Block,
    here: SeenOnward['seen'],
    beyond: SeenOnward['seen'],
    then: Context,
  ): Expansion {
    const all = [...here, ...beyond]
      .filter(
        ({ observation }, index, every) =>
          every.findIndex((e) => e.observation.rank === observation.rank) === index,
      )
      .sort((a, b) => a.observation.rank - b.observation.rank);
    const edges = all.map((emission) => {
      if (emission.observation.planItem === null) return { observation: emission.observation, to: null };
      const home = this.blocks.findLast(({ start }) => start <= emission.observation.rank) ?? block;
      // Where an ending may come early, all is one part: nothing else is known than what is in hand.
      const after =
        home === block
          ? then
          : this.contextOf({ list: this.lists.of(this.blocks.slice(home.index + 1)), factors: [] });
      return { observation: emission.observation, to: this.standingAt(home, emission, after) };
    });
    return { kind: 'fork', at, edges };
  }

  private standingAt(block: Block, emission: Emission, then: Context): State {
    const belief = this.beliefs.settle(emission);
    return { kind: 'at', block, belief, name: emission.observation.planItem?.item.name ?? '', then };
  }

  private leaving(belief: Belief, exit: number): SeenOnward {
    const here = this.onward.get(belief.at) ?? new Map<Diagram, SeenOnward>();
    this.onward.set(belief.at, here);
    let onward = here.get(belief.known);
    if (onward === undefined) {
      onward = this.beliefs.leaving(belief, exit);
      here.set(belief.known, onward);
    }
    return onward;
  }

  private beyond(block: Block, out: Diagram): SeenOnward['seen'] {
    let seen = this.seenBeyond.get(out);
    if (seen === undefined) {
      seen = this.beliefs.entering(block.exit, out, Infinity).seen;
      this.seenBeyond.set(out, seen);
    }
    return seen;
  }

  keyOf({ list, factors }: BlocksAhead): string {
    return `${list.number}|${factors.join(' ')}`;
  }

  private contextOf(ahead: BlocksAhead): Context {
    const key = this.keyOf(ahead);
    let context = this.contexts.get(key);
    if (context === undefined) {
      context = { ahead, known: new Map() };
      this.contexts.set(key, context);
    }
    return context;
  }
}

function isSame(a: BlocksAhead, b: BlocksAhead): boolean {
  return (
    a.list === b.list &&
    a.factors.length === b.factors.length &&
    a.factors.every((factor, n) => factor === b.factors[n])
  );
}
