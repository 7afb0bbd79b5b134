/** A word or two that are typed in place: kept on Enter or on leaving, given back as they were on Escape. */
import { useState } from 'react';
import classes from './fields.module.css';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly placeholder: string;
  readonly readOnly: boolean;
  readonly className?: string | undefined;
  readonly keep: (text: string) => string | null;
}

export function WordField({ label, value, placeholder, readOnly, className, keep }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const take = () => {
    if (typed !== null && typed.trim() !== value) keep(typed.trim());
    setTyped(null);
  };
  return (
    <input
      className={className ?? classes.word}
      aria-label={label}
      placeholder={placeholder}
      size={Math.max(6, (typed ?? value).length)}
      value={typed ?? value}
      readOnly={readOnly}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
        if (event.key !== 'Escape' || typed === null) return;
        // Where nothing was typed, it is for what the field stands in.
        event.preventDefault();
        setTyped(null);
      }}
    />
  );
}
