/** The steps of the history by name: those that were taken back first, then the newest; any can be gone back or on to. */
import type { KeyboardEvent } from 'react';
import classes from './find.module.css';
import { Panel } from './Panel';
import { useStudy, useStudyStore } from './store';

export function HistoryPanel({ close }: { readonly close: () => void }) {
  const past = useStudy((state) => state.past);
  const future = useStudy((state) => state.future);
  const store = useStudyStore();
  /** Undoes, or redoes, until as many steps stand. */
  const goTo = (steps: number) => {
    while (store.getState().past.length > steps) store.getState().undo();
    while (store.getState().past.length < steps && store.getState().future.length > 0)
      store.getState().redo();
  };
  const all = [...past, ...[...future].reverse()];
  return (
    <Panel label="History" width={320} close={close} first="[aria-current]" onKeyDown={walkUpAndDown}>
      <div className={classes.history}>
        <h2>History</h2>
        <ol>
          {all
            .map((step, n) => (
              <li key={n}>
                <button
                  type="button"
                  data-undone={n >= past.length || undefined}
                  aria-current={n === past.length - 1 ? 'step' : undefined}
                  onClick={() => goTo(n + 1)}
                >
                  {step.label}
                  {n >= past.length && ' (taken back)'}
                </button>
              </li>
            ))
            .reverse()}
          <li>
            <button
              type="button"
              aria-current={past.length === 0 ? 'step' : undefined}
              onClick={() => goTo(0)}
            >
              As it was opened
            </button>
          </li>
        </ol>
      </div>
    </Panel>
  );
}

/** The arrows go from step to step. */
function walkUpAndDown(event: KeyboardEvent<HTMLDivElement>): void {
  const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (by === 0) return;
  event.preventDefault();
  const buttons = [...event.currentTarget.querySelectorAll<HTMLElement>('button')];
  buttons[buttons.indexOf(document.activeElement as HTMLElement) + by]?.focus();
}
