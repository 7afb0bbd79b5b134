/** A button that shows a picture and says in words what it does, to whoever points at it or cannot see it. */
import type { MouseEventHandler, ReactNode } from 'react';

interface Props {
  readonly words: string;
  /** What is told of it when it is pointed at; else the words. */
  readonly title?: string;
  readonly does: () => void;
  readonly disabled?: boolean;
  readonly className?: string | undefined;
  readonly expanded?: boolean;
  readonly onMouseDown?: MouseEventHandler;
  readonly children: ReactNode;
}

export function IconButton({
  words,
  title = words,
  does,
  disabled,
  className,
  expanded,
  onMouseDown,
  children,
}: Props) {
  return (
    <button
      type="button"
      className={className}
      aria-label={words}
      title={title}
      aria-expanded={expanded}
      disabled={disabled}
      onMouseDown={onMouseDown}
      onClick={does}
    >
      {children}
    </button>
  );
}
