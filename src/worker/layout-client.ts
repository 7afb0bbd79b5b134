/** The main thread's side of the layout worker. */
import { releaseProxy, wrap, type Remote } from 'comlink';
import type { LayoutTask, RiverLayout } from '../core/views/river';
import type { LayoutApi } from './layout.worker';

export class LayoutClient {
  private worker: Worker | null = null;
  private remote: Remote<LayoutApi> | null = null;

  layout(task: LayoutTask): Promise<RiverLayout> {
    this.worker ??= new Worker(new URL('./layout.worker.ts', import.meta.url), { type: 'module' });
    this.remote ??= wrap<LayoutApi>(this.worker);
    return this.remote.layout(task);
  }

  stop(): void {
    this.remote?.[releaseProxy]();
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
  }
}
