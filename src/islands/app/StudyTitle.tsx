/** The title of the study, written in place, and whether all of it is saved. */
import { setTitle } from '../../core/editing/structure';
import type { Saving } from '../state/save-queue';
import { useStudy } from '../state/store';
import { whenText } from '../ui/format';
import classes from './study.module.css';

export function StudyTitle() {
  const title = useStudy((state) => state.document.title);
  const commit = useStudy((state) => state.commit);
  const saving = useStudy((state) => state.saving);
  const savedAt = useStudy((state) => state.savedAt);
  const keeping = useStudy((state) => state.keeping);
  const retry = useStudy((state) => state.saveNow);
  return (
    <div className={classes.study}>
      <input
        aria-label="Title of the study"
        value={title}
        onChange={(event) => commit(setTitle(event.target.value))}
      />
      <small aria-live="polite">
        {savingText(saving, savedAt, keeping)}
        {saving.state === 'failed' && (
          <button type="button" className={classes.retry} title={saving.problem} onClick={retry}>
            Try again
          </button>
        )}
      </small>
    </div>
  );
}

function savingText(saving: Saving, savedAt: number, keeping: 'kept' | 'full'): string {
  switch (saving.state) {
    case 'saved':
      return `Saved ${whenText(savedAt)}`;
    case 'waiting':
    case 'saving':
      return 'Saving …';
    case 'failed':
      return keeping === 'kept'
        ? 'Not saved; kept in this browser. '
        : 'Not saved, and this browser has no room to keep it: save as a file. ';
    case 'conflict':
      return 'Not saved: two versions';
    default:
      return saving satisfies never;
  }
}
