/** A button for what cannot be undone: the first press says what the second does. */
import { useState } from 'react';
import classes from './instrument.module.css';

interface Props {
  readonly words: string;
  /** What it is about, for those who cannot see what it stands beside. */
  readonly about?: string;
  /** What is on the button once it was pressed. */
  readonly again: string;
  readonly act: () => void;
}

export function PressedTwice({ words, about, again, act }: Props) {
  const [pressed, setPressed] = useState(false);
  return (
    <button
      type="button"
      data-sure={pressed || undefined}
      onClick={() => {
        if (pressed) act();
        setPressed(!pressed);
      }}
      onBlur={() => setPressed(false)}
    >
      {pressed ? again : words}
      {about !== undefined && <span className={classes.told}> ({about})</span>}
    </button>
  );
}
