/** The document and its history: changes made, taken back and done again, and what is said of each. */
import { problemText, readEdited } from '../../core/document/read';
import type { Questionnaire } from '../../core/document/types';
import { applyAll, applyChange, isStructural, mergeSteps, type HistoryStep } from '../../core/editing/change';
import { undoLast } from '../../core/editing/history';
import { placeTouched } from '../../core/editing/touched';
import { partAt } from '../../core/routing/problems';
import { snagsOf, type Snag } from '../../core/snags';
import type { GetState, SetState, ShowDocument } from './study-slices';
import type { Notice, Saying, StudyState } from './study-state';

/** Steps of one kind within this many milliseconds are one step of the history. */
const MERGE_WITHIN = 1500;

export type DocumentSlice = Pick<
  StudyState,
  'notice' | 'said' | 'commit' | 'undo' | 'redo' | 'closeNotice' | 'closeSaid'
>;

/** `toSave`: to be called once a change stands in the store. */
export function documentSlice(
  set: SetState,
  get: GetState,
  show: ShowDocument,
  toSave: () => void,
): DocumentSlice {
  let lastCommit = 0;
  const changed = (next: Partial<StudyState>) => {
    set(next);
    toSave();
  };
  return {
    notice: null,
    said: null,
    closeNotice: () => set({ notice: null }),
    closeSaid: () => set({ said: null }),

    commit(change) {
      const { document, past, readOnly } = get();
      if (readOnly !== null) return readOnly;
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
  };
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
