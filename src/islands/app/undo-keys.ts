/** Ctrl/Cmd+Z undoes and Ctrl/Cmd+Shift+Z redoes, wherever the focus is. */
import { useEffect } from 'react';
import type { StudyStore } from '../state/study-state';

export function useUndoKeys(store: StudyStore): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const key = event.key.toLowerCase();
      const redo = (key === 'z' && event.shiftKey) || key === 'y';
      if (!redo && key !== 'z') return;
      // Where something else is keyed or written, it has steps of its own to undo.
      if (event.target instanceof Element && event.target.closest('[data-own-undo]') !== null) return;
      event.preventDefault();
      if (redo) store.getState().redo();
      else store.getState().undo();
    };
    addEventListener('keydown', onKey, { capture: true });
    return () => removeEventListener('keydown', onKey, { capture: true });
  }, [store]);
}
