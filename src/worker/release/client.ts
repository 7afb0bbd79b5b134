/** The main thread's side of the release worker. */
import { proxy, releaseProxy, wrap, type Remote } from 'comlink';
import type { Questionnaire } from '../../core/document/types';
import type { Compared, MadeFile, PassedRoutes, ReleaseApi, SidesShown } from './types';

export class ReleaseClient {
  private worker: Worker | null = null;
  private remote: Remote<ReleaseApi> | null = null;
  /** What was compared last, and whether the worker that did is there still. */
  private compared: readonly [old: Questionnaire, now: Questionnaire] | null = null;
  private comparing: Promise<Compared> | null = null;

  private get api(): Remote<ReleaseApi> {
    this.worker ??= new Worker(new URL('./release.worker.ts', import.meta.url), { type: 'module' });
    this.remote ??= wrap<ReleaseApi>(this.worker);
    return this.remote;
  }

  passedRoutes(document: Questionnaire, marks: readonly (readonly string[])[]): Promise<PassedRoutes> {
    return this.api.passedRoutes(document, marks);
  }

  file(...[asked, document, version, progress]: Parameters<ReleaseApi['file']>): Promise<MadeFile> {
    return this.api.file(asked, document, version, proxy(progress));
  }

  /** The same two again are not compared anew. */
  compare(old: Questionnaire, now: Questionnaire): Promise<Compared> {
    if (this.comparing !== null && this.compared?.[0] === old && this.compared[1] === now)
      return this.comparing;
    this.compared = [old, now];
    const comparing = this.api.compare(old, now);
    this.comparing = comparing;
    comparing.catch(() => {
      if (this.comparing === comparing) this.comparing = null;
    });
    return comparing;
  }

  /** Of the two compared last. */
  bothSides(...asked: Parameters<ReleaseApi['bothSides']>): Promise<SidesShown | null> {
    return this.api.bothSides(...asked);
  }

  stop(): void {
    this.remote?.[releaseProxy]();
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
    this.compared = null;
    this.comparing = null;
  }
}
