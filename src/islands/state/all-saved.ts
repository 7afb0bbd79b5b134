/** Waits until what was written last is on the server. */
import type { StudyStore } from './study-state';

/** In milliseconds. */
const WAIT_FOR_SAVE = 3000;

/** What was written last is saved before the session ends; where that takes long, the browser keeps it. */
export function allSaved(store: StudyStore): Promise<void> {
  const isSaved = () => store.getState().saving.state === 'saved';
  return new Promise((resolve) => {
    if (isSaved()) {
      resolve();
      return;
    }
    store.getState().saveNow();
    const done = () => {
      clearTimeout(timer);
      unsubscribe();
      resolve();
    };
    const timer = setTimeout(done, WAIT_FOR_SAVE);
    const unsubscribe = store.subscribe(() => {
      if (isSaved()) done();
    });
  });
}
