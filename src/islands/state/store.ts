/**
 * The state of one open study: the document with its history, what is selected, and how saving stands; put together from its
 * slices.
 *
 * Every edit goes through `commit`. Saving follows by itself; what is not saved yet is also kept in the tab, so
 * that a reload or a lost connection loses nothing.
 */
import { createContext, useContext } from 'react';
import { createStore, useStore } from 'zustand';
import { planOf } from '../../core/routing/planner';
import type { Aside } from '../../wire/asides';
import type { Comment } from '../../wire/comments';
import type { Verdict } from '../../wire/verdicts';
import { documentSlice } from './document-slice';
import { readKept, type Kept } from './kept';
import { isSameDocument, SaveQueue } from './save-queue';
import { selectionSlice } from './selection-slice';
import { serverSlice } from './server-slice';
import {
  documentShower,
  writtenSnags,
  type GetState,
  type SetState,
  type ShowDocument,
} from './study-slices';
import type { By, InitialStudy, StudyState, StudyStore } from './study-state';

/** Has no effects until something is called: a page may make it and throw it away. */
export function createStudyStore(
  initial: InitialStudy,
  verdicts: readonly Verdict[],
  asides: readonly Aside[] = [],
  comments: readonly Comment[] = [],
  { name: reviewer, reviewing, version = null, link = null }: By = { name: null, reviewing: false },
): StudyStore {
  const readOnly = reviewing
    ? 'This link is for reading: the study cannot be changed here.'
    : link !== null
      ? `This is what is asked under the link “${link.name}”, which never changes.`
      : version === null
        ? null
        : `This is version ${version.number}, which never changes: restore it as the draft to go on from it.`;
  const kept = readOnly === null ? readKept(initial.id, initial.document) : null;
  return createStore<StudyState>()((set, get) => {
    const show = documentShower(set, get);
    const { first, saves, actions } = savingSlice(set, get, show, initial, kept);
    const place = `${reviewing ? 'review' : 'studies'}/${initial.id}`;
    return {
      ...first,
      ...actions,
      ...documentSlice(set, get, show, () => saves.changed()),
      ...selectionSlice(set, get),
      ...serverSlice(set, get, { verdicts, asides, comments }),
      snags: writtenSnags(first.plan),
      opened: initial.document,
      reviewing,
      version,
      link,
      readOnly,
      reviewer,
      api: `/api/${place}`,
      home:
        link !== null
          ? `/${place}/trials/${link.token}/${link.questionnaire}`
          : version === null
            ? `/${place}`
            : `/${place}/versions/${version.number}`,
    };
  });
}

/** How saving stands, beginning with what the tab kept of an earlier visit. */
function savingSlice(
  set: SetState,
  get: GetState,
  show: ShowDocument,
  initial: InitialStudy,
  kept: Kept | null,
) {
  const base = kept?.base ?? initial.document;
  /** The page came with another version than the tab last knew: to be taken in once it is shown. */
  let overtaken =
    kept !== null && !(kept.revision === initial.revision && isSameDocument(base, initial.document));
  const saves = new SaveQueue(
    get,
    (next) => {
      const other = next.document !== undefined && next.document !== get().document;
      set({ ...next, ...(other ? show(next.document, get().plan) : {}) });
    },
    kept?.sent ?? null,
  );
  const document = kept?.document ?? base;
  return {
    saves,
    first: {
      id: initial.id,
      document,
      plan: planOf(document),
      base,
      revision: kept?.revision ?? initial.revision,
      savedAt: initial.changedAt,
      saving: { state: kept?.document ? 'waiting' : 'saved' },
      keeping: 'kept',
      keptBy: kept?.page ?? null,
      past: kept?.past ?? [],
      future: kept?.future ?? [],
    } as const,
    actions: {
      settle: (keepMine) => saves.settle(keepMine),
      takeTheirs: (mine) => saves.takeTheirs(mine),
      look: () => saves.look(),
      keepNow: saves.keep,
      leave: saves.leave,
      takeUp: (unsaved) => saves.takeUp(unsaved),
      saveNow() {
        if (overtaken) saves.absorb(initial, kept?.sent ?? null);
        overtaken = false;
        saves.saveNow();
      },
    } satisfies Partial<StudyState>,
  };
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
