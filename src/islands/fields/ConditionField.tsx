/** A condition as text: completion of names and codes, problems under the very characters, one line that wraps. */
import { autocompletion, startCompletion, type CompletionSource } from '@codemirror/autocomplete';
import { defaultKeymap } from '@codemirror/commands';
import { setDiagnostics } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap } from '@codemirror/view';
import { useEffect, useId, useRef, useState } from 'react';
import type { Position } from '../../core/condition/scope';
import type { Snag } from '../../core/snags';
import { completionsAt, exampleAt } from '../../core/views/completions';
import { useStudy, useStudyStore } from '../state/store';
import { COMPLETION_KEYS, shortDetail, useCodeMirror } from './use-code-mirror';
import classes from './condition.module.css';

interface Props {
  readonly field: string;
  readonly label: string;
  readonly value: string;
  /** Just before which item of which section the condition stands: what comes later is not offered. */
  readonly place: Position;
  /** The snags of this very text. */
  readonly isProblem: (snag: Snag) => boolean;
  readonly change: (text: string) => void;
  /** Instead of an example in the study's own names. */
  readonly placeholder?: string;
  /** Enter, once nothing is being completed. */
  readonly done?: () => void;
}

export function ConditionField({ field, label, value, place, isProblem, change, placeholder, done }: Props) {
  const store = useStudyStore();
  const snags = useStudy((state) => state.snags);
  const problems = snags.filter(isProblem);
  const latest = useRef({ done, place });
  const problemId = useId();
  // Shown as it was when the field came onto the page; looked for once.
  const [example] = useState(() => placeholder ?? exampleAt(store.getState().plan, place) ?? undefined);
  useEffect(() => {
    latest.current = { done, place };
  });
  const complete: CompletionSource = ({ state, pos, explicit }) => {
    const { from, list } = completionsAt(
      store.getState().plan,
      latest.current.place,
      state.doc.toString(),
      pos,
    );
    if (!explicit && from === pos && state.doc.length > 0 && !/[\s(,=<>]$/.test(state.sliceDoc(0, pos)))
      return null;
    return {
      from,
      options: list.map(({ label: text, detail, kind }) => ({
        label: text,
        detail: shortDetail(detail),
        type: kind,
      })),
      validFor: /^[\w]*$/,
    };
  };
  const { host, view } = useCodeMirror({
    field,
    label,
    value,
    placeholder: example,
    change,
    attributes: { 'aria-describedby': problemId },
    extensions: () => [
      EditorState.transactionFilter.of((transaction) => (transaction.newDoc.lines > 1 ? [] : transaction)),
      autocompletion({ override: [complete], icons: false, aboveCursor: false }),
      keymap.of([
        ...COMPLETION_KEYS,
        {
          key: 'Enter',
          run: () => {
            latest.current.done?.();
            return true;
          },
        },
        ...defaultKeymap,
      ]),
      EditorView.domEventHandlers({
        focus: (_event, target) => {
          if (target.state.doc.length === 0) startCompletion(target);
        },
      }),
    ],
  });

  const marks = JSON.stringify(problems.map(({ span, message }) => [span, message]));
  useEffect(() => {
    const editor = view.current;
    if (editor === null) return;
    const { length } = editor.state.doc;
    const list = problems.flatMap(({ span, message }) => {
      if (span === undefined) return [];
      // Something missing at the end is shown under the last character.
      const from = Math.min(span.from, Math.max(0, length - 1));
      return [
        { from, to: Math.min(Math.max(span.to, from + 1), length), severity: 'error' as const, message },
      ];
    });
    editor.dispatch(setDiagnostics(editor.state, list));
    // `marks` stands for what `problems` says.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [marks]);

  return (
    <div className={classes.condition}>
      <div ref={host} className={classes.editor} data-wrong={problems.length > 0 || undefined} />
      <div id={problemId} className={classes.problems} aria-live="polite">
        {problems.map(({ message }, index) => (
          <p key={index}>{message}</p>
        ))}
      </div>
    </div>
  );
}
