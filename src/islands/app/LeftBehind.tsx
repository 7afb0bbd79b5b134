/** What is not on the server: why not, while this page is open, and what another visit left in this browser. */
import { useState } from 'react';
import { operationsBetween } from '../../core/editing/operations';
import { useAsked } from '../ui/use-asked';
import { whenText } from '../ui/format';
import classes from './left-behind.module.css';
import { isPartOf } from '../state/save-queue';
import { useStudy, useStudyStore } from '../state/store';
import { dropUnsaved, unsavedOf, type Unsaved } from '../state/unsaved';

export function LeftBehind() {
  const store = useStudyStore();
  const isSaved = useStudy((state) => state.saving.state === 'saved');
  const [left, setLeft] = useState<readonly Unsaved[]>([]);
  const look = async () => {
    const { id, opened, keptBy } = store.getState();
    const found = await unsavedOf(id);
    // What this page began with itself, and what reached the server after all, is no work left behind.
    const done = found.filter(
      ({ page, base, document }) => page === keptBy || isPartOf(operationsBetween(base, document), opened),
    );
    for (const { page } of done) void dropUnsaved(page);
    return found.filter((each) => !done.includes(each));
  };
  useAsked(look, [store], setLeft);
  const [first] = left;
  if (first === undefined) return null;
  const done = () => {
    void dropUnsaved(first.page);
    setLeft(left.slice(1));
  };
  return (
    <p className={classes.left} role="alert">
      Work on this study, last written {whenText(first.at)}, did not reach the server. This browser has kept
      it.
      <button
        type="button"
        disabled={!isSaved}
        title={isSaved ? undefined : 'Once what is written here is saved'}
        onClick={() => {
          store.getState().takeUp(first);
          done();
        }}
      >
        Take it up
      </button>
      <button type="button" onClick={done}>
        Throw it away
      </button>
    </p>
  );
}

/** Why the last save failed, in the server's words. */
export function NotSaved() {
  const saving = useStudy((state) => state.saving);
  const problem = saving.state === 'saved' || saving.state === 'conflict' ? undefined : saving.problem;
  return problem === undefined ? null : (
    <p className={classes.left} role="alert">
      {problem}
    </p>
  );
}
