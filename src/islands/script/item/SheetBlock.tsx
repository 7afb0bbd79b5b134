/** A part of the sheet that is selected by getting to it, whether by click or by key. */
import type { KeyboardEventHandler, ReactNode } from 'react';
import { wholeField, type Address } from '../../../core/document/addresses';
import { useStudy } from '../../state/store';
import classes from './block.module.css';

interface Props {
  readonly selection: Address;
  /** What it is, for screen readers. */
  readonly title: string;
  readonly className: string | undefined;
  readonly onKeyDown?: KeyboardEventHandler<HTMLElement>;
  readonly children: (selected: boolean) => ReactNode;
}

export function SheetBlock({ selection, title, className, onKeyDown, children }: Props) {
  const selected = useStudy((state) => state.selection === selection);
  const select = useStudy((state) => state.select);
  return (
    <div
      className={`${className} ${selected ? classes.selected : ''}`}
      data-selected={selected || undefined}
      data-anchor={selection}
      data-field={wholeField(selection)}
      tabIndex={0}
      role="group"
      aria-label={title}
      onFocus={() => {
        if (!selected) select(selection);
      }}
      onKeyDown={onKeyDown}
    >
      {children(selected)}
    </div>
  );
}
