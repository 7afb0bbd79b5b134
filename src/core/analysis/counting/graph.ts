/**
 * The graph of what can be seen, as counting, lists and single routes read it: forks with what is seen next, and parts
 * that have nothing to do with each other. `build-graph.ts` makes it.
 */
import type { Observation, Ranked } from './observations';

export interface Edge {
  /** What is seen; null where the block is over. */
  readonly observation: Observation | null;
  /** Null at an ending. */
  readonly to: Node | null;
}

interface Counts {
  /** Ways on from here, through the blocks of this part; a lower bound where the graph is not whole. */
  routes: bigint;
  /** Fewest and most items still presented on a way from here. */
  shortest: number;
  longest: number;
}

export interface ForkNode extends Counts {
  readonly kind: 'fork';
  /** The place it stands at; forks of one route are gone through in this order. */
  readonly at: Ranked;
  /** In canonical order; only those on which at least one way goes on. */
  edges: readonly Edge[];
  /** False where a cap stopped the opening of this node. */
  opened: boolean;
}

/** Parts that have nothing to do with each other; none where nothing lies ahead. */
export interface PartsNode extends Counts {
  readonly kind: 'parts';
  parts: readonly Node[];
}

export type Node = ForkNode | PartsNode;

export interface Graph {
  readonly root: Node;
  /** Children before parents. */
  readonly nodes: readonly Node[];
  /** Beliefs told apart. */
  readonly beliefs: number;
  /** The item at which the caps were hit; null where they were not. */
  readonly stoppedAt: string | null;
}

/** Every node that can be reached, not going beyond those that are known, children before parents. */
export function childrenFirst(root: Node, isKnown: (node: Node) => boolean = () => false): Node[] {
  const done: Node[] = [];
  const seen = new Set<Node>([root]);
  const open: { node: Node; next: number }[] = [{ node: root, next: 0 }];
  for (let frame = open.at(-1); frame !== undefined; frame = open.at(-1)) {
    const { node } = frame;
    const child = node.kind === 'parts' ? node.parts[frame.next] : node.edges[frame.next]?.to;
    if (child === undefined) {
      done.push(node);
      open.pop();
      continue;
    }
    frame.next += 1;
    if (child === null || seen.has(child) || isKnown(child)) continue;
    seen.add(child);
    open.push({ node: child, next: 0 });
  }
  return done;
}
