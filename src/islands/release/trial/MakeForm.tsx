/** A link of either kind is made: what it is for, and of which version; between them stands what is said of that kind. */
import { useState, type ReactNode } from 'react';
import type { Version } from '../../../wire/versions';
import { FormActs } from '../../ui/FormActs';
import { Problem } from '../../ui/Problem';
import { ShortForm } from '../../ui/ShortForm';
import classes from './trial.module.css';

interface Props {
  /** “link” or “panel”, and what the button says that it does. */
  readonly thing: string;
  readonly act: string;
  /** What somebody might call it. */
  readonly example: string;
  /** Null for the draft. */
  readonly version: Version | null;
  /** Gives why it was refused; null where it is made. */
  readonly make: (name: string, version: number | null) => Promise<string | null>;
  readonly made: () => void;
  /** Null where there is none yet, and the form stands open. */
  readonly close: (() => void) | null;
  /** What stands above the name. */
  readonly intro?: ReactNode;
  readonly children: ReactNode;
}

export function MakeForm(props: Props) {
  const { thing, act, example, version, make, made, close, intro, children } = props;
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const send = async () => {
    if (name.trim() === '') {
      setProblem(`Say what the ${thing} is for, as “${example}”: only you see that.`);
      return;
    }
    setBusy(true);
    const refused = await make(name, version?.number ?? null);
    setBusy(false);
    setProblem(refused);
    if (refused === null) made();
  };
  return (
    <ShortForm className={classes.form} send={send} {...(close === null ? {} : { close })}>
      {intro}
      <label className={classes.name}>
        What the {thing} is for
        <input
          autoFocus={close !== null}
          maxLength={100}
          value={name}
          placeholder={example}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      {children}
      <Problem of={problem} className={classes.problem} />
      <FormActs className={classes.acts} main={classes.make} busy={busy} cancel={close}>
        {act} for {version === null ? 'the draft' : `version ${version.number}`}
      </FormActs>
    </ShortForm>
  );
}
