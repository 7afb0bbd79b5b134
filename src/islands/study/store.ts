/**
 * The state of one open study: the document with its history, what is selected, and how saving stands.
 *
 * Every edit goes through `commit`. Saving follows by itself; what is not saved yet is also kept in the tab, so
 * that a reload or a lost connection loses nothing.
 */
import { createContext, useContext } from 'react';
import * as v from 'valibot';
import { createStore, useStore, type StoreApi } from 'zustand';
import { problemText, readDocument, readEdited, writeDocument } from '../../core/document/read';
import type { Questionnaire } from '../../core/document/types';
import { applyAll, applyChange, mergeSteps, type Change, type Step } from '../../core/editing/change';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { snagsOf, type Snag, type SnagWitness } from '../../core/snags';
import type { Aside } from '../../store/asides';
import type { Comment } from '../../store/comments';
import type { Verdict } from '../../store/verdicts';
import type { Analysed } from '../../worker/client';
import { readKept, writeKept } from './kept';
import { addStudy, call, ConflictSchema, SavedSchema } from '../ui/api';

/**
 * `item:NAME`, `section:ID`, `ending:ID`, `given:NAME`, `quota:ID`, `derived:NAME`, `break:SECTION/INDEX` for a page break, or
 * `study` for what concerns it as a whole, or `comments` for all of them.
 */
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
  /** The snags that the document shows by itself; `useSnags` gives them all. */
  readonly snags: readonly Snag[];
  /** The snags that only the routes show, as last looked for, and in which document. */
  readonly routed: { readonly snags: readonly Snag[]; readonly document: Questionnaire } | null;
  readonly asides: readonly Aside[];
  readonly comments: readonly Comment[];
  /** Somebody to be walked, who meets a snag; taken by the Walk view. */
  readonly toWalk: ToWalk | null;
  readonly revision: number;
  readonly savedAt: number;
  readonly saving: Saving;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
  readonly selection: Selection;
  /** Keys of several items selected together, the selected one among them; empty where it is alone. */
  readonly group: ReadonlySet<string>;
  /** Ids of the sections folded away on the sheet. */
  readonly folded: ReadonlySet<string>;
  /** What the last change left behind that leads nowhere any more; null where there is nothing to tell. */
  readonly notice: Notice | null;
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
  /** Selects all items from the one selected to another; null where one of the two is none. */
  selectTo(key: string): void;
  closeNotice(): void;
  fold(section: string, away: boolean): void;
  setAsides(asides: readonly Aside[]): void;
  setComments(comments: readonly Comment[]): void;
  setToWalk(toWalk: ToWalk | null): void;
  setVerdicts(verdicts: readonly Verdict[]): void;
  setStanding(standing: StudyState['standing']): void;
  setAnalysis(analysis: Analysed | null, problem?: string): void;
  /** Settles a conflict: the other version is taken over here; `mine` first makes a copy of one's own. */
  takeTheirs(mine: 'copy' | 'drop'): Promise<void>;
  /** Saves what waits to be saved; also to be called once the study is on the page. */
  saveNow(): void;
  /** Keeps in the tab what is not kept yet; to be called when the page goes. */
  keepNow(): void;
}

export interface Notice {
  /** What was done. */
  readonly label: string;
  /** The errors that were not there before. */
  readonly snags: readonly Snag[];
}

export interface ToWalk {
  readonly witness: SnagWitness;
  /** Name of the item at which they meet the snag; null where it is at none. */
  readonly item: string | null;
}

export interface InitialStudy {
  readonly id: string;
  readonly document: Questionnaire;
  readonly revision: number;
  readonly changedAt: number;
}

const NOBODY: ReadonlySet<string> = new Set();
const MERGE_WITHIN = 1500;
const SAVE_AFTER = 400;
const KEEP_AFTER = 300;
const RETRY_AFTER = 4000;

export type StudyStore = StoreApi<StudyState>;

/** Has no effects until something is called: a page may make it and throw it away. */
export function createStudyStore(
  initial: InitialStudy,
  verdicts: readonly Verdict[],
  asides: readonly Aside[] = [],
  comments: readonly Comment[] = [],
): StudyStore {
  const kept = readKept(initial);
  let lastCommit = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** Sent to be saved, the answer not come yet or lost: where the server has just this, it was ours. */
  let sent: Questionnaire | null = kept?.sent ?? null;
  let saving = false;
  /** Where a selection of several items began. */
  let anchor: string | null = null;

  const store = createStore<StudyState>()((set, get) => {
    const show = (document: Questionnaire, before: Plan | null = null) => {
      const plan = planOf(document, before);
      return { document, plan, snags: snagsOf(plan) };
    };
    let keeping: ReturnType<typeof setTimeout> | undefined;
    const keep = () => {
      clearTimeout(keeping);
      const { document, saving, revision, past, future } = get();
      writeKept(initial.id, {
        document: saving.state === 'saved' ? null : document,
        sent,
        revision,
        past,
        future,
      });
    };
    /** Not with every key: writing out a large study takes longer than showing it. A page that goes keeps at once. */
    const keepSoon = () => {
      clearTimeout(keeping);
      keeping = setTimeout(keep, KEEP_AFTER);
    };
    const saveSoon = (after = SAVE_AFTER) => {
      clearTimeout(timer);
      timer = setTimeout(() => void save(), after);
    };
    const changed = (next: Partial<StudyState>) => {
      const stopped = get().saving.state === 'conflict';
      set({ ...next, ...(stopped ? {} : { saving: { state: 'waiting' } }) });
      keepSoon();
      if (!stopped) saveSoon();
    };
    const savedAs = (document: Questionnaire, revision: number, at: number) => {
      const current = get().document === document;
      sent = null;
      set({ revision, savedAt: at, saving: { state: current ? 'saved' : 'waiting' } });
      keep();
      if (!current) saveSoon();
    };

    async function save(): Promise<void> {
      // One at a time: the next names the revision that this one makes.
      if (saving) return;
      saving = true;
      const { id, document, revision } = get();
      const earlier = sent;
      sent = document;
      set({ saving: { state: 'saving' } });
      keep();
      const reply = await call(SavedSchema, 'PUT', `/api/studies/${id}`, { revision, document });
      saving = false;
      if (reply.ok) {
        savedAs(document, reply.body.revision, reply.body.changedAt);
        return;
      }
      const conflict = v.safeParse(ConflictSchema, reply.body);
      if (reply.status === 409 && conflict.success) {
        const { document: theirs, revision: newer, changedAt } = conflict.output.study;
        if (isSame(theirs, earlier)) {
          // An earlier save of ours did arrive; only its answer was lost.
          savedAs(earlier, newer, changedAt);
          return;
        }
        sent = null;
        set({ saving: { state: 'conflict', problem: reply.problem, theirs, revision: newer, changedAt } });
        return;
      }
      if (reply.status !== 0) sent = null;
      set({ saving: { state: 'failed', problem: reply.problem } });
      if (reply.status === 0) saveSoon(RETRY_AFTER);
    }

    return {
      id: initial.id,
      ...show(kept?.document ?? initial.document),
      revision: initial.revision,
      savedAt: initial.changedAt,
      saving: kept?.overtaken
        ? {
            state: 'conflict',
            problem: 'This study was changed elsewhere before your last changes here were saved.',
            theirs: initial.document,
            revision: initial.revision,
            changedAt: initial.changedAt,
          }
        : { state: kept?.document ? 'waiting' : 'saved' },
      past: kept?.past ?? [],
      future: kept?.future ?? [],
      selection: null,
      group: new Set(),
      folded: NOBODY,
      notice: null,
      routed: null,
      asides,
      comments,
      toWalk: null,
      verdicts,
      standing: {},
      analysis: null,
      analysisProblem: null,

      commit(change) {
        const { document, past } = get();
        const { document: next, step } = applyChange(document, change);
        if (step.forward.length === 0) return null;
        const read = readEdited(next);
        if (!read.ok)
          return read.problems[0] === undefined ? 'This cannot be used.' : problemText(read.problems[0]);
        const now = Date.now();
        const last = past.at(-1);
        const merges =
          last?.mergeKey !== undefined && last.mergeKey === step.mergeKey && now - lastCommit < MERGE_WITHIN;
        lastCommit = now;
        const shown = show(next, get().plan);
        changed({
          ...shown,
          notice: change.telling ? noticeOf(change.label, get().snags, shown.snags) : null,
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
          ...show(applyAll(document, step.backward), get().plan),
          notice: null,
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
          ...show(applyAll(document, step.forward), get().plan),
          notice: null,
          past: [...past, step],
          future: future.slice(0, -1),
        });
      },

      select(selection) {
        const { group, document, folded } = get();
        if (selection === null || !group.has(selection)) anchor = null;
        // What is selected is to be seen.
        const home = document.sections.find(({ items }) =>
          items.some((item) => item.kind !== 'page_break' && selection === `item:${item.name}`),
        );
        if (home !== undefined && folded.has(home.id)) get().fold(home.id, false);
        set({ selection, group: selection !== null && group.has(selection) ? group : NOBODY });
      },
      selectTo(key) {
        const { document, selection } = get();
        const keys = document.sections.flatMap(({ items }) =>
          items.flatMap((item) => (item.kind === 'page_break' ? [] : [`item:${item.name}`])),
        );
        const [from, to] = [keys.indexOf(anchor ?? selection ?? ''), keys.indexOf(key)];
        if (from < 0 || to < 0) return;
        anchor = keys[from] ?? null;
        const [first, last] = from < to ? [from, to] : [to, from];
        set({ selection: key, group: new Set(first === last ? [] : keys.slice(first, last + 1)) });
      },
      closeNotice: () => set({ notice: null }),
      fold(section, away) {
        const folded = new Set(get().folded);
        if (away) folded.add(section);
        else folded.delete(section);
        set({ folded });
      },
      setAsides: (list) => set({ asides: list }),
      setComments: (list) => set({ comments: list }),
      setToWalk: (toWalk) => set({ toWalk }),
      setVerdicts: (list) => set({ verdicts: list }),
      setStanding: (standing) => set({ standing }),
      setAnalysis(analysis, problem) {
        set({ analysisProblem: problem ?? null });
        if (analysis === null) return;
        // Who is asked what comes after the counts; until then, what was last known stands.
        const known = Object.keys(analysis.asked).length > 0;
        if (analysis.snags !== null) set({ routed: { snags: analysis.snags, document: analysis.document } });
        set({ analysis: known ? analysis : { ...analysis, asked: get().analysis?.asked ?? {} } });
      },

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

      keepNow: keep,

      saveNow() {
        if (get().saving.state === 'waiting' || get().saving.state === 'failed') saveSoon(0);
      },
    };
  });
  return store;
}

/** The errors that a change made, told by what they say: their places may have moved. */
function noticeOf(label: string, before: readonly Snag[], after: readonly Snag[]): Notice | null {
  const known = new Set(before.map(({ rule, message }) => `${rule} ${message}`));
  const snags = after.filter(
    ({ severity, rule, message }) => severity === 'error' && !known.has(`${rule} ${message}`),
  );
  return snags.length === 0 ? null : { label, snags };
}

function isSame(json: unknown, document: Questionnaire | null): document is Questionnaire {
  const read = readDocument(json);
  return document !== null && read.ok && writeDocument(read.document) === writeDocument(document);
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
