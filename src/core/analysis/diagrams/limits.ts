/**
 * How much work an analysis may do, and what becomes of it where that is not enough. What can grow beyond bounds throws
 * a kind of `TooMuch`; whoever asked gets nothing rather than something wrong, or asks for less.
 */

export interface Caps {
  /** Beliefs told apart at most. */
  readonly beliefs: number;
  /** Nodes of diagrams at most. */
  readonly nodes: number;
  /** Steps of work over diagrams at most, in each part of the analysis; some seconds' worth where not given. */
  readonly steps?: number;
}

export const DEFAULT_CAPS: Caps = { beliefs: 400_000, nodes: 3_000_000 };

/** Thrown where something would have to be told apart in more ways than is allowed. */
export class TooMuch extends Error {}

/** Where a function would take more nodes, or more steps of work, than allowed. */
export class TooManyNodes extends TooMuch {}

/** What some work over diagrams gives; null where they grow beyond their caps. */
export function withinMemory<Result>(work: () => Result): Result | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof TooMuch) return null;
    throw error;
  }
}
