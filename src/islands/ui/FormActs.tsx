/** How a form ends: what it does, and the way out. */
import type { ReactNode } from 'react';

interface Props {
  readonly className: string | undefined;
  /** Of the button that does it. */
  readonly main?: string | undefined;
  readonly busy?: boolean;
  /** What it does. */
  readonly children: ReactNode;
  /** Null where the form stands open anyway. */
  readonly cancel: (() => void) | null;
  /** Of the way out. */
  readonly quiet?: string | undefined;
}

export function FormActs({ className, main, busy, children, cancel, quiet }: Props) {
  return (
    <span className={className}>
      <button type="submit" disabled={busy} className={main}>
        {children}
      </button>
      {cancel !== null && (
        <button type="button" className={quiet} onClick={cancel}>
          Cancel
        </button>
      )}
    </span>
  );
}
