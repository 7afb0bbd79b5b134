/** The plain fields of the sheet: they look like print until they are written in, and keep what cannot be used. */
import { useId, useState, type KeyboardEvent } from 'react';
import TextareaAutosize from 'react-textarea-autosize';
import { Problem } from '../ui/Problem';
import classes from './fields.module.css';

interface TextProps {
  readonly field: string;
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly className?: string | undefined;
  readonly change: (text: string) => void;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLTextAreaElement>) => void;
  readonly onPaste?: (text: string) => boolean;
  readonly onBlur?: () => void;
}

/** Text of any length that is taken over with every keystroke. */
export function TextField({
  field,
  label,
  value,
  placeholder,
  className,
  change,
  onKeyDown,
  onPaste,
  onBlur,
}: TextProps) {
  return (
    <TextareaAutosize
      className={`${classes.text} ${className ?? ''}`}
      data-field={field}
      aria-label={label}
      value={value}
      placeholder={placeholder}
      rows={1}
      spellCheck
      onChange={(event) => change(event.target.value)}
      onKeyDown={onKeyDown}
      onBlur={onBlur}
      onPaste={(event) => {
        if (onPaste?.(event.clipboardData.getData('text/plain'))) event.preventDefault();
      }}
    />
  );
}

interface CheckedProps {
  readonly field: string;
  readonly label: string;
  readonly value: string;
  readonly className?: string | undefined;
  readonly size?: number;
  readonly placeholder?: string;
  /** Takes the text over; gives what is wrong with it, or null. */
  readonly take: (text: string) => string | null;
  /** Where Enter goes once it is taken over. */
  readonly next?: (() => void) | undefined;
}

/** A short text that is taken over on leaving or Enter, if it can be; otherwise it stays, with what is wrong. */
export function CheckedField({
  field,
  label,
  value,
  className,
  size,
  placeholder,
  take,
  next,
}: CheckedProps) {
  // A draft belongs to the value it was begun on; another value from outside makes it void.
  const [state, setState] = useState<{ on: string; draft: string; problem: string | null } | null>(null);
  const draft = state?.on === value ? state.draft : null;
  const problem = state?.on === value ? state.problem : null;
  const problemId = useId();
  const settle = () => {
    const refused = draft === null || draft === value ? null : take(draft);
    setState(refused === null || draft === null ? null : { on: value, draft, problem: refused });
    return refused === null;
  };
  return (
    <span className={classes.checked}>
      <input
        type="text"
        className={`${classes.short} ${className ?? ''}`}
        data-field={field}
        aria-label={label}
        aria-invalid={problem !== null || undefined}
        aria-describedby={problem === null ? undefined : problemId}
        value={draft ?? value}
        placeholder={placeholder}
        size={size}
        spellCheck={false}
        onChange={(event) => setState({ on: value, draft: event.target.value, problem: null })}
        onBlur={() => void settle()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault();
            if (settle()) next?.();
          } else if (event.key === 'Escape') {
            setState(null);
          }
        }}
      />
      <Problem of={problem} as="span" id={problemId} className={classes.problem} />
    </span>
  );
}

interface NumberProps {
  readonly field: string;
  readonly label: string;
  readonly value: number | undefined;
  readonly className?: string | undefined;
  readonly whole?: boolean;
  readonly optional?: boolean;
  /** Takes the number over (undefined: none); gives what is wrong with it, or null. */
  readonly take: (value: number | undefined) => string | null;
  /** Where Enter goes once it is taken over. */
  readonly next?: (() => void) | undefined;
}

export function NumberField({
  field,
  label,
  value,
  className,
  whole = false,
  optional = false,
  take,
  next,
}: NumberProps) {
  return (
    <CheckedField
      field={field}
      label={label}
      className={className}
      size={6}
      next={next}
      value={value === undefined ? '' : String(value)}
      take={(text) => {
        if (text.trim() === '') return optional ? take(undefined) : 'A number is needed here.';
        const number = Number(text.trim().replace('−', '-'));
        if (!Number.isFinite(number)) return `“${text}” is not a number.`;
        if (whole && !Number.isInteger(number)) return `“${text}” is not a whole number.`;
        return take(number);
      }}
    />
  );
}
