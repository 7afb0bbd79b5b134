/** What was just deleted, taken back or done again: said at the foot of every view, until the work goes on. */
import { useEffect } from 'react';
import classes from './said.module.css';
import { useStudy } from '../state/store';

/** What can be taken back stays; the rest has been read by then. In milliseconds. */
const READ_AFTER = 8000;

export function SaidLine() {
  const said = useStudy((state) => state.said);
  const undo = useStudy((state) => state.undo);
  const close = useStudy((state) => state.closeSaid);
  useEffect(() => {
    if (said === null || said.canTakeBack) return;
    const timer = setTimeout(close, READ_AFTER);
    return () => clearTimeout(timer);
  }, [said, close]);
  return (
    <div className={classes.place} role="status" aria-label="Last change">
      {said !== null && (
        <p className={classes.said}>
          {said.text}
          {said.canTakeBack && (
            <button type="button" onClick={undo}>
              Take it back
            </button>
          )}
          <button type="button" aria-label="Close" onClick={close}>
            ×
          </button>
        </p>
      )}
    </div>
  );
}
