/** The main thread's side of the data worker. */
import { releaseProxy, wrap, type Remote } from 'comlink';
import type { Questionnaire } from '../../core/document/types';
import type { DataApi } from './types';

export class DataClient {
  private worker: Worker | null = null;
  private remote: Remote<DataApi> | null = null;
  private loaded: Questionnaire | null = null;

  /** For questions about a questionnaire, which is loaded first where it is another. */
  async about(document: Questionnaire): Promise<Remote<DataApi>> {
    this.worker ??= new Worker(new URL('./data.worker.ts', import.meta.url), { type: 'module' });
    this.remote ??= wrap<DataApi>(this.worker);
    const { remote } = this;
    if (this.loaded !== document) {
      this.loaded = document;
      await remote.load(document);
    }
    return remote;
  }

  /** Ends whatever is under way; what was opened is forgotten. */
  stop(): void {
    this.remote?.[releaseProxy]();
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
    this.loaded = null;
  }
}
