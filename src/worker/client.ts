/**
 * The main thread's side of the analysis worker: always about the newest document.
 *
 * A newer document ends the worker that is still counting an older one.
 */
import type { Remote } from 'comlink';
import type { Questionnaire } from '../core/document/types';
import type { Snag } from '../core/snags';
import { CoverClient } from './cover/client';
import { HeldWorker } from './held-worker';
import type { AnalysisApi, AnalysisSummary, PassesByItem, SampleSummary } from './types';

export type Analysed = AnalysisSummary & {
  readonly document: Questionnaire;
  /** Who is asked each item; empty until it has been worked out, after the counts. */
  readonly asked: Readonly<Record<string, string>>;
  /** Of the items of repeated sections, who has each pass; comes with `asked`. */
  readonly passes: PassesByItem;
  /** The snags that only the routes show; null until they have been looked for, after the counts. */
  readonly snags: readonly Snag[] | null;
  /** What is expected of the sample; undefined until it has been worked out, null where it cannot be exact. */
  readonly sample: SampleSummary | null | undefined;
};

export class AnalysisClient {
  private readonly held = new HeldWorker<AnalysisApi>(
    () => new Worker(new URL('./analysis.worker.ts', import.meta.url), { type: 'module' }),
  );
  /** Look for covering sets beside the counts, whoever asks. */
  readonly covers = { forks: new CoverClient('forks'), pairs: new CoverClient('pairs') };
  private busy = false;
  private counting: { readonly document: Questionnaire; readonly analysed: Promise<Analysed | null> } | null =
    null;

  /**
   * Resolves to null where a newer document came in the meantime. Rejects where the analysis failed. Asked again for what is
   * being counted, it is that count.
   */
  analyse(document: Questionnaire): Promise<Analysed | null> {
    if (this.busy && this.counting?.document === document) return this.counting.analysed;
    const analysed = this.counted(document);
    this.counting = { document, analysed };
    return analysed;
  }

  private async counted(document: Questionnaire): Promise<Analysed | null> {
    if (this.busy) this.endCount();
    const { api } = this.held;
    const { worker } = this;
    this.busy = true;
    const ended = new Promise<null>((resolve) => {
      worker?.addEventListener('ended', () => resolve(null), { once: true });
    });
    const summary = await Promise.race([api.load(document), ended]).finally(() => {
      if (this.worker === worker) this.busy = false;
    });
    if (this.worker !== worker) return null;
    return summary === null
      ? null
      : { ...summary, document, asked: {}, passes: {}, snags: null, sample: undefined };
  }

  /** Looks for the snags; null where a newer document came in the meantime. */
  async withSnags(analysed: Analysed): Promise<Analysed | null> {
    const { worker } = this;
    const snags = await this.api.snags();
    return this.worker === worker && !this.busy ? { ...analysed, snags } : null;
  }

  /** Works out shares of the sample; null where a newer document came in the meantime. */
  async withSample(analysed: Analysed): Promise<Analysed | null> {
    const { worker } = this;
    const sample = await this.api.sample();
    return this.worker === worker && !this.busy ? { ...analysed, sample } : null;
  }

  /** Works out who is asked what; null where a newer document came in the meantime. */
  async withAsked(analysed: Analysed): Promise<Analysed | null> {
    const { worker } = this;
    const { items: asked, passes } = await this.api.asked();
    return this.worker === worker && !this.busy ? { ...analysed, asked, passes } : null;
  }

  /** For questions about the document analysed last. */
  get api(): Remote<AnalysisApi> {
    if (this.worker === null) throw new Error('nothing has been analysed yet');
    return this.held.api;
  }

  private get worker(): Worker | null {
    return this.held.worker;
  }

  stop(): void {
    for (const cover of Object.values(this.covers)) cover.stop();
    this.endCount();
  }

  private endCount(): void {
    const { worker } = this;
    this.held.stop();
    worker?.dispatchEvent(new Event('ended'));
    this.busy = false;
  }
}
