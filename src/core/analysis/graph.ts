/**
 * The graph of what can be seen: a node is everything that is possible after what was seen so far, an edge the
 * next item, or an ending. Its paths from the root are exactly the routes, in canonical order.
 *
 * Nodes with equal sets of hidden states are one node, so the graph stays small where the number of routes
 * does not. Counts are exact as long as no cap was hit.
 */
import type { Beliefs, Sight, State } from './belief';

export interface Caps {
  /** Nodes opened at most. */
  readonly nodes: number;
  /** Hidden states worked through at most, over all nodes. */
  readonly states: number;
}

export const DEFAULT_CAPS: Caps = { nodes: 100_000, states: 1_500_000 };

export interface Edge {
  readonly sight: Sight;
  /** Null at an ending. */
  readonly to: Node | null;
}

export interface Node {
  /** In canonical order; only those on which at least one route goes on. */
  edges: readonly Edge[];
  /** Routes from here on; a lower bound where the graph is not whole. */
  routes: bigint;
  /** Fewest and most items still presented on a route from here. */
  shortest: number;
  longest: number;
  /** False where a cap stopped the opening of this node. */
  opened: boolean;
}

export interface Graph {
  readonly root: Node;
  readonly nodes: readonly Node[];
  /** Whether every node was opened. */
  readonly whole: boolean;
  /** The item at which the caps were hit; null where they were not. */
  readonly stoppedAt: string | null;
}

interface Frame {
  readonly node: Node;
  readonly groups: readonly { sight: Sight; states: State[] }[];
  next: number;
  readonly edges: Edge[];
}

/** Builds the graph depth first, so that what a cap leaves out lies in one region. */
export function buildGraph(beliefs: Beliefs, caps: Caps = DEFAULT_CAPS): Graph {
  const known = new Map<string, Node>();
  const nodes: Node[] = [];
  let work = 0;
  let stoppedAt: string | null = null;

  const frameFor = (states: readonly State[]): Frame => {
    const node: Node = { edges: [], routes: 0n, shortest: Infinity, longest: -Infinity, opened: true };
    known.set(keyOf(states), node);
    nodes.push(node);
    work += states.length;
    return { node, groups: bySight(states), next: 0, edges: [] };
  };

  const start = beliefs.start();
  const stack = [frameFor(start)];
  const root = (stack[0] as Frame).node;
  while (stack.length > 0) {
    const frame = stack.at(-1) as Frame;
    const group = frame.groups[frame.next];
    if (group === undefined) {
      close(frame);
      stack.pop();
      continue;
    }
    if (group.sight.planItem === null) {
      frame.edges.push({ sight: group.sight, to: null });
      frame.next += 1;
      continue;
    }
    const following = beliefs.after(group.states);
    const key = keyOf(following);
    const child = known.get(key);
    if (child !== undefined) {
      frame.edges.push({ sight: group.sight, to: child });
      frame.next += 1;
    } else if (nodes.length >= caps.nodes || work >= caps.states) {
      stoppedAt ??= group.sight.planItem.item.name;
      const closed = unopened(beliefs, following);
      known.set(key, closed);
      frame.edges.push({ sight: group.sight, to: closed });
      frame.next += 1;
    } else {
      // Looked at again, and then found in `known`, once the child is closed.
      stack.push(frameFor(following));
    }
  }
  return { root, nodes, whole: stoppedAt === null, stoppedAt };
}

function keyOf(states: readonly State[]): string {
  return states
    .map(({ key }) => key)
    .sort()
    .join(';');
}

/** States that are seen alike, in canonical order of what is seen. */
export function bySight(states: readonly State[]): { sight: Sight; states: State[] }[] {
  const groups = new Map<number, { sight: Sight; states: State[] }>();
  for (const state of states) {
    const group = groups.get(state.sight.rank);
    if (group === undefined) groups.set(state.sight.rank, { sight: state.sight, states: [state] });
    else group.states.push(state);
  }
  return [...groups.values()].sort((a, b) => a.sight.rank - b.sight.rank);
}

function close({ node, edges }: Frame): void {
  const live = edges.filter(({ to }) => to === null || to.routes > 0n);
  node.edges = live;
  for (const { to } of live) {
    node.routes += to?.routes ?? 1n;
    node.shortest = Math.min(node.shortest, to === null ? 0 : to.shortest + 1);
    node.longest = Math.max(node.longest, to === null ? 0 : to.longest + 1);
  }
}

/** A node that is not opened counts as one route if some respondent gets from it to an ending. */
function unopened(beliefs: Beliefs, states: readonly State[]): Node {
  const length = completion(beliefs, states);
  const found = length !== null;
  return {
    edges: [],
    routes: found ? 1n : 0n,
    shortest: length ?? Infinity,
    longest: length ?? -Infinity,
    opened: false,
  };
}

/** Items presented on one way to an ending, found by trying single states depth first; null where there is none. */
function completion(beliefs: Beliefs, states: readonly State[]): number | null {
  const tried = new Set<string>();
  const open = states.map((state) => ({ state, length: 0 })).reverse();
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    const { state, length } = next;
    if (state.sight.planItem === null) return length;
    if (tried.has(state.key)) continue;
    tried.add(state.key);
    for (const following of beliefs.after([state]).reverse())
      open.push({ state: following, length: length + 1 });
  }
  return null;
}
