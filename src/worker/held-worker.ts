/**
 * A worker that is held: one for all questions until it is stopped, or breaks down. It is made with the first question, and
 * again with the next one after its end.
 */
import { releaseProxy, wrap, type Remote } from 'comlink';
import { unlessFailed } from '../core/collected/across';
import { brokenDown } from './broken-down';

interface Held<Api> {
  readonly worker: Worker;
  /** As `calls`, without an end to waiting where the worker breaks down. */
  readonly remote: Remote<Api>;
  readonly calls: Remote<Api>;
  isBroken: boolean;
}

export class HeldWorker<Api> {
  private held: Held<Api> | null = null;

  constructor(private readonly make: () => Worker) {}

  /** Null while there is none. */
  get worker(): Worker | null {
    return this.held?.worker ?? null;
  }

  /** Calls to it are refused once it has broken down; whoever asks for this again then asks another worker. */
  get api(): Remote<Api> {
    if (this.held?.isBroken === true) this.stop();
    this.held ??= held<Api>(this.make());
    return this.held.calls;
  }

  /** Ends whatever is under way; who still asks what was stopped is refused, instead of waiting without end. */
  stop(): void {
    this.held?.remote[releaseProxy]();
    this.held?.worker.terminate();
    this.held = null;
  }
}

function held<Api>(worker: Worker): Held<Api> {
  const remote = wrap<Api>(worker);
  const failed = brokenDown(worker);
  const unlessBroken = unlessFailed(failed);
  const calls = new Proxy(remote, {
    get(target, name) {
      const call = Reflect.get(target, name) as unknown;
      // Whatever has a `then` that can be called is taken for a promise.
      if (typeof name === 'symbol' || name === 'then') return call;
      return (...args: unknown[]) =>
        unlessBroken((call as (...args: unknown[]) => Promise<unknown>)(...args));
    },
  });
  const made: Held<Api> = { worker, remote, calls, isBroken: false };
  failed.catch(() => {
    made.isBroken = true;
  });
  return made;
}
