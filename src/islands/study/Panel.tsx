/** A panel over the view, under the bar: closed by Escape, the focus in it. */
import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';
import classes from './panel.module.css';

interface Props {
  readonly label: string;
  readonly width: number;
  readonly close: () => void;
  /** What the focus goes to; the panel itself where there is nothing like it. */
  readonly first?: string;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLDivElement>) => void;
  readonly children: ReactNode;
}

export function Panel({ label, width, close, first, onKeyDown, children }: Props) {
  const panel = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const wanted = first === undefined ? null : panel.current?.querySelector<HTMLElement>(first);
    (wanted ?? panel.current)?.focus();
  }, [first]);
  return (
    <div
      className={classes.panel}
      style={{ width }}
      role="region"
      aria-label={label}
      tabIndex={-1}
      ref={panel}
      onKeyDown={(event) => {
        if (event.key === 'Escape') close();
        onKeyDown?.(event);
      }}
    >
      {children}
    </div>
  );
}
