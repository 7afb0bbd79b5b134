/** Moving the focus to a field of the sheet, named by its `data-field`. */
import { flushSync } from 'react-dom';

/** `NAME/label/2` and the like: what a field edits, unique on the sheet. */
export function fieldId(...parts: readonly (string | number)[]): string {
  return parts.join('/');
}

/** Makes a change and, once it is on the page, puts the focus where the work goes on. */
export function thenFocus(change: () => void, field: string, caret: 'end' | 'all' | number = 'end'): void {
  flushSync(change);
  focusField(field, caret);
}

export function focusField(field: string, caret: 'end' | 'all' | number = 'end'): void {
  const found = document.querySelector<HTMLElement>(`[data-field="${CSS.escape(field)}"]`);
  if (found === null) return;
  found.focus();
  if (!(found instanceof HTMLInputElement) && !(found instanceof HTMLTextAreaElement)) return;
  const { length } = found.value;
  if (found instanceof HTMLInputElement && found.type !== 'text') return;
  if (caret === 'all') found.select();
  else found.setSelectionRange(caret === 'end' ? length : caret, caret === 'end' ? length : caret);
}

/** The offset in the text under a point, for a caret where the click was; the end where there is no text. */
export function caretAt(x: number, y: number): number | 'end' {
  const range = document.caretRangeFromPoint?.(x, y);
  return range?.startContainer.nodeType === Node.TEXT_NODE ? range.startOffset : 'end';
}
