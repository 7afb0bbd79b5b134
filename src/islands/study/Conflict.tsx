/** Shown where another window saved in between: both versions are kept until the person has chosen. */
import { whenText } from '../ui/format';
import { useStudy } from './store';
import classes from './study.module.css';

export function Conflict() {
  const saving = useStudy((state) => state.saving);
  const takeTheirs = useStudy((state) => state.takeTheirs);
  if (saving.state !== 'conflict') return null;
  return (
    <div className={classes.conflict} role="alert">
      <p>
        <strong>Two versions.</strong> {saving.problem} The other version is of {whenText(saving.changedAt)};
        yours is still here, not saved.
      </p>
      <button type="button" onClick={() => void takeTheirs('copy')}>
        Keep mine as a copy, show the other
      </button>
      <button type="button" onClick={() => void takeTheirs('drop')}>
        Drop mine, show the other
      </button>
    </div>
  );
}
