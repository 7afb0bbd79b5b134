/** Ctrl/Cmd+Z undoes and Ctrl/Cmd+Shift+Z redoes, wherever the focus is. */
import { useEffect } from 'react';
import type { StudyStore } from './store';

export function useUndoKeys(store: StudyStore): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const key = event.key.toLowerCase();
      const redo = (key === 'z' && event.shiftKey) || key === 'y';
      if (!redo && key !== 'z') return;
      event.preventDefault();
      if (redo) store.getState().redo();
      else store.getState().undo();
    };
    addEventListener('keydown', onKey, { capture: true });
    return () => removeEventListener('keydown', onKey, { capture: true });
  }, [store]);
}
