/**
 * The main thread's side of the search for a covering set: one search at a time, about the document looked at last, which can
 * be stopped with what was found by then. What was found stays known until the routes are others.
 */
import { proxy } from 'comlink';
import { routingContent } from '../../core/document/routing-content';
import type { Questionnaire } from '../../core/document/types';
import { HeldWorker } from '../held-worker';
import type { Covered, CoverApi, CoveringRoutes } from './types';

/** How far a search is; `failed`: by a fault. */
export interface CoverStanding extends CoveringRoutes {
  readonly stands: 'looking' | 'stopped' | 'found' | 'failed';
  /** False where the forks are too many or too entangled to find such routes. */
  readonly complete: boolean;
}

const NOTHING: CoverStanding = {
  ...{ routes: [], atLeast: 0, taken: 0, of: 0 },
  ...{ stands: 'looking', complete: true },
};

export class CoverClient {
  private readonly held = new HeldWorker<CoverApi>(
    () => new Worker(new URL('./cover.worker.ts', import.meta.url), { type: 'module' }),
  );
  /** What of a document is looked at, and how far that is; null before anything is. */
  private known: { readonly content: string; readonly standing: CoverStanding } | null = null;
  private readonly listeners = new Set<(standing: CoverStanding) => void>();

  constructor(private readonly what: Covered) {}

  /**
   * Looks for the covering set of a document, unless it is known, and tells how far that is, at once and whenever it has come
   * further; gives how to be told no more, which stops nothing.
   */
  watch(document: Questionnaire, listener: (standing: CoverStanding) => void): () => void {
    const content = routingContent(document);
    if (this.known?.content !== content) this.begin(document, content);
    this.listeners.add(listener);
    listener(this.known?.standing ?? NOTHING);
    return () => void this.listeners.delete(listener);
  }

  /** Leaves it at what was found so far. */
  halt(): void {
    if (this.known?.standing.stands !== 'looking') return;
    this.held.stop();
    this.tell(this.known.content, { ...this.known.standing, stands: 'stopped' });
  }

  /** Looks anew after it was stopped. */
  again(document: Questionnaire): void {
    this.begin(document, routingContent(document));
  }

  /** Forgets everything. */
  stop(): void {
    this.held.stop();
    this.known = null;
  }

  private begin(document: Questionnaire, content: string): void {
    this.held.stop();
    this.known = null;
    const { api } = this.held;
    const { worker } = this.held;
    this.tell(content, NOTHING);
    const isWanted = () => this.held.worker === worker;
    const improved = (soFar: CoveringRoutes) => {
      if (isWanted()) this.tell(content, { ...NOTHING, ...soFar });
    };
    const ended = (standing: CoverStanding) => {
      if (!isWanted()) return;
      // Its memory is given back: there is nothing more to look for.
      this.held.stop();
      this.tell(content, standing);
    };
    api.look(document, this.what, proxy(improved)).then(
      (found) => ended({ ...found, stands: 'found' }),
      () => ended({ ...NOTHING, stands: 'failed' }),
    );
  }

  private tell(content: string, standing: CoverStanding): void {
    this.known = { content, standing };
    for (const listener of this.listeners) listener(standing);
  }
}
