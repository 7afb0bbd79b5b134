/** The steps of the history by name: those that were taken back first, then the newest; any can be gone back or on to. */
import type { KeyboardEvent } from 'react';
import classes from './find.module.css';
import { Panel } from '../ui/Panel';
import { useStudy, useStudyStore } from '../state/store';

export function HistoryPanel({ close }: { readonly close: () => void }) {
  const past = useStudy((state) => state.past);
  const future = useStudy((state) => state.future);
  const store = useStudyStore();
  const own = past.filter(({ foreign }) => foreign !== true).length;
  /** Undoes, or redoes, until as many steps of one's own stand. */
  const goTo = (steps: number) => {
    const standing = () => store.getState().past.filter(({ foreign }) => foreign !== true).length;
    while (standing() > steps) store.getState().undo();
    while (standing() < steps && store.getState().future.length > 0) store.getState().redo();
  };
  let counted = 0;
  const all = [...past, ...[...future].reverse()].map((step) => {
    counted += step.foreign ? 0 : 1;
    return { step, count: counted };
  });
  return (
    <Panel label="History" width={320} close={close} first="[aria-current]" onKeyDown={walkUpAndDown}>
      <div className={classes.history}>
        <h2>History</h2>
        <ol>
          {all
            .map(({ step, count }, n) => (
              <li key={n}>
                {step.foreign ? (
                  <span>{step.label}</span>
                ) : (
                  <button
                    type="button"
                    data-undone={count > own || undefined}
                    aria-current={count === own ? 'step' : undefined}
                    onClick={() => goTo(count)}
                  >
                    {step.label}
                    {count > own && ' (taken back)'}
                  </button>
                )}
              </li>
            ))
            .reverse()}
          <li>
            <button type="button" aria-current={own === 0 ? 'step' : undefined} onClick={() => goTo(0)}>
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
