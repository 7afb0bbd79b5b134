/**
 * The graph of what can be seen. A fork is a belief in one block of the questionnaire, its edges the next item or
 * ending seen there, or none of these: the block is over. What then lies ahead falls into parts that have nothing
 * to do with each other, so that a route is one way through each, taken together in the order of the blocks.
 *
 * Equal beliefs are one node, and what is known that does not matter to a part is no part of its belief, so the
 * graph stays small where the number of routes does not (after the caching of components in model counting: Sang,
 * Bacchus, Beame, Kautz and Pitassi, "Combining component caching and clause learning", 2004). Counts are exact as
 * long as no cap was hit; beyond a cap each prefix counts as the one route that is known to complete it.
 */
import { DEFAULT_CAPS, TooManyNodes, type Caps } from '../diagrams/limits';
import type { CachedGraphs } from './analysis-cache';
import type { Beliefs } from './belief';
import { blocksOf, contentOf } from './blocks';
import { Expander, type Expansion, type State } from './expand';
import { childrenFirst, type Edge, type ForkNode, type Graph, type Node } from './graph';

interface Frame {
  readonly node: Node;
  readonly expansion: Expansion;
  next: number;
  readonly children: (Node | null)[];
}

/** Builds the graph depth first, so that what a cap leaves out lies in one region. */
export function buildGraph(
  beliefs: Beliefs,
  caps: Caps = DEFAULT_CAPS,
  memory: CachedGraphs | null = null,
): Graph {
  return new GraphBuilder(beliefs, caps, memory).build();
}

class GraphBuilder {
  /** Nodes found again from before. */
  private foundAgain = 0;
  private readonly expander: Expander;
  private readonly starts = new Map<string, Node>();
  private readonly nodes: Node[] = [];
  private beliefCount = 0;
  private stoppedAt: string | null = null;

  constructor(
    private readonly beliefs: Beliefs,
    private readonly caps: Caps,
    private readonly memory: CachedGraphs | null,
  ) {
    const { encoded } = beliefs;
    const blocks = blocksOf(encoded);
    const contents = blocks.map((block) => memory?.contents.of(contentOf(encoded, block)) ?? block.index);
    const numberOf = memory && ((contents: string) => memory.contents.of(contents));
    this.expander = new Expander(beliefs, blocks, contents, numberOf);
  }

  build(): Graph {
    const first = this.expander.first();
    const opened = this.tryToExpand(first);
    const stack = opened === null ? [] : [this.frameFor(first, opened)];
    if (opened === null) this.stop(first);
    const root = stack[0]?.node ?? this.unopened(first);
    for (let frame = stack.at(-1); frame !== undefined; frame = stack.at(-1)) {
      const targets = targetsOf(frame.expansion);
      if (frame.next === targets.length) {
        this.close(frame);
        stack.pop();
        continue;
      }
      const target = targets[frame.next] ?? null;
      frame.next += 1;
      const known = target === null ? null : this.nodeOf(target);
      if (target === null || known !== undefined) {
        frame.children.push(known ?? null);
        continue;
      }
      const expansion = this.stoppedAt === null ? this.expandWithin(target) : null;
      if (expansion === null) {
        this.stop(target);
        frame.children.push(this.unopened(target));
        continue;
      }
      const next = this.frameFor(target, expansion);
      // Its counts are filled in by the time this frame is closed.
      frame.children.push(next.node);
      stack.push(next);
    }
    const { beliefCount, stoppedAt } = this;
    const nodes = this.foundAgain > 0 ? childrenFirst(root) : this.nodes;
    this.keep(nodes);
    return { root, nodes, beliefs: beliefCount, stoppedAt };
  }

  /** From here on nothing is opened; to find one way on from each place work is allowed once more. */
  private stop(standing: State): void {
    if (this.stoppedAt === null) this.beliefs.encoded.diagrams.rest();
    this.stoppedAt ??= this.nameOf(standing);
  }

  private frameFor(standing: State, expansion: Expansion): Frame {
    const empty = { routes: 0n, shortest: Infinity, longest: -Infinity };
    const node: Node =
      expansion.kind === 'fork'
        ? {
            kind: 'fork',
            at: this.beliefs.observations.ranked(expansion.at),
            edges: [],
            opened: true,
            ...empty,
          }
        : { kind: 'parts', parts: [], ...empty };
    if (node.kind === 'fork') this.beliefCount += 1;
    this.remember(standing, node);
    return { node, expansion, next: 0, children: [] };
  }

  private close({ node, expansion, children }: Frame): void {
    this.nodes.push(node);
    if (node.kind === 'parts') {
      node.parts = children as Node[];
      node.routes = node.parts.reduce((product, { routes }) => product * routes, 1n);
      node.shortest = node.parts.reduce((sum, { shortest }) => sum + shortest, 0);
      node.longest = node.parts.reduce((sum, { longest }) => sum + longest, 0);
      return;
    }
    if (expansion.kind !== 'fork') return;
    const edges = expansion.edges.map(({ observation }, index): Edge => ({
      observation,
      to: children[index] ?? null,
    }));
    node.edges = edges.filter(({ to }) => to === null || to.routes > 0n);
    for (const { observation, to } of node.edges) {
      const more = observation === null || to === null ? 0 : 1;
      node.routes += to?.routes ?? 1n;
      node.shortest = Math.min(node.shortest, (to?.shortest ?? 0) + more);
      node.longest = Math.max(node.longest, (to?.longest ?? 0) + more);
    }
  }

  private nodeOf(standing: State): Node | undefined {
    if (standing.kind === 'at')
      return standing.then.known.get(standing.belief.at)?.get(standing.belief.known);
    const key = this.expander.keyOf(standing.ahead);
    const known = this.starts.get(key);
    if (known !== undefined) return known;
    const before = this.memory?.starts.get(key);
    if (before === undefined) return undefined;
    this.foundAgain += 1;
    this.starts.set(key, before);
    return before;
  }

  /** Leaves what lies ahead of each start for the next graph, if it is whole. */
  private keep(nodes: readonly Node[]): void {
    const { memory } = this;
    if (memory === null) return;
    if (this.stoppedAt !== null) {
      memory.starts = new Map();
      return;
    }
    const reached = new Set(nodes);
    const again = [...memory.starts].filter(([, node]) => reached.has(node));
    memory.starts = new Map([...again, ...this.starts]);
  }

  private remember(standing: State, node: Node): void {
    if (standing.kind === 'ahead') {
      this.starts.set(this.expander.keyOf(standing.ahead), node);
      return;
    }
    const { at, known } = standing.belief;
    const here = standing.then.known.get(at);
    if (here === undefined) standing.then.known.set(at, new Map([[known, node]]));
    else here.set(known, node);
  }

  /** Null where a cap is hit. */
  private expandWithin(standing: State): Expansion | null {
    return this.beliefCount >= this.caps.beliefs ? null : this.tryToExpand(standing);
  }

  private tryToExpand(standing: State): Expansion | null {
    try {
      return this.expander.expand(standing);
    } catch (error) {
      if (error instanceof TooManyNodes) return null;
      throw error;
    }
  }

  private nameOf(standing: State): string {
    if (standing.kind === 'at') return standing.name;
    const start = standing.ahead.list.blocks[0]?.start ?? 0;
    const place = this.beliefs.encoded.course.places[start];
    const section = place?.kind === 'gate' ? this.beliefs.encoded.plan.sections[place.section] : undefined;
    return section?.items[0]?.item.name ?? '';
  }

  /** A node that is not opened counts as one way on if some respondent gets from it to an ending. */
  private unopened(standing: State): Node {
    const length = this.completion(standing);
    const found = length !== null;
    const at = standing.kind === 'at' ? standing.belief.at : (standing.ahead.list.blocks[0]?.start ?? 0);
    const node: ForkNode = {
      kind: 'fork',
      at: this.beliefs.observations.ranked(at),
      edges: [],
      opened: false,
      routes: found ? 1n : 0n,
      shortest: length ?? Infinity,
      longest: length ?? -Infinity,
    };
    this.nodes.push(node);
    this.remember(standing, node);
    return node;
  }

  /** Items presented on one way on, found depth first; null where none was found. */
  private completion(standing: State): number | null {
    let left = MOST_STEPS;
    const open: { readonly todo: Todo | null; readonly length: number }[] = [
      { todo: { standing, then: null }, length: 0 },
    ];
    for (let here = open.pop(); here !== undefined; here = open.pop()) {
      const { todo, length } = here;
      if (todo === null) return length;
      const known = this.nodeOf(todo.standing);
      if (known !== undefined && known.routes > 0n) {
        open.push({ todo: todo.then, length: length + known.shortest });
        continue;
      }
      left -= 1;
      if (left < 0) return null;
      const expansion = this.tryToExpand(todo.standing);
      if (expansion?.kind === 'parts') {
        const first = expansion.parts.reduceRight<Todo | null>(
          (then, part) => ({ standing: part, then }),
          todo.then,
        );
        open.push({ todo: first, length });
      } else if (expansion !== null) {
        for (const { observation, to } of expansion.edges)
          open.push({
            todo: to === null ? todo.then : { standing: to, then: todo.then },
            length: length + (observation === null || to === null ? 0 : 1),
          });
      }
    }
    return null;
  }
}

/** Standings that a way on has still to lead out of, one after the other. */
interface Todo {
  readonly standing: State;
  readonly then: Todo | null;
}

/** Steps tried at most to find one way to an ending. */
const MOST_STEPS = 5000;

function targetsOf(expansion: Expansion): readonly (State | null)[] {
  return expansion.kind === 'parts' ? expansion.parts : expansion.edges.map(({ to }) => to);
}
