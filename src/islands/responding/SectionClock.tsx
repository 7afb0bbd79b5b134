/** The time that is left in a section, or in all, with a limit: shown, told now and then, and acted on when it is over. */
import { useEffect, useState } from 'react';
import classes from './page.module.css';

interface Props {
  /** Whole seconds. */
  readonly limit: number;
  /** When its time began, in milliseconds since 1970; left out: now. */
  readonly begun?: number;
  readonly over: () => void;
  /** What the limit is of. */
  readonly of?: 'this section' | 'the questionnaire';
}

/** With so many seconds left a screen reader is told. */
const TOLD_AT = [300, 120, 60, 30, 10];

/** To be given a key of the section, its pass and the walk: another key, another clock. */
export function SectionClock({ limit, begun, over, of = 'this section' }: Props) {
  const [deadline] = useState(() => (begun ?? Date.now()) + limit * 1000);
  const [left, setLeft] = useState(limit);
  useEffect(() => {
    const timer = setInterval(() => setLeft(Math.max(0, Math.ceil((deadline - Date.now()) / 1000))), 200);
    return () => clearInterval(timer);
  }, [deadline]);
  const isOver = left === 0;
  useEffect(() => {
    if (isOver) over();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, whatever `over` is by then
  }, [isOver]);
  const told = TOLD_AT.findLast((seconds) => left <= seconds && limit > seconds);
  return (
    <p className={classes.clock} data-short={left <= 10 || undefined}>
      <span role="timer" aria-label={`Time left in ${of}`}>
        {clockText(left)}
      </span>{' '}
      left in {of}
      <span className={classes.told} aria-live="polite">
        {told === undefined ? '' : `${told >= 60 ? `${told / 60} min` : `${told} seconds`} left in ${of}`}
      </span>
    </p>
  );
}

export function clockText(seconds: number): string {
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
