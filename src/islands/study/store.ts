/**
 * The state of one open study: the document with its history, what is selected, and how saving stands.
 *
 * Every edit goes through `commit`. Saving follows by itself; what is not saved yet is also kept in the tab, so
 * that a reload or a lost connection loses nothing.
 */
import { createContext, useContext } from 'react';
import * as v from 'valibot';
import { createStore, useStore, type StoreApi } from 'zustand';
import { problemText, readDocument } from '../../core/document/read';
import type { Questionnaire } from '../../core/document/types';
import { applyAll, applyChange, mergeSteps, type Change, type Step } from '../../core/editing/change';
import { planOf, type Plan } from '../../core/routing/plan';
import { snagsOf, type Snag } from '../../core/snags';
import type { Verdict } from '../../store/verdicts';
import type { Analysed } from '../../worker/client';
import { addStudy, call, ConflictSchema, SavedSchema } from '../ui/api';

/** `item:NAME`, `section:ID`, `ending:ID`, or `break:SECTION/INDEX` for a page break. */
export type Selection = string | null;

export type Saving =
  | { readonly state: 'saved' | 'waiting' | 'saving' }
  | { readonly state: 'failed'; readonly problem: string }
  | {
      readonly state: 'conflict';
      readonly problem: string;
      readonly theirs: unknown;
      readonly revision: number;
      readonly changedAt: number;
    };

export interface StudyState {
  readonly id: string;
  readonly document: Questionnaire;
  readonly plan: Plan;
  readonly snags: readonly Snag[];
  readonly revision: number;
  readonly savedAt: number;
  readonly saving: Saving;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
  readonly selection: Selection;
  readonly verdicts: readonly Verdict[];
  /** Number of the route on which each verdict stands, by fingerprint; null where an edit re-opened it. */
  readonly standing: Readonly<Record<string, string | null>>;
  /** Null until the first analysis has come; may be of an older document than `document`. */
  readonly analysis: Analysed | null;
  readonly analysisProblem: string | null;

  /** Makes a change; returns why it cannot be made, in which case nothing has changed. */
  commit(change: Change): string | null;
  undo(): void;
  redo(): void;
  select(selection: Selection): void;
  setVerdicts(verdicts: readonly Verdict[]): void;
  setStanding(standing: StudyState['standing']): void;
  setAnalysis(analysis: Analysed | null, problem?: string): void;
  /** Settles a conflict: the other version is taken over here; `mine` first makes a copy of one's own. */
  takeTheirs(mine: 'copy' | 'drop'): Promise<void>;
  retrySave(): void;
}

export interface InitialStudy {
  readonly id: string;
  readonly document: Questionnaire;
  readonly revision: number;
  readonly changedAt: number;
}

const MERGE_WITHIN = 1500;
const SAVE_AFTER = 400;
const RETRY_AFTER = 4000;

export type StudyStore = StoreApi<StudyState>;

export function createStudyStore(initial: InitialStudy, verdicts: readonly Verdict[]): StudyStore {
  const kept = readKept(initial);
  let lastCommit = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const store = createStore<StudyState>()((set, get) => {
    const show = (document: Questionnaire) => {
      const plan = planOf(document);
      return { document, plan, snags: snagsOf(plan) };
    };
    const keep = () => writeKept(get());
    const saveSoon = (after = SAVE_AFTER) => {
      clearTimeout(timer);
      timer = setTimeout(() => void save(), after);
    };
    const changed = (next: Partial<StudyState>) => {
      const { saving } = get();
      set({ ...next, ...(saving.state === 'conflict' ? {} : { saving: { state: 'waiting' } }) });
      keep();
      if (saving.state !== 'conflict' && saving.state !== 'saving') saveSoon();
    };

    async function save(): Promise<void> {
      const { id, document, revision } = get();
      set({ saving: { state: 'saving' } });
      const reply = await call(SavedSchema, 'PUT', `/api/studies/${id}`, { revision, document });
      if (reply.ok) {
        const current = get().document === document;
        set({
          revision: reply.body.revision,
          savedAt: reply.body.changedAt,
          saving: { state: current ? 'saved' : 'waiting' },
        });
        keep();
        if (!current) saveSoon();
        return;
      }
      const conflict = v.safeParse(ConflictSchema, reply.body);
      if (reply.status === 409 && conflict.success) {
        const { document: theirs, revision: newer, changedAt } = conflict.output.study;
        set({ saving: { state: 'conflict', problem: reply.problem, theirs, revision: newer, changedAt } });
        return;
      }
      set({ saving: { state: 'failed', problem: reply.problem } });
      if (reply.status === 0) saveSoon(RETRY_AFTER);
    }

    if (kept !== null && kept.document !== null) saveSoon(0);

    return {
      id: initial.id,
      ...show(kept?.document ?? initial.document),
      revision: initial.revision,
      savedAt: initial.changedAt,
      saving: { state: kept?.document ? 'waiting' : 'saved' },
      past: kept?.past ?? [],
      future: kept?.future ?? [],
      selection: null,
      verdicts,
      standing: {},
      analysis: null,
      analysisProblem: null,

      commit(change) {
        const { document, past } = get();
        const { document: next, step } = applyChange(document, change);
        if (step.forward.length === 0) return null;
        const read = readDocument(next);
        if (!read.ok)
          return read.problems[0] === undefined ? 'This cannot be used.' : problemText(read.problems[0]);
        const now = Date.now();
        const last = past.at(-1);
        const merges =
          last?.mergeKey !== undefined && last.mergeKey === step.mergeKey && now - lastCommit < MERGE_WITHIN;
        lastCommit = now;
        changed({
          ...show(next),
          past: merges && last ? [...past.slice(0, -1), mergeSteps(last, step)] : [...past, step],
          future: [],
        });
        return null;
      },

      undo() {
        const { document, past, future } = get();
        const step = past.at(-1);
        if (step === undefined) return;
        lastCommit = 0;
        changed({
          ...show(applyAll(document, step.backward)),
          past: past.slice(0, -1),
          future: [...future, step],
        });
      },

      redo() {
        const { document, past, future } = get();
        const step = future.at(-1);
        if (step === undefined) return;
        lastCommit = 0;
        changed({
          ...show(applyAll(document, step.forward)),
          past: [...past, step],
          future: future.slice(0, -1),
        });
      },

      select: (selection) => set({ selection }),
      setVerdicts: (list) => set({ verdicts: list }),
      setStanding: (standing) => set({ standing }),
      setAnalysis: (analysis, problem) =>
        set({ ...(analysis === null ? {} : { analysis }), analysisProblem: problem ?? null }),

      async takeTheirs(mine) {
        const { saving, document } = get();
        if (saving.state !== 'conflict') return;
        const read = readDocument(saving.theirs);
        if (!read.ok) return;
        if (mine === 'copy') {
          const copy = await addStudy({ ...document, title: `${document.title} (my version)` });
          if (!copy.ok) {
            set({ saving: { ...saving, problem: `Your version could not be copied: ${copy.problem}` } });
            return;
          }
        }
        set({
          ...show(read.document),
          revision: saving.revision,
          savedAt: saving.changedAt,
          past: [],
          future: [],
          saving: { state: 'saved' },
        });
        keep();
      },

      retrySave: () => saveSoon(0),
    };
  });
  return store;
}

const KeptSchema = v.object({
  revision: v.number(),
  document: v.unknown(),
  past: v.array(v.unknown()),
  future: v.array(v.unknown()),
});

const keptKey = (id: string) => `jolly-fork/open/${id}`;

/** The history of this tab, and the document where it was not saved; null where they belong to another revision. */
function readKept(
  initial: InitialStudy,
): { document: Questionnaire | null; past: Step[]; future: Step[] } | null {
  try {
    const parsed = v.safeParse(KeptSchema, JSON.parse(sessionStorage.getItem(keptKey(initial.id)) ?? 'null'));
    if (!parsed.success || parsed.output.revision !== initial.revision) return null;
    const { document, past, future } = parsed.output;
    const read = document === null ? null : readDocument(document);
    // The steps are this module's own writing in this very tab; patches that no longer fit throw when applied.
    return { document: read?.ok ? read.document : null, past: past as Step[], future: future as Step[] };
  } catch {
    return null;
  }
}

function writeKept({ id, revision, document, saving, past, future }: StudyState): void {
  const unsaved = saving.state === 'saved' ? null : document;
  for (let steps = past.length; ; steps = Math.floor(steps / 2)) {
    try {
      sessionStorage.setItem(
        keptKey(id),
        JSON.stringify({ revision, document: unsaved, past: past.slice(past.length - steps), future }),
      );
      return;
    } catch {
      // The tab's store is full: the oldest steps go first.
      if (steps === 0) return;
    }
  }
}

export const StudyContext = createContext<StudyStore | null>(null);

export function useStudyStore(): StudyStore {
  const store = useContext(StudyContext);
  if (store === null) throw new Error('no study is open here');
  return store;
}

export function useStudy<Part>(select: (state: StudyState) => Part): Part {
  return useStore(useStudyStore(), select);
}
