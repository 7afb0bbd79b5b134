/**
 * The graph of what can be seen: a node is a belief, an edge the next item or ending seen. Its paths from the root
 * are exactly the routes, in canonical order.
 *
 * Equal beliefs are one node, so the graph stays small where the number of routes does not. Counts are exact as
 * long as no cap was hit; beyond a cap each prefix counts as the one route that is known to complete it.
 */
import type { Belief, Beliefs, Emission, Sight } from './belief';
import { TooManyNodes } from './diagram';

export interface Caps {
  /** Beliefs told apart at most. */
  readonly beliefs: number;
  /** Nodes of diagrams at most. */
  readonly nodes: number;
}

export const DEFAULT_CAPS: Caps = { beliefs: 150_000, nodes: 3_000_000 };

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
  /** The item at which the caps were hit; null where they were not. */
  readonly stoppedAt: string | null;
}

interface Frame {
  readonly node: Node;
  readonly emissions: readonly Emission[];
  next: number;
  readonly edges: Edge[];
}

/** Builds the graph depth first, so that what a cap leaves out lies in one region. */
export function buildGraph(beliefs: Beliefs, caps: Caps = DEFAULT_CAPS): Graph {
  const known = new Map<number, Map<number, Node>>();
  const nodes: Node[] = [];
  let stoppedAt: string | null = null;

  const frameFor = (emissions: readonly Emission[]): Frame => {
    const node: Node = { edges: [], routes: 0n, shortest: Infinity, longest: -Infinity, opened: true };
    nodes.push(node);
    return { node, emissions, next: 0, edges: [] };
  };
  const nodeOf = ({ at, known: what }: Belief): Node | undefined => known.get(at)?.get(what);
  const remember = ({ at, known: what }: Belief, node: Node) => {
    const here = known.get(at);
    if (here === undefined) known.set(at, new Map([[what, node]]));
    else here.set(what, node);
  };

  const stack = [frameFor(beliefs.start())];
  const root = (stack[0] as Frame).node;
  for (let frame = stack.at(-1); frame !== undefined; frame = stack.at(-1)) {
    const emission = frame.emissions[frame.next];
    if (emission === undefined) {
      close(frame);
      stack.pop();
      continue;
    }
    const { sight } = emission;
    frame.next += 1;
    if (sight.planItem === null) {
      frame.edges.push({ sight, to: null });
      continue;
    }
    const belief = beliefs.settle(emission);
    const child = nodeOf(belief);
    if (child !== undefined) {
      frame.edges.push({ sight, to: child });
      continue;
    }
    const opened = stoppedAt === null && nodes.length < caps.beliefs ? open(beliefs, belief) : null;
    if (opened === null) {
      stoppedAt ??= sight.planItem.item.name;
      const closed = unopened(beliefs, belief);
      remember(belief, closed);
      frame.edges.push({ sight, to: closed });
      continue;
    }
    const next = frameFor(opened);
    remember(belief, next.node);
    // Its counts are filled in by the time this frame is closed.
    frame.edges.push({ sight, to: next.node });
    stack.push(next);
  }
  return { root, nodes, stoppedAt };
}

/** Null where the diagrams grow beyond their cap. */
function open(beliefs: Beliefs, belief: Belief): Emission[] | null {
  try {
    return beliefs.after(belief);
  } catch (error) {
    if (error instanceof TooManyNodes) return null;
    throw error;
  }
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
function unopened(beliefs: Beliefs, belief: Belief): Node {
  const length = completion(beliefs, belief);
  const found = length !== null;
  return {
    edges: [],
    routes: found ? 1n : 0n,
    shortest: length ?? Infinity,
    longest: length ?? -Infinity,
    opened: false,
  };
}

/** Steps tried at most to find one way to an ending. */
const MOST_STEPS = 5000;

/** Items presented on one way to an ending, found depth first; null where none was found. */
function completion(beliefs: Beliefs, belief: Belief): number | null {
  const stack = [{ belief, length: 0 }];
  for (let steps = 0; steps < MOST_STEPS; steps += 1) {
    const next = stack.pop();
    if (next === undefined) return null;
    const emissions = open(beliefs, next.belief);
    if (emissions === null) return null;
    if (emissions.some(({ sight }) => sight.planItem === null)) return next.length;
    for (const emission of emissions.reverse()) {
      stack.push({ belief: beliefs.settle(emission), length: next.length + 1 });
    }
  }
  return null;
}
