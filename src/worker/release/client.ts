/** The main thread's side of the release worker. */
import { proxy } from 'comlink';
import type { Questionnaire } from '../../core/document/types';
import { HeldWorker } from '../held-worker';
import type { Compared, MadeFile, PassedRoutes, ReleaseApi, SidesShown } from './types';

export class ReleaseClient {
  private readonly held = new HeldWorker<ReleaseApi>(
    () => new Worker(new URL('./release.worker.ts', import.meta.url), { type: 'module' }),
  );
  /** What was compared last, and whether the worker that did is there still. */
  private compared: readonly [old: Questionnaire, now: Questionnaire] | null = null;
  private comparing: Promise<Compared> | null = null;

  passedRoutes(document: Questionnaire, marks: readonly (readonly string[])[]): Promise<PassedRoutes> {
    return this.held.api.passedRoutes(document, marks);
  }

  file(...[asked, document, version, progress]: Parameters<ReleaseApi['file']>): Promise<MadeFile> {
    return this.held.api.file(asked, document, version, proxy(progress));
  }

  /** The same two again are not compared anew. */
  compare(old: Questionnaire, now: Questionnaire): Promise<Compared> {
    if (this.comparing !== null && this.compared?.[0] === old && this.compared[1] === now)
      return this.comparing;
    this.compared = [old, now];
    const comparing = this.held.api.compare(old, now);
    this.comparing = comparing;
    comparing.catch(() => {
      if (this.comparing === comparing) this.comparing = null;
    });
    return comparing;
  }

  /** Of the two compared last. */
  bothSides(...asked: Parameters<ReleaseApi['bothSides']>): Promise<SidesShown | null> {
    return this.held.api.bothSides(...asked);
  }

  stop(): void {
    this.held.stop();
    this.compared = null;
    this.comparing = null;
  }
}
