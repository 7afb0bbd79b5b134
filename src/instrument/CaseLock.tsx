/** One tab at a time answers a case: the second is told, and takes nothing away from the first. */
import { useEffect, useState, type ReactNode } from 'react';
import classes from './instrument.module.css';

interface Props {
  /** Of what is locked. */
  readonly name: string;
  readonly leave: () => void;
  readonly children: ReactNode;
}

export function CaseLock({ name, leave, children }: Props) {
  const [state, setState] = useState<'asking' | 'ours' | 'elsewhere'>('asking');
  useEffect(() => {
    let release: () => void = () => undefined;
    const { locks } = navigator as Partial<Navigator>;
    if (locks === undefined) {
      // eslint-disable-next-line react-hooks/set-state-in-effect -- an old browser tells no tabs apart
      setState('ours');
      return undefined;
    }
    const gone = new AbortController();
    locks
      .request(`jolly-fork case ${name}`, { ifAvailable: true }, (lock) => {
        if (gone.signal.aborted) return undefined;
        setState(lock === null ? 'elsewhere' : 'ours');
        return lock === null ? undefined : new Promise<void>((resolve) => (release = resolve));
      })
      .catch(() => setState('ours'));
    return () => {
      gone.abort();
      release();
    };
  }, [name]);
  if (state === 'asking') return null;
  if (state === 'ours') return children;
  return (
    <div className={classes.sheet}>
      <h1 className={classes.title}>This case is being answered in another tab</h1>
      <p>Go on there, or close that tab and open the case again.</p>
      <p className={classes.actions}>
        <button type="button" onClick={leave}>
          Cases on this device
        </button>
      </p>
    </div>
  );
}
