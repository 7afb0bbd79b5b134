/** Making a link: what it is for, of which version, and what holds under it. */
import { useState } from 'react';
import type { Version } from '../../../wire/versions';
import type { Trials } from '../../state/trials';
import { ShortForm } from '../../ui/ShortForm';
import { SettingsFields } from './SettingsFields';
import { readSettings, settingsText, settingsWords } from './settings-text';
import classes from './trial.module.css';

const USUAL_WORDS = 'everybody with the link, until you close it; they may go back and come back later';

interface Props {
  readonly trials: Trials;
  /** Null for the draft. */
  readonly version: Version | null;
  /** Null where there is no link yet, and the form stands open. */
  readonly close: (() => void) | null;
  readonly made: () => void;
}

export function LinkForm({ trials, version, close, made }: Props) {
  const [name, setName] = useState('');
  const [text, setText] = useState(() => settingsText());
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const typed = readSettings(text);
  const other = typed.ok ? settingsWords(typed.settings) : ['something in it cannot be read'];
  const make = async () => {
    if (name.trim() === '') {
      setProblem('Say what the link is for, as “Colleagues, first round”: only you see that.');
      return;
    }
    const read = readSettings(text);
    if (!read.ok) {
      setProblem(read.problem);
      return;
    }
    setBusy(true);
    const refused = await trials.make(name, version?.number ?? null, read.settings);
    setBusy(false);
    setProblem(refused);
    if (refused === null) made();
  };
  return (
    <ShortForm className={classes.form} send={make} {...(close === null ? {} : { close })}>
      <label className={classes.name}>
        What the link is for
        <input
          autoFocus={close !== null}
          maxLength={100}
          value={name}
          placeholder="Colleagues, first round"
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <details className={classes.more}>
        <summary>
          What holds under it <span>({other.length === 0 ? USUAL_WORDS : other.join(', ')})</span>
        </summary>
        <SettingsFields text={text} set={setText} />
      </details>
      {problem !== null && (
        <p role="alert" className={classes.problem}>
          {problem}
        </p>
      )}
      <span className={classes.acts}>
        <button type="submit" disabled={busy} className={classes.make}>
          Make a link for {version === null ? 'the draft' : `version ${version.number}`}
        </button>
        {close !== null && (
          <button type="button" onClick={close}>
            Cancel
          </button>
        )}
      </span>
    </ShortForm>
  );
}
