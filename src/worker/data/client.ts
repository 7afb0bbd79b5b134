/** The main thread's side of the data worker. */
import type { Remote } from 'comlink';
import type { Questionnaire } from '../../core/document/types';
import { HeldWorker } from '../held-worker';
import type { DataApi } from './types';

export class DataClient {
  private readonly held = new HeldWorker<DataApi>(
    () => new Worker(new URL('./data.worker.ts', import.meta.url), { type: 'module' }),
  );
  /** The questionnaire, and the worker that has it. */
  private loaded: { readonly document: Questionnaire; readonly worker: Worker | null } | null = null;

  /** For questions about a questionnaire, which is loaded first where it is another. */
  async about(document: Questionnaire): Promise<Remote<DataApi>> {
    const { api } = this.held;
    const { worker } = this.held;
    if (this.loaded?.document !== document || this.loaded.worker !== worker) {
      this.loaded = { document, worker };
      await api.load(document);
    }
    return api;
  }

  /** Ends whatever is under way; what was opened is forgotten. */
  stop(): void {
    this.held.stop();
    this.loaded = null;
  }
}
