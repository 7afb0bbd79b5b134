/** A form of a line or two: Enter does what it is for, Escape closes it where it can be closed. */
import type { ReactNode } from 'react';
import { submitting } from './submitting';

interface Props {
  readonly className: string | undefined;
  readonly send: () => Promise<void> | void;
  readonly close?: () => void;
  readonly children: ReactNode;
}

export function ShortForm({ className, send, close, children }: Props) {
  return (
    <form
      className={className}
      onSubmit={submitting(() => send())}
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || close === undefined) return;
        event.stopPropagation();
        close();
      }}
    >
      {children}
    </form>
  );
}

interface NameFieldProps {
  readonly label: string;
  readonly placeholder: string;
  readonly value: string;
  readonly set: (value: string) => void;
  /** The form was just asked for: whoever did goes on with its name. */
  readonly isFirst?: boolean;
}

/** A field for a name, as long as names may be. */
export function NameField({ label, placeholder, value, set, isFirst = false }: NameFieldProps) {
  return (
    <input
      aria-label={label}
      placeholder={placeholder}
      maxLength={100}
      autoFocus={isFirst}
      onFocus={isFirst ? (event) => event.target.select() : undefined}
      value={value}
      onChange={(event) => set(event.target.value)}
    />
  );
}
