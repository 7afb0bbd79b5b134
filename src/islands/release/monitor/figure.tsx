/** A figure of the monitor that opens the responses behind it; and the mark of what became of somebody. */
import { createContext, use, type ReactElement, type ReactNode } from 'react';
import type { Outcome } from '../../../core/monitor/outcomes';
import { OUTCOME_WORDS } from '../../../core/monitor/outcomes';
import type { Picked } from '../../../core/monitor/picked';
import { EndingMark } from '../../ui/EndingMark';
import { grouped } from '../../ui/format';
import classes from './monitor.module.css';

export interface Picking {
  readonly picked: Picked;
  /** `words`: what the list that is opened is called. */
  pick(picked: Picked, words: string): void;
}

export const PickingContext = createContext<Picking | null>(null);

interface FigureProps {
  readonly of: Picked;
  readonly count: number;
  /** What it is a number of, for the heading of the list, and for those who do not see where it stands. */
  readonly words: string;
  /** In the place of the number. */
  readonly children?: ReactNode;
}

/** Nothing is behind a nought: it is no door. */
export function Figure({ of, count, words, children }: FigureProps) {
  const picking = use(PickingContext);
  const shown = children ?? grouped(count);
  if (count === 0 || picking === null) return <span className={classes.nought}>{shown}</span>;
  return (
    <button
      type="button"
      className={classes.figure}
      aria-label={`${words}: ${grouped(count)}`}
      aria-pressed={JSON.stringify(picking.picked) === JSON.stringify(of)}
      onClick={() => picking.pick(of, words)}
    >
      {shown}
    </button>
  );
}

const OPEN_MARKS: Readonly<Partial<Record<Outcome, ReactElement>>> = {
  partial: <path d="M0 3h12M2 3v7M5 3v7" fill="none" stroke="currentColor" strokeWidth="1.6" />,
  broken_off: (
    <path d="M0 3h12M2 3v4M5 3v7M8 3v5M11 3v3" fill="none" stroke="currentColor" strokeWidth="1.4" />
  ),
  under_way: <path d="M1 6h2M5 6h2M9 6h2" fill="none" stroke="currentColor" strokeWidth="2.2" />,
};

export function OutcomeMark({ outcome }: { readonly outcome: Outcome }) {
  const { ending, colour } = OUTCOME_WORDS[outcome];
  if (ending !== null) return <EndingMark kind={ending} />;
  return (
    <svg
      width="12"
      height="12"
      viewBox="0 0 12 12"
      aria-hidden="true"
      style={{ flex: 'none', color: `var(--${colour})` }}
    >
      {OPEN_MARKS[outcome]}
    </svg>
  );
}
