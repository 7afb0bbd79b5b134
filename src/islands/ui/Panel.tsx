/** A panel over the view, under the bar: closed by Escape, the focus in it. */
import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';
import classes from './panel.module.css';

interface Props {
  readonly label: string;
  readonly width: number | string;
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
  // What had the focus may go, with a snag that was mended: then Escape comes from the page.
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.key === 'Escape' && event.target === document.body) close();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [close]);
  return (
    <div
      className={classes.panel}
      style={{ width }}
      role="region"
      aria-label={label}
      tabIndex={-1}
      ref={panel}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.isDefaultPrevented()) close();
        onKeyDown?.(event);
      }}
    >
      {children}
    </div>
  );
}
