/** One field: the variable in the outer column, the question with its codes, and what is keyed. */
import { useId, useState } from 'react';
import { optionsOf } from '../../../core/document/shape';
import type { Value } from '../../../core/document/types';
import type { KeyField } from '../../../core/keying/fields';
import type { FieldState } from '../../../core/keying/sheet';
import { limitWords, readTyped, typedText, typingOf } from '../../../core/keying/typed';
import classes from './key.module.css';

interface Props {
  readonly field: KeyField;
  readonly state: FieldState;
  readonly value: Value | null | undefined;
  readonly isKeyed: boolean;
  /** Whether it is asked is not known yet: an answer before it is still to be keyed. */
  readonly isLater: boolean;
  /** `byItself`: because nothing more could be typed. */
  readonly take: (field: KeyField, value: Value | null, byItself: boolean) => void;
}

export function FieldRow({ field, state, value, isKeyed, isLater, take }: Props) {
  const id = useId();
  const kept = typedText(value);
  /** What is being typed; null where the field stands as it was keyed. */
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  /** What was typed and refused, so that it stands nowhere. */
  const [refused, setRefused] = useState<string | null>(null);
  const away = state.is === 'passed-over';
  const text = typed ?? kept;
  const commit = (written: string, byItself = false) => {
    const read = readTyped(field, written, state.is === 'asked' ? (state.shown ?? undefined) : undefined);
    if (!read.ok) {
      setRefused(null);
      setProblem(read.problem);
      return;
    }
    setRefused(null);
    setProblem(null);
    setTyped(null);
    // Nothing was written where nothing is asked: the code stands.
    if (away && read.value === null && !isKeyed) return;
    take(field, read.value, byItself);
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
        {(!away || isLater) && limitWords(field) !== '' && (
          <small className={classes.limits}>{limitWords(field)}</small>
        )}
        {problem !== null && (
          <p role="alert" id={`${id}-problem`}>
            {(refused ?? text).trim()} is not allowed. {problem}
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
            const typing = away || next.length <= text.length ? 'open' : typingOf(field, next);
            if (typing === 'refused') {
              const read = readTyped(field, next);
              setRefused(next);
              setProblem(read.ok ? 'Nothing that is allowed begins so.' : read.problem);
              return;
            }
            setRefused(null);
            setTyped(next);
            setProblem(null);
            if (typing === 'complete') commit(next, true);
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter' || (event.key === 'Tab' && !event.shiftKey && typed !== null)) {
              event.preventDefault();
              // What was refused is not a blank.
              if (refused === null || text !== '') commit(text);
            } else if (event.key === 'Escape') {
              setTyped(null);
              setRefused(null);
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
