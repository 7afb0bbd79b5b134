/** Bold, italic, links and lists, as edits of the Markdown that is kept. */
import { EditorSelection, type ChangeSpec, type EditorState } from '@codemirror/state';
import type { EditorView } from '@codemirror/view';

/** Puts marks round what is selected, or takes them away where they are there. */
export function toggleMarks(view: EditorView, mark: '**' | '_'): boolean {
  const { state } = view;
  const { length } = mark;
  view.dispatch(
    state.changeByRange(({ from, to }) => {
      const marked = state.sliceDoc(from - length, from) === mark && state.sliceDoc(to, to + length) === mark;
      return marked
        ? {
            changes: [
              { from: from - length, to: from },
              { from: to, to: to + length },
            ],
            range: EditorSelection.range(from - length, to - length),
          }
        : {
            changes: [
              { from, insert: mark },
              { from: to, insert: mark },
            ],
            range: EditorSelection.range(from + length, to + length),
          };
    }),
  );
  return true;
}

/** Makes what is selected a link, with its address selected next; without an address, one to be written. */
export function makeLink(view: EditorView, address?: string): boolean {
  const { from, to } = view.state.selection.main;
  const words = view.state.sliceDoc(from, to);
  const start = from + words.length + 3;
  const url = address ?? 'https://';
  view.dispatch({
    changes: { from, to, insert: `[${words}](${url})` },
    selection:
      words === ''
        ? { anchor: from + 1 }
        : {
            anchor: address === undefined ? start : start + url.length + 1,
            head: start + url.length + (address === undefined ? 0 : 1),
          },
  });
  return true;
}

/** Makes the selected lines a list, or plain lines where they all are one. */
export function toggleList(view: EditorView, kind: '-' | '1.'): boolean {
  const { state } = view;
  const { from, to } = state.selection.main;
  const [first, last] = [state.doc.lineAt(from).number, state.doc.lineAt(to).number];
  const lines = Array.from({ length: last - first + 1 }, (_, n) => state.doc.line(first + n));
  const marks = lines.map(({ text }) => listMark(text));
  const all = marks.every((mark) => mark !== null && /^\d/.test(mark) === (kind === '1.'));
  const changes = lines.flatMap(({ from: at }, n): ChangeSpec[] => {
    const insert = all ? '' : kind === '1.' ? `${n + 1}. ` : '- ';
    return [{ from: at, to: at + (marks[n]?.length ?? 0), insert }];
  });
  view.dispatch({ changes });
  return true;
}

/** A new line; within a list, its next entry, or its end where the entry is empty. */
export function newLine(view: EditorView): boolean {
  const { state } = view;
  const { from, to } = state.selection.main;
  const line = state.doc.lineAt(from);
  const mark = listMark(line.text);
  if (mark !== null && line.text.length === mark.length) {
    view.dispatch({ changes: { from: line.from, to: line.to }, selection: { anchor: line.from } });
    return true;
  }
  const number = mark === null ? null : /^\d+/.exec(mark);
  const next = mark === null ? '' : number === null ? mark : `${Number(number[0]) + 1}. `;
  const insert = `${state.lineBreak}${next}`;
  view.dispatch({ changes: { from, to, insert }, selection: { anchor: from + insert.length } });
  return true;
}

function listMark(text: string): string | null {
  return /^(?:[-*] |\d+[.)] )/.exec(text)?.[0] ?? null;
}

/** What is pasted over words, if it is the address of a page. */
export function pastedAddress(state: EditorState, pasted: string): string | null {
  const address = pasted.trim();
  return state.selection.main.empty || !/^https?:\/\/\S+$/.test(address) ? null : address;
}
