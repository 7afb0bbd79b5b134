/** What crosses between the main thread and the worker that looks for covering sets. */
import type { ForkEvent } from '../../core/analysis';

/** What is to be taken: every outcome of a fork, or every two that somebody meets together. */
export const COVERED = ['forks', 'pairs'] as const;
export type Covered = (typeof COVERED)[number];

export interface CoveringRoute {
  readonly items: readonly string[];
  readonly ending: string;
  /** What only this one takes. */
  readonly alone: readonly ForkEvent[];
}

export interface CoveringRoutes {
  readonly routes: readonly CoveringRoute[];
  /** No fewer routes take all. */
  readonly atLeast: number;
  /** Outcomes of forks, or pairs of them, that these routes take between them; and that anybody can meet. */
  readonly taken: number;
  readonly of: number;
}

export interface CoverFound extends CoveringRoutes {
  /** False where the forks are too many or too entangled to find such routes. */
  readonly complete: boolean;
}

export interface CoverApi {
  /** `improved` is told now and then what was found so far. */
  look(document: unknown, what: Covered, improved: (soFar: CoveringRoutes) => void): CoverFound;
}
