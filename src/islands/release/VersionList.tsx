/** The draft, keeping a version of it, and the versions as numbered postmarks, the last one first. */
import { useState } from 'react';
import type { Version } from '../../wire/versions';
import { YourName } from '../slips/YourName';
import { useReviewer } from '../state/reviewer';
import { useStudy, useStudyStore } from '../state/store';
import { keepVersion } from '../state/versions';
import { dayText, plural } from '../ui/format';
import { ShortForm } from '../ui/ShortForm';
import type { Shown } from './shown';
import { FormActs } from '../ui/FormActs';
import { Problem } from '../ui/Problem';
import classes from './versions.module.css';

interface Props {
  readonly versions: readonly Version[];
  readonly of: Shown;
  readonly show: (of: Shown) => void;
}

export function VersionList({ versions, of, show }: Props) {
  const revision = useStudy((state) => state.revision);
  const [last] = versions;
  const saves = last === undefined ? 0 : revision - last.revision;
  return (
    <nav className={classes.list} aria-label="Versions">
      <h2>Versions</h2>
      <ul>
        <li>
          <button type="button" aria-current={of === null || undefined} onClick={() => show(null)}>
            <span className={classes.mark} data-draft aria-hidden="true">
              draft
            </span>
            <span>
              <b>Draft</b>
              <small>
                {last === undefined
                  ? 'nothing kept yet'
                  : saves === 0
                    ? `as version ${last.number}`
                    : `since ${last.number}, ${plural(saves, 'save')}`}
              </small>
            </span>
          </button>
        </li>
      </ul>
      <KeepForm next={(last?.number ?? 0) + 1} />
      <ul>
        {versions.map((version) => (
          <li key={version.number}>
            <button
              type="button"
              aria-current={of === version.number || undefined}
              onClick={() => show(version.number)}
            >
              <span className={classes.mark} data-kept={!version.frozen || undefined} aria-hidden="true">
                {version.number}
              </span>
              <span>
                <b>
                  {version.frozen ? 'Frozen' : 'Kept'}
                  <span className={classes.told}>, version {version.number}</span>
                </b>
                <small>
                  {dayText(version.at)}, {version.author}
                </small>
                {version.note !== '' && <small>{version.note}</small>}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </nav>
  );
}

function KeepForm({ next }: { readonly next: number }) {
  const store = useStudyStore();
  const by = useReviewer();
  /** Null until the form was opened once: then the way back to its button is by keyboard, too. */
  const [open, setOpen] = useState<boolean | null>(null);
  const [note, setNote] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  if (open !== true)
    return (
      <button type="button" className={classes.keep} autoFocus={open === false} onClick={() => setOpen(true)}>
        Keep a version …
      </button>
    );
  const keep = async () => {
    if (by.reviewer.trim() === '') {
      setProblem('Give your name: a version says who kept it.');
      return;
    }
    by.remember();
    setBusy(true);
    const refused = await keepVersion(store, { note, author: by.reviewer.trim(), freezing: null });
    setBusy(false);
    setProblem(refused);
    if (refused !== null) return;
    setNote('');
    setOpen(false);
  };
  return (
    <ShortForm className={classes.form} send={keep} close={() => setOpen(false)}>
      <label>
        Note, if any
        <input autoFocus maxLength={300} value={note} onChange={(event) => setNote(event.target.value)} />
      </label>
      <YourName by={by} />
      <Problem of={problem} />
      <FormActs className={classes.formActs} busy={busy} cancel={() => setOpen(false)}>
        Keep version {next}
      </FormActs>
    </ShortForm>
  );
}
