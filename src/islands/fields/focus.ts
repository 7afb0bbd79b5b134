/** Moving the focus to a field of the sheet, named by its `data-field`. */
import { EditorView } from '@codemirror/view';
import { flushSync } from 'react-dom';
import type { FieldId } from '../../core/document/addresses';

/** Puts the row of a field on the page, if it is far from the view; the sheet says how. */
type Bring = (field: FieldId) => void;
let bring: Bring | null = null;

/** To be called by the sheet while it is shown; gives what ends it. */
export function bringWith(how: Bring): () => void {
  bring = how;
  return () => {
    if (bring === how) bring = null;
  };
}

/** Null where there is no such field, also not out of sight. */
function fieldOf(field: FieldId): HTMLElement | null {
  const find = () => document.querySelector<HTMLElement>(`[data-field="${CSS.escape(field)}"]`);
  const found = find();
  if (found !== null) return found;
  bring?.(field);
  return find();
}

/** Makes a change and, once it is on the page, puts the focus where the work goes on. */
export function thenFocus(change: () => void, field: FieldId, caret: 'end' | 'all' | number = 'end'): void {
  flushSync(change);
  focusField(field, caret);
}

export function focusField(field: FieldId, caret: 'end' | 'all' | number = 'end'): void {
  const found = fieldOf(field);
  if (found === null) return;
  found.focus();
  const editor = EditorView.findFromDOM(found);
  if (editor !== null) {
    const { length } = editor.state.doc;
    const head = typeof caret === 'number' ? Math.min(caret, length) : length;
    editor.dispatch({ selection: { anchor: caret === 'all' ? 0 : head, head } });
    return;
  }
  if (!(found instanceof HTMLInputElement) && !(found instanceof HTMLTextAreaElement)) return;
  const { length } = found.value;
  if (found instanceof HTMLInputElement && !found.matches('[type="text"], :not([type])')) return;
  if (caret === 'all') found.select();
  else found.setSelectionRange(caret === 'end' ? length : caret, caret === 'end' ? length : caret);
}

/** Scrolls to a field without putting the focus there. */
export function showField(field: FieldId, block: ScrollLogicalPosition): void {
  fieldOf(field)?.scrollIntoView({ block });
}

/** The offset in the text under a point, for a caret where the click was; the end where there is no text. */
export function caretAt(x: number, y: number): number | 'end' {
  const range = document.caretRangeFromPoint?.(x, y);
  return range?.startContainer.nodeType === Node.TEXT_NODE ? range.startOffset : 'end';
}
