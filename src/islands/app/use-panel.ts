/** Which panel of the study is open, and the keys that open one from any view. */
import { useCallback, useEffect, useState } from 'react';

export type Panel = 'snags' | 'history' | 'find' | 'bank' | 'review' | 'keys' | 'file';

export function usePanel() {
  const [panel, setPanel] = useState<Panel | null>(null);
  const toggle = useCallback((which: Panel) => setPanel((now) => (now === which ? null : which)), []);
  const close = useCallback(() => setPanel(null), []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const isFind = (event.ctrlKey || event.metaKey) && !event.altKey && event.key.toLowerCase() === 'k';
      const isKeys = event.key === '?' && !isWriting(event.target);
      if (!isFind && !isKeys) return;
      event.preventDefault();
      toggle(isKeys ? 'keys' : 'find');
    };
    addEventListener('keydown', onKey, { capture: true });
    return () => removeEventListener('keydown', onKey, { capture: true });
  }, [toggle]);
  return { panel, setPanel, toggle, close };
}

/** A question mark in a text is a question mark. */
function isWriting(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.closest('input, textarea, select, [contenteditable="true"]') !== null
  );
}
