/** One field: the variable in the outer column, the question with its codes, and what is keyed. */
import { useId, useState } from 'react';
import { optionsOf } from '../../../core/document/shape';
import type { Value } from '../../../core/document/types';
import type { KeyField } from '../../../core/keying/fields';
import type { FieldState } from '../../../core/keying/sheet';
import { isComplete, readTyped, typedText } from '../../../core/keying/typed';
import classes from './key.module.css';

interface Props {
  readonly field: KeyField;
  readonly state: FieldState;
  readonly value: Value | null | undefined;
  readonly isKeyed: boolean;
  /** Whether it is asked is not known yet: an answer before it is still to be keyed. */
  readonly isLater: boolean;
  readonly take: (field: KeyField, value: Value | null) => void;
}

export function FieldRow({ field, state, value, isKeyed, isLater, take }: Props) {
  const id = useId();
  const kept = typedText(value);
  /** What is being typed; null where the field stands as it was keyed. */
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const away = state.is === 'passed-over';
  const text = typed ?? kept;
  const commit = (written: string) => {
    const read = readTyped(field, written, state.is === 'asked' ? (state.shown ?? undefined) : undefined);
    if (!read.ok) {
      setProblem(read.problem);
      return;
    }
    setProblem(null);
    setTyped(null);
    // Nothing was written where nothing is asked: the code stands.
    if (away && read.value === null && !isKeyed) return;
    take(field, read.value);
  };
  const options = field.kind === 'answer' ? optionsOf(field.answer) : [];
  return (
    <div
      className={classes.field}
      data-away={(away && !isLater) || undefined}
      data-flag={(away && kept !== '') || undefined}
    >
      <code>{field.key}</code>
      <div>
        <label htmlFor={id}>{field.label}</label>
        {(!away || isLater) && options.length > 0 && (
          <span className={classes.codes}>
            {options.map(({ code, label }) => (
              <span key={code}>
                <b>{code}</b> {label}
              </span>
            ))}
          </span>
        )}
        {problem !== null && (
          <p role="alert" id={`${id}-problem`}>
            {text.trim()} is not allowed. {problem}
          </p>
        )}
      </div>
      <span className={classes.cell}>
        <input
          id={id}
          data-key={field.key}
          value={text}
          placeholder={away && isLater ? '' : away ? String(state.code) : isKeyed ? 'blank' : ''}
          aria-invalid={problem !== null || undefined}
          aria-describedby={problem === null ? undefined : `${id}-problem`}
          autoComplete="off"
          spellCheck={false}
          // Passed over by Tab; reached by arrow or pointer, for an answer that should not be there.
          tabIndex={away ? -1 : 0}
          onChange={(event) => {
            const next = event.target.value;
            setTyped(next);
            setProblem(null);
            if (!away && next.length > text.length && isComplete(field, next)) commit(next);
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter' || (event.key === 'Tab' && !event.shiftKey && typed !== null)) {
              event.preventDefault();
              commit(text);
            } else if (event.key === 'Escape') {
              setTyped(null);
              setProblem(null);
            }
          }}
          onBlur={() => {
            if (typed !== null && problem === null && typed !== kept) commit(typed);
          }}
        />
      </span>
    </div>
  );
}
