/** Where to go: the possible targets, the likely ones first; digits pick from the list, typing narrows it. */
import { useId, useState, type ReactNode } from 'react';
import type { Target } from '../../core/document/types';
import { possibleTargets } from '../../core/wording/targets';
import { useCombobox } from '../ui/use-combobox';
import { EndingMark } from '../ui/EndingMark';
import { useStudy } from '../state/store';
import { ComboField } from '../ui/ComboField';
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
  const list = useId();
  const words = typed.trim().toLowerCase();
  const all = [
    ...possibleTargets(document, section, item),
    ...(none === null ? [] : [{ target: null, label: none, words: '', ending: null }]),
  ];
  const shown = all.filter(({ label, words: text }) => `${label} ${text}`.toLowerCase().includes(words));
  const picker = useCombobox({
    count: shown.length,
    close,
  });
  const { current } = picker;

  const take = (index: number) => {
    const found = shown[index];
    if (found !== undefined) choose(found.target);
  };
  return (
    <div {...picker.besideProps()} className={classes.box} style={picker.layerStyles}>
      <ComboField
        combobox={picker}
        label="Go to"
        list={list}
        placeholder="1 to 9, or type to narrow"
        value={typed}
        change={setTyped}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') take(current);
          else if (event.key === 'Tab' && aside !== undefined) return;
          else if (event.key === 'Escape' || event.key === 'Tab') close();
          else if (typed === '' && /^[1-9]$/.test(event.key)) take(Number(event.key) - 1);
          else return;
          event.preventDefault();
        }}
      />
      <ul id={list} role="listbox" aria-label="Targets">
        {shown.map(({ target, label, words: text, ending }, index) => (
          <li
            key={JSON.stringify(target)}
            {...picker.entryProps(index)}
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
