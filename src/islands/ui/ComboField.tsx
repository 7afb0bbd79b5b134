/** The field over a list that narrows as one types (`use-combobox.ts`). */
import type { KeyboardEvent } from 'react';
import type { useCombobox } from './use-combobox';

interface Props {
  readonly combobox: ReturnType<typeof useCombobox>;
  readonly label: string;
  /** Id of its list. */
  readonly list: string;
  readonly placeholder: string;
  readonly value: string;
  /** Whatever is typed, the first entry is chosen again. */
  readonly change: (value: string) => void;
  readonly onKeyDown: (event: KeyboardEvent<Element>) => void;
}

export function ComboField({ combobox, label, list, placeholder, value, change, onKeyDown }: Props) {
  return (
    <input
      {...combobox.fieldProps({ onKeyDown })}
      autoFocus
      type="text"
      role="combobox"
      aria-label={label}
      aria-expanded
      aria-controls={list}
      placeholder={placeholder}
      value={value}
      onChange={(event) => {
        change(event.target.value);
        combobox.choose(0);
      }}
    />
  );
}
