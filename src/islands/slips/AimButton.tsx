/** A button that says where a way leads, or that one can be made, and opens the choice of where. */
import { useState, type ReactNode } from 'react';
import type { Target } from '../../core/document/types';
import { TargetPicker } from '../fields/TargetPicker';
import rows from './rows.module.css';

interface Props {
  readonly section: number;
  /** Index of the item the way leaves from; null at a section's end. */
  readonly from: number | null;
  readonly choose: (target: Target) => void;
  readonly label?: string;
  readonly className?: string | undefined;
  readonly children: ReactNode;
}

export function AimButton({ section, from, choose, label, className, children }: Props) {
  const [aiming, setAiming] = useState(false);
  return (
    <span className={rows.aim}>
      <button
        type="button"
        className={className}
        aria-label={label}
        aria-expanded={aiming}
        onClick={() => setAiming(!aiming)}
      >
        {children}
      </button>
      {aiming && (
        <TargetPicker
          section={section}
          item={from}
          none={null}
          close={() => setAiming(false)}
          choose={(target) => {
            setAiming(false);
            if (target !== null) choose(target);
          }}
        />
      )}
    </span>
  );
}
