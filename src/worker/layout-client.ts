/** The main thread's side of the layout worker. */
import type { LayoutTask, RiverLayout } from '../core/views/river';
import { HeldWorker } from './held-worker';
import type { LayoutApi } from './layout.worker';

export class LayoutClient {
  private readonly held = new HeldWorker<LayoutApi>(
    () => new Worker(new URL('./layout.worker.ts', import.meta.url), { type: 'module' }),
  );

  layout(task: LayoutTask): Promise<RiverLayout> {
    return this.held.api.layout(task);
  }

  stop(): void {
    this.held.stop();
  }
}
