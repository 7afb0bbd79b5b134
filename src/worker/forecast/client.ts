/** The main thread's side of the forecast worker: while a share is dragged only the last place is worked out. */
import type { Remote } from 'comlink';
import type { Questionnaire } from '../../core/document/types';
import type { Hanging } from '../../core/forecast/forecast';
import type { SeenSample } from '../../core/forecast/seen/sample';
import type { Effect } from '../../core/forecast/steering';
import { HeldWorker } from '../held-worker';
import type { Figures, FiguresAsked, ForecastApi } from './types';

export class ForecastClient {
  private readonly held = new HeldWorker<ForecastApi>(
    () => new Worker(new URL('./forecast.worker.ts', import.meta.url), { type: 'module' }),
  );
  /** The questionnaire, and the worker that has it. */
  private loaded: { readonly document: Questionnaire; readonly worker: Worker | null } | null = null;
  private working = false;
  private next: (() => void) | null = null;

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
      await this.take(document);
      return await this.held.api.figures(asked);
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
    return this.held.api.effects(of);
  }

  /** What else there is to be told, by what was assumed last. */
  get more(): Omit<Remote<ForecastApi>, 'load' | 'figures' | 'effects' | 'sample'> {
    return this.held.api;
  }

  /** Takes the questionnaire up first where it is another. */
  async sample(
    document: Questionnaire,
    header: readonly string[],
    rows: readonly (readonly (string | number)[])[],
  ): Promise<SeenSample | string> {
    await this.take(document);
    return this.held.api.sample(header, rows);
  }

  private async take(document: Questionnaire): Promise<void> {
    const { api } = this.held;
    const { worker } = this.held;
    if (this.loaded?.document === document && this.loaded.worker === worker) return;
    await api.load(document);
    this.loaded = { document, worker };
  }

  stop(): void {
    this.held.stop();
    this.loaded = null;
  }
}
