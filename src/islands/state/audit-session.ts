/** The file that is audited, from being chosen to what was found; it stays while one looks elsewhere. */
import { proxy } from 'comlink';
import { createStore, type StoreApi } from 'zustand';
import { likelyCaseColumn, type FileColumn, type SaidMatches } from '../../core/audit/matching';
import type { AuditOptions } from '../../core/audit/types';
import type { Questionnaire } from '../../core/document/types';
import type { Encoding } from '../../core/exchange/csv';
import { NothingSchema } from '../../wire/common';
import { SaidMatchesSchema } from '../../wire/matches';
import type { AuditSummary, OpenedFile } from '../../worker/data/audit-task';
import type { DataClient } from '../../worker/data/client';
import { call } from '../ui/api';

export interface AuditState {
  readonly file: File | null;
  readonly opened: OpenedFile | null;
  readonly matching: readonly FileColumn[];
  /** What somebody said of the file's columns, now and before. */
  readonly said: SaidMatches;
  readonly options: AuditOptions;
  /** The column with case numbers, each of which is to come once; null where none is said. */
  readonly caseColumn: string | null;
  /** Share of the file that has been read; null where nothing is under way. */
  readonly running: number | null;
  readonly problem: string | null;
  readonly summary: AuditSummary | null;
  /** The questionnaire that it was audited against, and when, by the browser's clock. */
  readonly against: Questionnaire | null;
  readonly auditedAt: number;

  open(document: Questionnaire, api: string, file: File, encoding?: Encoding): Promise<void>;
  say(document: Questionnaire, api: string, column: string, is: string | null | undefined): Promise<void>;
  setOptions(options: AuditOptions): void;
  setCaseColumn(column: string | null): void;
  audit(document: Questionnaire): Promise<void>;
  stop(): void;
  close(): void;
}

export type AuditStore = StoreApi<AuditState>;

const CLOSED = {
  file: null,
  opened: null,
  matching: [],
  caseColumn: null,
  running: null,
  problem: null,
  summary: null,
  against: null,
  auditedAt: 0,
} as const;

export function createAuditStore(client: DataClient): AuditStore {
  return createStore<AuditState>()((set, get) => ({
    ...CLOSED,
    said: {},
    options: {},

    async open(document, api, file, encoding) {
      set({ ...CLOSED, file, running: 0 });
      const worker = await client.about(document);
      const opened = await worker.open(file, encoding ?? null);
      if (get().file !== file) return;
      if (!opened.ok) {
        set({ ...CLOSED, problem: opened.problem });
        return;
      }
      const kept = await call(SaidMatchesSchema, 'GET', `${api}/matches`);
      const said = kept.ok ? kept.body.said : get().said;
      const matching = await worker.matching(said);
      set({
        opened: opened.answer,
        said,
        matching,
        caseColumn: likelyCaseColumn(opened.answer.header),
        running: null,
      });
    },

    async say(document, api, column, is) {
      const others = Object.entries(get().said).filter(([name]) => name !== column);
      const said = Object.fromEntries(is === undefined ? others : [...others, [column, is]]);
      set({ said });
      const worker = await client.about(document);
      set({ matching: await worker.matching(said) });
      const kept = await call(NothingSchema, 'PUT', `${api}/matches`, { said });
      if (!kept.ok) set({ problem: `The match is used here and not kept for next time. ${kept.problem}` });
    },

    setOptions: (options) => set({ options }),
    setCaseColumn: (caseColumn) => set({ caseColumn }),

    async audit(document) {
      const { file, options, said, caseColumn } = get();
      set({ running: 0, problem: null, summary: null });
      const worker = await client.about(document);
      const progress = (share: number) => {
        if (get().running !== null) set({ running: share });
      };
      const outcome = await worker.audit(options, said, caseColumn, proxy(progress));
      if (get().file !== file || get().running === null) return;
      set(
        outcome.ok
          ? { running: null, summary: outcome.summary, against: document, auditedAt: Date.now() }
          : { running: null, problem: outcome.problem },
      );
    },

    stop() {
      client.stop();
      set({ ...CLOSED, problem: 'Stopped. Nothing was changed: choose the file again to start over.' });
    },

    close: () => set(CLOSED),
  }));
}
