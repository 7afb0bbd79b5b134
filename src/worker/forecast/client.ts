/** The main thread's side of the forecast worker: while a share is dragged only the last place is worked out. */
import { releaseProxy, wrap, type Remote } from 'comlink';
import type { Questionnaire } from '../../core/document/types';
import type { EndingMinutes, Hanging } from '../../core/forecast/forecast';
import type { Effect } from '../../core/forecast/steering';
import type { Figures, FiguresAsked, ForecastApi } from './types';

export class ForecastClient {
  private worker: Worker | null = null;
  private remote: Remote<ForecastApi> | null = null;
  private loaded: Questionnaire | null = null;
  private working = false;
  private next: (() => void) | null = null;

  private get api(): Remote<ForecastApi> {
    this.worker ??= new Worker(new URL('./forecast.worker.ts', import.meta.url), { type: 'module' });
    this.remote ??= wrap<ForecastApi>(this.worker);
    return this.remote;
  }

  /** Null where something newer was asked for meanwhile. */
  async figures(document: Questionnaire, asked: FiguresAsked): Promise<Figures | null> {
    if (this.working) {
      const isNext = await new Promise<boolean>((resolve) => {
        this.drop();
        this.next = () => resolve(true);
        this.drop = () => resolve(false);
      });
      if (!isNext) return null;
    }
    this.working = true;
    try {
      if (this.loaded !== document) await this.api.load(document);
      this.loaded = document;
      return await this.api.figures(asked);
    } finally {
      this.working = false;
      const { next } = this;
      this.next = null;
      this.drop = () => undefined;
      next?.();
    }
  }

  private drop: () => void = () => undefined;

  /** By what was assumed last. */
  effects(of: Hanging): Promise<readonly Effect[] | null> {
    return this.api.effects(of);
  }

  minutesByEnding(): Promise<readonly EndingMinutes[]> {
    return this.api.minutesByEnding();
  }

  stop(): void {
    this.remote?.[releaseProxy]();
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
    this.loaded = null;
  }
}
