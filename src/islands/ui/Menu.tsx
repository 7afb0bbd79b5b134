/** A button that opens a list of things to do: arrows, Home and End go through it, Escape closes it. */
import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import classes from './menu.module.css';

export interface MenuEntry {
  readonly words: string;
  /** Keys that do the same. */
  readonly keys?: string;
  readonly icon: ReactNode;
  readonly does: () => void;
}

interface Props {
  readonly label: string;
  readonly className?: string | undefined;
  readonly entries: readonly MenuEntry[];
  readonly children: ReactNode;
}

export function Menu({ label, className, entries, children }: Props) {
  const [open, setOpen] = useState(false);
  const place = useRef<HTMLDivElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (open) place.current?.querySelector<HTMLElement>('[role="menuitem"]')?.focus();
  }, [open]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (!open) return;
    const all = [...(place.current?.querySelectorAll<HTMLElement>('[role="menuitem"]') ?? [])];
    const at = all.indexOf(document.activeElement as HTMLElement);
    if (event.key === 'ArrowDown') all[(at + 1) % all.length]?.focus();
    else if (event.key === 'ArrowUp') all.at(at - 1)?.focus();
    else if (event.key === 'Home') all[0]?.focus();
    else if (event.key === 'End') all.at(-1)?.focus();
    else if (event.key === 'Escape') {
      setOpen(false);
      button.current?.focus();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      className={classes.place}
      ref={place}
      onKeyDown={onKeyDown}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) setOpen(false);
      }}
    >
      <button
        type="button"
        ref={button}
        className={className}
        aria-label={label}
        title={label}
        aria-haspopup="menu"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {children}
      </button>
      {open && (
        <div role="menu" aria-label={label} className={classes.menu}>
          {entries.map(({ words, keys, icon, does }) => {
            return (
              <button
                key={words}
                type="button"
                role="menuitem"
                aria-label={words}
                tabIndex={-1}
                // What it opens closes itself at a press outside it.
                onMouseDown={(event) => event.stopPropagation()}
                onClick={() => {
                  setOpen(false);
                  button.current?.focus();
                  does();
                }}
              >
                {icon}
                <span>{words}</span>
                {keys !== undefined && <kbd aria-hidden="true">{keys}</kbd>}
              </button>
            );
          })}
        </div>
      )}
    </div>
  );
}
