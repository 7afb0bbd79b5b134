/** Freezing the draft for fielding: at once where nothing stands in the way, else with a reason that is kept. */
import { useState } from 'react';
import { YourName } from '../slips/YourName';
import type { Gate } from '../state/gate';
import { useReviewer } from '../state/reviewer';
import { useStudyStore } from '../state/store';
import { keepVersion } from '../state/versions';
import { ShortForm } from '../ui/ShortForm';
import { FormActs } from '../ui/FormActs';
import { Problem } from '../ui/Problem';
import classes from './gate.module.css';

interface Props {
  readonly gate: Gate | null;
  readonly next: number;
}

export function FreezeForm({ gate, next }: Props) {
  const store = useStudyStore();
  const by = useReviewer();
  /** Null until the form was opened once: then the focus comes back to its button. */
  const [open, setOpen] = useState<boolean | null>(null);
  const [note, setNote] = useState('');
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  if (gate === null) return null;
  const clear = gate.complete && gate.count === 0n;
  if (open !== true)
    return (
      <button
        type="button"
        className={clear ? classes.freeze : classes.anyway}
        disabled={!gate.complete}
        autoFocus={open === false}
        onClick={() => setOpen(true)}
      >
        {clear ? `Freeze version ${next} …` : 'Freeze all the same, with a reason …'}
      </button>
    );
  const freeze = async () => {
    if (by.reviewer.trim() === '' || (!clear && reason.trim() === '')) {
      setProblem(clear ? 'Give your name: a version says who froze it.' : 'Say why, and who says so.');
      return;
    }
    by.remember();
    setBusy(true);
    const author = by.reviewer.trim();
    const refused = await keepVersion(store, { note, author, freezing: { reason: clear ? '' : reason } });
    setBusy(false);
    setProblem(refused);
    if (refused !== null) return;
    setOpen(false);
    setNote('');
    setReason('');
  };
  return (
    <ShortForm className={classes.form} send={freeze} close={() => setOpen(false)}>
      {!clear && (
        <label>
          Why it is frozen all the same
          <input
            autoFocus
            maxLength={500}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
      )}
      <label>
        Note, if any
        <input
          autoFocus={clear}
          maxLength={300}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
      </label>
      <YourName by={by} />
      <Problem of={problem} />
      <FormActs className={classes.formActs} busy={busy} cancel={() => setOpen(false)}>
        {busy ? 'The server looks through it …' : `Freeze version ${next}`}
      </FormActs>
    </ShortForm>
  );
}
