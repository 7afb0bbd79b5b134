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
    let gone = false;
    whileOurs(name, (ours) => {
      if (gone) return undefined;
      setState(ours ? 'ours' : 'elsewhere');
      return ours ? new Promise<void>((resolve) => (release = resolve)) : undefined;
    });
    return () => {
      gone = true;
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

/** Does something with a case while no other tab has it, until what is given back is over; told at once where one has. */
export function whileOurs(name: string, act: (ours: boolean) => Promise<void> | undefined | void): void {
  // Old browsers tell no tabs apart.
  const { locks } = navigator as Partial<Navigator>;
  if (locks === undefined) void act(true);
  else
    locks
      .request(`jolly-fork case ${name}`, { ifAvailable: true }, (lock) => act(lock !== null))
      .catch(() => void act(true));
}
