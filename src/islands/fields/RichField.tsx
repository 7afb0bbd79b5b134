/**
 * A text that respondents read: bold, italic, links, lists, and answers piped in, completed as one types. What is kept
 * is Markdown; it looks like print until it is written in.
 */
import { autocompletion, startCompletion, type CompletionSource } from '@codemirror/autocomplete';
import { defaultKeymap } from '@codemirror/commands';
import { Prec } from '@codemirror/state';
import { EditorView, keymap } from '@codemirror/view';
import { Bold, Braces, Italic, Link, List, ListOrdered } from 'lucide-react';
import { useEffect, useRef, type ReactNode } from 'react';
import type { Position } from '../../core/condition/scope';
import { pipesBefore } from '../../core/views/completions';
import { useStudyStore } from '../state/store';
import { makeLink, newLine, pastedAddress, toggleList, toggleMarks } from './rich-edits';
import { richMarks } from './rich-marks';
import { COMPLETION_KEYS, shortDetail, useCodeMirror } from './use-code-mirror';
import classes from './rich.module.css';

interface Props {
  readonly field: string;
  readonly label: string;
  readonly value: string;
  /** Before which item of which section it is read: answers given later are not offered. */
  readonly place: Position;
  readonly placeholder?: string;
  readonly change: (text: string) => void;
  /** Enter: on to the next; `far` with Ctrl. Without it Enter is a new line. */
  readonly enter?: (far: boolean) => void;
}

export function RichField({ field, label, value, place, placeholder, change, enter }: Props) {
  const store = useStudyStore();
  const latest = useRef({ enter, place });
  useEffect(() => {
    latest.current = { enter, place };
  });
  const complete: CompletionSource = (context) => {
    const typed = context.matchBefore(/\{[A-Za-z0-9_]*/);
    if (typed === null || context.state.sliceDoc(typed.from - 1, typed.from) === '{') return null;
    const closed = context.state.sliceDoc(context.pos, context.pos + 1) === '}';
    return {
      from: typed.from + 1,
      options: pipesBefore(store.getState().plan, latest.current.place).map(({ label: name, detail }) => ({
        label: name,
        detail: shortDetail(detail),
        apply: closed ? name : `${name}}`,
      })),
      validFor: /^\w*$/,
    };
  };
  const next = (far: boolean) => (target: EditorView) => {
    const { enter: on } = latest.current;
    if (on === undefined) return newLine(target);
    on(far);
    return true;
  };
  const { host, view } = useCodeMirror({
    field,
    label,
    value,
    placeholder,
    change,
    attributes: { 'aria-multiline': 'true', spellcheck: 'true' },
    extensions: () => [
      autocompletion({ override: [complete], icons: false, aboveCursor: false }),
      Prec.high(
        keymap.of([
          ...COMPLETION_KEYS,
          { key: 'Shift-Enter', run: newLine },
          { key: 'Mod-Enter', run: next(true) },
          { key: 'Enter', run: next(false) },
          { key: 'Mod-b', run: (target) => toggleMarks(target, '**') },
          { key: 'Mod-i', run: (target) => toggleMarks(target, '_') },
          { key: 'Mod-Shift-l', run: (target) => makeLink(target) },
          { key: 'Mod-Shift-8', run: (target) => toggleList(target, '-') },
          { key: 'Mod-Shift-7', run: (target) => toggleList(target, '1.') },
        ]),
      ),
      // Alt with the arrows moves the item.
      keymap.of(defaultKeymap.filter(({ key }) => key?.startsWith('Alt-Arrow') !== true)),
      richMarks,
      EditorView.domEventHandlers({
        paste: (event, target) => {
          const address = pastedAddress(target.state, event.clipboardData?.getData('text/plain') ?? '');
          return address !== null && makeLink(target, address);
        },
      }),
    ],
  });

  const act = (words: string, icon: ReactNode, run: (editor: EditorView) => void) => (
    <button
      type="button"
      // Each has its keys; Tab goes on to what comes after the text.
      tabIndex={-1}
      aria-label={words.replace(/ \(.*$/, '')}
      title={words}
      // The caret stays in the text.
      onMouseDown={(event) => event.preventDefault()}
      onClick={() => {
        if (view.current === null) return;
        run(view.current);
        view.current.focus();
      }}
    >
      {icon}
    </button>
  );
  return (
    <div className={classes.rich}>
      <div ref={host} className={classes.editor} />
      <div className={classes.acts} role="toolbar" aria-label={`Set ${label.toLowerCase()}`}>
        {act('Bold (Ctrl+B)', <Bold size={12} />, (editor) => toggleMarks(editor, '**'))}
        {act('Italic (Ctrl+I)', <Italic size={12} />, (editor) => toggleMarks(editor, '_'))}
        {act('Link (Ctrl+Shift+L, or paste an address over words)', <Link size={12} />, (editor) =>
          makeLink(editor),
        )}
        {act('List (Ctrl+Shift+8)', <List size={12} />, (editor) => toggleList(editor, '-'))}
        {act('Numbered list (Ctrl+Shift+7)', <ListOrdered size={12} />, (editor) => toggleList(editor, '1.'))}
        {act('An earlier answer (type {)', <Braces size={12} />, (editor) => {
          editor.dispatch(editor.state.replaceSelection('{'));
          startCompletion(editor);
        })}
      </div>
    </div>
  );
}
