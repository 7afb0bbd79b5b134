/**
 * The state of one open study: the document with its history, what is selected, and how saving stands.
 *
 * Every edit goes through `commit`. Saving follows by itself; what is not saved yet is also kept in the tab, so
 * that a reload or a lost connection loses nothing.
 */
import { createContext, useContext } from 'react';
import { createStore, useStore, type StoreApi } from 'zustand';
import { address, type Address } from '../../core/document/addresses';
import { problemText, readEdited } from '../../core/document/read';
import type { Questionnaire } from '../../core/document/types';
import type { Clash } from '../../core/editing/apply-operations';
import {
  applyAll,
  applyChange,
  isStructural,
  mergeSteps,
  type Change,
  type HistoryStep,
} from '../../core/editing/change';
import { undoLast } from '../../core/editing/history';
import { placeTouched } from '../../core/editing/touched';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';
import { partAt } from '../../core/routing/problems';
import { snagsOf, withoutFaults, type OtherStudy, type Snag, type SnagWitness } from '../../core/snags';
import type { Aside } from '../../wire/asides';
import type { Comment } from '../../wire/comments';
import type { KeptRespondent } from '../../wire/respondents';
import type { Verdict } from '../../wire/verdicts';
import type { Analysed } from '../../worker/client';
import { ALL_ROUTES, type ListQuery } from '../../worker/list-query';
import type { Became } from '../../worker/types';
import { readKept } from './kept';
import { NO_LIST, OVER_ALL, type Pasting } from './pasting';
import { isSameDocument, Keeper, type SavingState } from './saving';

/**
 * `item:NAME`, `section:ID`, `ending:ID`, `given:NAME`, `quota:ID`, `derived:NAME`, `break:SECTION/INDEX` for a page break, or
 * `study` for what concerns it as a whole, or `comments` for all of them.
 */
/** A part of the questionnaire, or the list of all comments. */
export type Selection = Address | 'comments' | null;

export function partSelected(selection: Selection): Address | null {
  return selection === 'comments' ? null : selection;
}

/** By whom a study is opened. */
export interface By {
  /** That of a reviewer's link, or of who is signed in; null of whoever gives a name. */
  readonly name: string | null;
  /** By a reviewer's link: to be read, walked and judged, not changed. */
  readonly reviewing: boolean;
}

export interface StudyState extends SavingState {
  /** Opened by a reviewer's link, of which `id` is then the token: nothing of the study can be changed. */
  readonly reviewing: boolean;
  /** In whose name, by the link or by signing in; null for whoever gives a name. */
  readonly reviewer: string | null;
  /** Where the server keeps what belongs to the study, and where its stops are. */
  readonly api: string;
  readonly home: string;
  /** The document as it was when the study was opened here. */
  readonly opened: Questionnaire;
  readonly plan: Plan;
  /** The snags that the document shows by itself, a frame after it; `useSnags` gives them all. */
  readonly snags: readonly Snag[];
  /** The snags that only the routes show, as last looked for, and in which document. */
  readonly routed: { readonly snags: readonly Snag[]; readonly document: Questionnaire } | null;
  readonly asides: readonly Aside[];
  readonly comments: readonly Comment[];
  /** The studies that an ending can hand on to; null until they have come. */
  readonly others: readonly OtherStudy[] | null;
  /** Walks that are kept, to be walked again on every edit. */
  readonly respondents: readonly KeptRespondent[];
  /** The list of routes shown last, in whose order they are walked one after the other. */
  readonly walkList: ListQuery;
  /** Somebody to be walked, who meets a snag; taken by the Walk view. */
  readonly toWalk: ToWalk | null;
  readonly selection: Selection;
  /** Keys of several items selected together, the selected one among them; empty where it is alone. */
  readonly group: ReadonlySet<Address>;
  /** Ids of the sections folded away on the sheet. */
  readonly folded: ReadonlySet<string>;
  /** What the last change left behind that leads nowhere any more; null where there is nothing to tell. */
  readonly notice: Notice | null;
  /** What was just taken back, done again or deleted; null once the work goes on. */
  readonly said: Saying | null;
  /** A list of questions that is being put in; kept while its panel is closed. */
  readonly pasting: Pasting;
  readonly verdicts: readonly Verdict[];
  /** Number of the route on which each verdict stands, by fingerprint; null where an edit re-opened it. */
  readonly standing: Readonly<Record<string, string | null>>;
  /** For those that an edit re-opened: the route that their respondent takes now, where there is one. */
  readonly became: Readonly<Record<string, Became | null>>;
  /** Null until the first analysis has come; may be of an older document than `document`. */
  readonly analysis: Analysed | null;
  readonly analysisProblem: string | null;

  /** Makes a change; returns why it cannot be made, in which case nothing has changed. */
  commit(change: Change): string | null;
  undo(): void;
  redo(): void;
  select(selection: Selection): void;
  /** Selects all items from the one selected to another; null where one of the two is none. */
  selectTo(key: Address): void;
  closeNotice(): void;
  closeSaid(): void;
  fold(section: string, away: boolean): void;
  setAsides(asides: readonly Aside[]): void;
  setComments(comments: readonly Comment[]): void;
  setRespondents(respondents: readonly KeptRespondent[]): void;
  setOthers(others: readonly OtherStudy[]): void;
  setToWalk(toWalk: ToWalk | null): void;
  setWalkList(list: ListQuery): void;
  setPasting(pasting: Pasting): void;
  setVerdicts(verdicts: readonly Verdict[]): void;
  setStanding(standing: StudyState['standing'], became: StudyState['became']): void;
  setAnalysis(analysis: Analysed | null, problem?: string): void;
  /** Where saving met another version: for each place in which both wrote, whether mine is to stand. */
  settle(keepMine: (clash: Clash) => boolean): void;
  /** The same as a whole: the other version is taken over here; `copy` first makes a study of one's own. */
  takeTheirs(mine: 'copy' | 'drop'): Promise<void>;
  /** Takes in what others have saved since. */
  look(): Promise<void>;
  /** Saves what waits to be saved; also to be called once the study is on the page. */
  saveNow(): void;
  /** Keeps and sends what is not saved, as the page goes. */
  leave(): void;
  /** Takes up what another visit left unsaved in this browser. */
  takeUp(unsaved: Pick<SavingState, 'base' | 'document' | 'revision'>): void;
  /** The page that kept what this one began with; null where it began with what the server had. */
  readonly keptBy: string | null;
  /** Keeps in the tab what is not kept yet; to be called when the page goes. */
  keepNow(): void;
}

export interface Notice {
  /** What was done. */
  readonly label: string;
  /** The errors that were not there before. */
  readonly snags: readonly Snag[];
}

export interface Saying {
  readonly text: string;
  /** It can be taken back by the next undo. */
  readonly canTakeBack: boolean;
  /** Where it is to be seen, if it is to be looked at. */
  readonly at: Address | null;
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

const NOTHING: ReadonlySet<never> = new Set();
const MERGE_WITHIN = 1500;

export type StudyStore = StoreApi<StudyState>;

/** Where an item stands that is selected, or a section (`item` null); null for anything else. */
export function placeSelected(
  { sections }: Questionnaire,
  selection: Selection,
): { readonly section: number; readonly item: number | null } | null {
  for (const [section, { id, items }] of sections.entries()) {
    if (selection === address('section', id)) return { section, item: null };
    const item = items.findIndex(
      (each) => each.kind !== 'page_break' && selection === address('item', each.name),
    );
    if (item >= 0) return { section, item };
  }
  return null;
}

/** Has no effects until something is called: a page may make it and throw it away. */
export function createStudyStore(
  initial: InitialStudy,
  verdicts: readonly Verdict[],
  asides: readonly Aside[] = [],
  comments: readonly Comment[] = [],
  { name: reviewer, reviewing }: By = { name: null, reviewing: false },
): StudyStore {
  const kept = reviewing ? null : readKept(initial.id);
  const base = kept?.base ?? initial.document;
  /** The page came with another version than the tab last knew: to be taken in once it is shown. */
  let overtaken =
    kept !== null && !(kept.revision === initial.revision && isSameDocument(base, initial.document));
  let lastCommit = 0;
  /** Where a selection of several items began. */
  let anchor: Selection = null;

  const store = createStore<StudyState>()((set, get) => {
    const show = (document: Questionnaire, before: Plan | null = null) => {
      const plan = planOf(document, before);
      checkSoon();
      return { document, plan };
    };
    /** The snags follow in the frame after: what was typed is seen first. */
    let checking = false;
    const checkSoon = () => {
      if (checking) return;
      checking = true;
      afterPaint(() => {
        checking = false;
        set({ snags: withoutFaults(snagsOf(get().plan), console.error) });
      });
    };
    const changed = (next: Partial<StudyState>) => {
      set(next);
      keeper.changed();
    };
    const keeper = new Keeper(
      get,
      (next) => {
        const other = next.document !== undefined && next.document !== get().document;
        set({ ...next, ...(other ? show(next.document, get().plan) : {}) });
      },
      kept?.sent ?? null,
    );

    const opened = kept?.document ?? base;
    const first = { document: opened, plan: planOf(opened) };
    return {
      id: initial.id,
      ...first,
      snags: withoutFaults(snagsOf(first.plan), console.error),
      base,
      revision: kept?.revision ?? initial.revision,
      savedAt: initial.changedAt,
      saving: { state: kept?.document ? 'waiting' : 'saved' },
      keeping: 'kept',
      keptBy: kept?.page ?? null,
      past: kept?.past ?? [],
      future: kept?.future ?? [],
      selection: null,
      group: new Set(),
      folded: NOTHING,
      notice: null,
      said: null,
      pasting: { open: false, at: OVER_ALL, list: NO_LIST },
      opened: initial.document,
      reviewing,
      reviewer,
      api: `/api/${reviewing ? 'review' : 'studies'}/${initial.id}`,
      home: `/${reviewing ? 'review' : 'studies'}/${initial.id}`,
      routed: null,
      asides,
      comments,
      respondents: [],
      others: null,
      toWalk: null,
      walkList: ALL_ROUTES,
      verdicts,
      standing: {},
      became: {},
      analysis: null,
      analysisProblem: null,

      commit(change) {
        if (reviewing) return 'This link is for reading: the study cannot be changed here.';
        const { document, past } = get();
        const { document: next, step } = applyChange(document, change);
        if (step.forward.length === 0) return null;
        const read = readEdited(next);
        if (!read.ok)
          return read.problems[0] === undefined ? 'This cannot be used.' : problemText(read.problems[0]);
        const now = Date.now();
        const last = past.at(-1);
        const merges =
          last?.mergeKey !== undefined &&
          last.mergeKey === step.mergeKey &&
          now - lastCommit < MERGE_WITHIN &&
          !isStructural(step);
        lastCommit = now;
        const shown = show(next, get().plan);
        const told = change.telling ? { before: snagsOf(get().plan), after: snagsOf(shown.plan) } : null;
        changed({
          ...shown,
          notice: told && noticeOf(change.label, told.before, told.after),
          said: change.said === undefined ? null : { text: change.said, canTakeBack: true, at: null },
          past: merges && last ? [...past.slice(0, -1), mergeSteps(last, step)] : [...past, step],
          future: [],
        });
        return null;
      },

      undo() {
        const { document, past, future } = get();
        const undone = undoLast(document, past);
        if (undone === null) return;
        lastCommit = 0;
        changed({
          ...show(undone.document, get().plan),
          notice: null,
          said: saidOf(
            'Taken back',
            undone.document,
            past.findLast(({ foreign }) => foreign !== true),
            'backward',
          ),
          past: undone.past,
          future: undone.step === null ? future : [...future, undone.step],
        });
      },

      redo() {
        const { document, past, future } = get();
        const step = future.at(-1);
        if (step === undefined) return;
        lastCommit = 0;
        const next = applyAll(document, step.forward);
        changed({
          ...show(next, get().plan),
          notice: null,
          said: saidOf('Done again', next, step, 'forward'),
          past: [...past, step],
          future: future.slice(0, -1),
        });
      },

      select(selection) {
        const { group, document, folded } = get();
        const part = partSelected(selection);
        if (part === null || !group.has(part)) anchor = null;
        // What is selected is to be seen.
        const home = document.sections.find(({ items }) =>
          items.some((item) => item.kind !== 'page_break' && selection === address('item', item.name)),
        );
        if (home !== undefined && folded.has(home.id)) get().fold(home.id, false);
        const together = part !== null && group.has(part);
        set({ selection, group: together ? group : NOTHING });
      },
      selectTo(key) {
        const { document, selection } = get();
        const keys: Address[] = document.sections.flatMap(({ items }) =>
          items.flatMap((item) => (item.kind === 'page_break' ? [] : [address('item', item.name)])),
        );
        const [from, to] = [keys.findIndex((each) => each === (anchor ?? selection)), keys.indexOf(key)];
        if (from < 0 || to < 0) return;
        anchor = keys[from] ?? null;
        const [first, last] = from < to ? [from, to] : [to, from];
        set({ selection: key, group: new Set(first === last ? [] : keys.slice(first, last + 1)) });
      },
      closeNotice: () => set({ notice: null }),
      closeSaid: () => set({ said: null }),
      fold(section, away) {
        const folded = new Set(get().folded);
        if (away) folded.add(section);
        else folded.delete(section);
        set({ folded });
      },
      setAsides: (list) => set({ asides: list }),
      setComments: (list) => set({ comments: list }),
      setRespondents: (list) => set({ respondents: list }),
      setOthers: (list) => set({ others: list }),
      setToWalk: (toWalk) => set({ toWalk }),
      setWalkList: (walkList) => set({ walkList }),
      setPasting: (pasting) => set({ pasting }),
      setVerdicts: (list) => set({ verdicts: list }),
      setStanding: (standing, became) => set({ standing, became }),
      setAnalysis(analysis, problem) {
        set({ analysisProblem: problem ?? null });
        if (analysis === null) return;
        // Who is asked what comes after the counts; until then, what was last known stands.
        const known = Object.keys(analysis.asked).length > 0;
        if (analysis.snags !== null) set({ routed: { snags: analysis.snags, document: analysis.document } });
        const { asked = {}, passes = {} } = get().analysis ?? {};
        set({ analysis: known ? analysis : { ...analysis, asked, passes } });
      },

      settle: (keepMine) => keeper.settle(keepMine),
      takeTheirs: (mine) => keeper.takeTheirs(mine),
      look: () => keeper.look(),
      keepNow: keeper.keep,
      leave: keeper.leave,
      takeUp: (unsaved) => keeper.takeUp(unsaved),
      saveNow() {
        if (overtaken) keeper.absorb(initial, kept?.sent ?? null);
        overtaken = false;
        keeper.saveNow();
      },
    };
  });
  return store;
}

function afterPaint(then: () => void): void {
  if (typeof requestAnimationFrame === 'undefined') setTimeout(then, 0);
  else requestAnimationFrame(() => setTimeout(then, 0));
}

/** A step that was taken back or done again, with the place where that is to be seen. */
function saidOf(
  how: string,
  document: Questionnaire,
  step: HistoryStep | undefined,
  way: 'forward' | 'backward',
): Saying | null {
  if (step === undefined) return null;
  const at = placeTouched(document, step[way]);
  return { text: `${how}: ${step.label}.`, canTakeBack: false, at: at && partAt(at) };
}

/** The errors that a change made, told by what they say: their places may have moved. */
function noticeOf(label: string, before: readonly Snag[], after: readonly Snag[]): Notice | null {
  const known = new Set(before.map(({ rule, message }) => `${rule} ${message}`));
  const snags = after.filter(
    ({ severity, rule, message }) => severity === 'error' && !known.has(`${rule} ${message}`),
  );
  return snags.length === 0 ? null : { label, snags };
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
