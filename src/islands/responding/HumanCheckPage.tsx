/** The page before the first, on which a respondent shows that a person is answering. */
import { useEffect, useRef, useState } from 'react';
import { humanCheckOf } from '../../core/wording/human-check';
import { submitting } from '../ui/submitting';
import classes from './page.module.css';
import item from '../answering/item.module.css';
import open from '../answering/open.module.css';

interface Props {
  readonly className: string;
  readonly style: React.CSSProperties;
  /** Decides which task it is. */
  readonly seed: number;
  /** With what was written, at which try: where it is a server that has to believe it. */
  readonly passed: (written: string, tries: number) => void;
}

export function HumanCheckPage({ className, style, seed, passed }: Props) {
  const [tries, setTries] = useState(0);
  const [written, setWritten] = useState('');
  const field = useRef<HTMLInputElement>(null);
  const check = humanCheckOf(seed + tries);
  useEffect(() => field.current?.focus({ preventScroll: true }), [tries]);
  return (
    <form
      className={className}
      style={style}
      noValidate
      aria-label="Human check"
      onSubmit={submitting(() => {
        if (check.solves(written)) {
          passed(written, tries);
          return;
        }
        setTries(tries + 1);
        setWritten('');
      })}
    >
      {tries > 0 && (
        <p className={classes.summary} role="alert">
          That is not it. Here is another one.
        </p>
      )}
      <p className={item.statement}>
        <label htmlFor="human-check">{check.task}</label>
      </p>
      <p className={classes.left}>
        This shows that a person is answering. It is not part of the questionnaire, and is not kept.
      </p>
      <input
        id="human-check"
        ref={field}
        className={open.one}
        value={written}
        size={12}
        autoComplete="off"
        placeholder="In words or digits"
        onChange={(event) => setWritten(event.target.value)}
      />
      <div className={classes.nav}>
        <span />
        <button type="submit" data-next className={classes.next}>
          Next
        </button>
      </div>
    </form>
  );
}
