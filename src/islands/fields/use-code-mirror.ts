/** A CodeMirror editor in a field: made once, following the value it is given, telling what is written. */
import { closeCompletion, completionKeymap, completionStatus } from '@codemirror/autocomplete';
import { Annotation, EditorState, type Extension } from '@codemirror/state';
import { EditorView, placeholder as placeholderText, tooltips, type KeyBinding } from '@codemirror/view';
import { useEffect, useRef, type RefObject } from 'react';
import { styleNonce } from '../ui/style-nonce';

/** A text that was given to the editor, by an undo for instance: nobody has written it here. */
const GIVEN = Annotation.define<boolean>();

/** The usual keys of a completion list; Escape is used up by a list that is seen, not by one that is still looked for. */
export const COMPLETION_KEYS: readonly KeyBinding[] = [
  {
    key: 'Escape',
    run: (view) => {
      const seen = completionStatus(view.state) === 'active';
      closeCompletion(view);
      return seen;
    },
  },
  ...completionKeymap.filter(({ key }) => key !== 'Escape'),
];

export interface EditorOptions {
  readonly field: string;
  readonly label: string;
  readonly value: string;
  readonly placeholder: string | undefined;
  readonly change: (text: string) => void;
  /** Of its content. */
  readonly attributes: Readonly<Record<string, string>>;
  /** Keys, completion and the rest; asked for once. */
  readonly extensions: () => Extension;
}

export interface Editor {
  /** Where it is to be put. */
  readonly host: RefObject<HTMLDivElement | null>;
  readonly view: RefObject<EditorView | null>;
}

export function useCodeMirror(options: EditorOptions): Editor {
  const { field, label, value } = options;
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef(options);
  useEffect(() => {
    latest.current = options;
  });
  useEffect(() => {
    const { placeholder, attributes, extensions } = latest.current;
    const editor = new EditorView({
      parent: host.current as HTMLDivElement,
      state: EditorState.create({
        doc: latest.current.value,
        extensions: [
          EditorView.cspNonce.of(styleNonce()),
          EditorView.lineWrapping,
          tooltips({ parent: document.body }),
          placeholderText(placeholder ?? ''),
          EditorView.contentAttributes.of({ 'aria-label': label, 'data-field': field, ...attributes }),
          EditorView.updateListener.of((update) => {
            const fromOutside = update.transactions.some((made) => made.annotation(GIVEN) === true);
            if (update.docChanged && !fromOutside) latest.current.change(update.state.doc.toString());
          }),
          extensions(),
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
  }, [field, label]);
  useEffect(() => {
    const editor = view.current;
    if (editor === null || editor.state.doc.toString() === value) return;
    editor.dispatch({
      changes: { from: 0, to: editor.state.doc.length, insert: value },
      annotations: GIVEN.of(true),
    });
  }, [value]);
  return { host, view };
}

const LONGEST_DETAIL = 44;

/** What stands beside a completion, short enough for its list. */
export function shortDetail(detail: string): string {
  return detail.length > LONGEST_DETAIL ? `${detail.slice(0, LONGEST_DETAIL - 1)}…` : detail;
}
