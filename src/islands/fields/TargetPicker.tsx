/** Where to go: the possible targets, the likely ones first; digits pick from the list, typing narrows it. */
import { useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import type { Target } from '../../core/document/types';
import { possibleTargets } from '../../core/wording/targets';
import { EndingMark } from '../ui/EndingMark';
import { useStudy } from '../state/store';
import classes from './targets.module.css';

interface Props {
  readonly section: number;
  /** Null: from the section's end. */
  readonly item: number | null;
  /** What "no target" is called; null where a target is needed. */
  readonly none: string | null;
  readonly choose: (target: Target | null) => void;
  readonly close: () => void;
  /** Shown under the targets: what else the choice is for. */
  readonly aside?: ReactNode;
}

export function TargetPicker({ section, item, none, choose, close, aside }: Props) {
  const document = useStudy((state) => state.document);
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const box = useRef<HTMLDivElement>(null);
  const list = useRef<HTMLUListElement>(null);
  const words = typed.trim().toLowerCase();
  const all = [
    ...possibleTargets(document, section, item),
    ...(none === null ? [] : [{ target: null, label: none, words: '', ending: null }]),
  ];
  const shown = all.filter(({ label, words: text }) => `${label} ${text}`.toLowerCase().includes(words));
  const current = Math.min(at, shown.length - 1);

  useEffect(() => {
    const outside = (event: MouseEvent) => {
      if (!box.current?.contains(event.target as Node)) close();
    };
    addEventListener('mousedown', outside);
    return () => removeEventListener('mousedown', outside);
  }, [close]);
  // Beside what it is for, and inside the window wherever that stands; the list grows and shrinks by typing.
  useLayoutEffect(() => {
    const place = () => {
      const [node, anchor] = [box.current, box.current?.parentElement];
      if (node && anchor) placeInside(node, anchor.getBoundingClientRect());
    };
    place();
    addEventListener('scroll', place, { capture: true, passive: true });
    addEventListener('resize', place);
    return () => {
      removeEventListener('scroll', place, { capture: true });
      removeEventListener('resize', place);
    };
  }, [shown.length]);
  useEffect(() => {
    list.current?.children[current]?.scrollIntoView({ block: 'nearest' });
  }, [current]);

  const take = (index: number) => {
    const found = shown[index];
    if (found !== undefined) choose(found.target);
  };
  return (
    <div className={classes.box} ref={box}>
      <input
        autoFocus
        type="text"
        role="combobox"
        aria-label="Go to"
        aria-expanded
        aria-controls="targets"
        aria-activedescendant={shown.length > 0 ? `target-${current}` : undefined}
        placeholder="1 to 9, or type to narrow"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'ArrowDown') setAt(Math.min(current + 1, shown.length - 1));
          else if (event.key === 'ArrowUp') setAt(Math.max(current - 1, 0));
          else if (event.key === 'Enter') take(current);
          else if (event.key === 'Tab' && aside !== undefined) return;
          else if (event.key === 'Escape' || event.key === 'Tab') close();
          else if (typed === '' && /^[1-9]$/.test(event.key)) take(Number(event.key) - 1);
          else return;
          event.preventDefault();
        }}
      />
      <ul id="targets" role="listbox" aria-label="Targets" ref={list}>
        {shown.map(({ target, label, words: text, ending }, index) => (
          <li
            key={JSON.stringify(target)}
            id={`target-${index}`}
            role="option"
            aria-selected={index === current}
            onMouseDown={(event) => {
              event.preventDefault();
              take(index);
            }}
          >
            <kbd>{index < 9 ? index + 1 : ''}</kbd>
            {ending === null ? (
              <span aria-hidden="true">{target === null ? '' : '→'}</span>
            ) : (
              <EndingMark kind={ending} />
            )}
            <b>{label}</b>
            <small>{text}</small>
          </li>
        ))}
        {shown.length === 0 && <li className={classes.none}>Nothing further on is called “{typed}”.</li>}
      </ul>
      {aside !== undefined && (
        <div
          className={classes.aside}
          onKeyDown={(event) => {
            if (event.key !== 'Escape') return;
            event.stopPropagation();
            close();
          }}
        >
          {aside}
        </div>
      )}
    </div>
  );
}

const GAP = 8;

/** Under the anchor with the right edges in line, or above it where there is more room. */
function placeInside(box: HTMLElement, anchor: DOMRect): void {
  const { width, height } = box.getBoundingClientRect();
  const left = Math.min(Math.max(anchor.right - width, GAP), innerWidth - width - GAP);
  const below = anchor.bottom + height + GAP <= innerHeight || anchor.top < innerHeight - anchor.bottom;
  const top = below ? anchor.bottom : anchor.top - height;
  box.style.left = `${left}px`;
  box.style.top = `${Math.min(Math.max(top, GAP), innerHeight - height - GAP)}px`;
}
