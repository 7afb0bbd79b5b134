/** Ctrl+V on the sheet: several lines are looked at as a list of questions before they are put in. */
import { useEffect } from 'react';
import { fieldOfElement, readField, type FieldId } from '../../core/document/addresses';
import { fromList } from '../../core/exchange/from-list';
import { openPaste } from '../state/open-paste';
import { useStudyStore } from '../state/store';

function isTitle(field: FieldId | null): boolean {
  if (field === null) return false;
  const { owner, parts } = readField(field);
  return owner === '@section' ? parts.at(-1) === 'title' : !owner.startsWith('@') && parts.at(-1) === 'text';
}

export function useListPaste(): void {
  const store = useStudyStore();
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const source = event.clipboardData?.getData('text/plain') ?? '';
      if (source.trim().split(/\r?\n/).length < 2) return;
      const target = event.target instanceof Element ? event.target : null;
      const field = target?.closest<HTMLElement>('[data-field]')?.dataset.field;
      if (target?.closest('[role="region"]:not([aria-label="Sheet"]), dialog')) return;
      const isWritten = target?.closest('input, textarea, [contenteditable="true"]') != null;
      // Two lines in the words of a question may be two lines; two questions are two questions.
      const takesLists = isTitle(fieldOfElement(field));
      if (isWritten && !(takesLists && fromList(source, '').questions > 1)) return;
      event.preventDefault();
      event.stopPropagation();
      openPaste(store, undefined, source);
    };
    document.addEventListener('paste', onPaste, { capture: true });
    return () => document.removeEventListener('paste', onPaste, { capture: true });
  }, [store]);
}
