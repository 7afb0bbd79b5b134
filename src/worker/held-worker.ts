/** A worker that is made with the first question to it, and ended by hand: the next question makes another. */
import { releaseProxy, wrap, type Remote } from 'comlink';

export class HeldWorker<Api> {
  private held: { readonly worker: Worker; readonly remote: Remote<Api> } | null = null;

  constructor(private readonly make: () => Worker) {}

  /** Null while there is none. */
  get worker(): Worker | null {
    return this.held?.worker ?? null;
  }

  get api(): Remote<Api> {
    if (this.held === null) {
      const worker = this.make();
      this.held = { worker, remote: wrap<Api>(worker) };
    }
    return this.held.remote;
  }

  /** Ends whatever is under way; who still asks what was stopped is refused, instead of waiting without end. */
  stop(): void {
    this.held?.remote[releaseProxy]();
    this.held?.worker.terminate();
    this.held = null;
  }
}
