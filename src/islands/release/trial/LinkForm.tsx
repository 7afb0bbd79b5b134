/** Making a link: what it is for, of which version, and what holds under it. */
import { useState } from 'react';
import type { Version } from '../../../wire/versions';
import type { Trials } from '../../state/trials';
import { MakeForm } from './MakeForm';
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

export function LinkForm({ trials, ...rest }: Props) {
  const [text, setText] = useState(() => settingsText());
  const read = readSettings(text);
  const other = read.ok ? settingsWords(read.settings) : ['something in it cannot be read'];
  return (
    <MakeForm
      thing="link"
      act="Make a link"
      example="Colleagues, first round"
      make={async (name, version) => (read.ok ? trials.make(name, version, read.settings) : read.problem)}
      {...rest}
    >
      <details className={classes.more}>
        <summary>
          What holds under it <span>({other.length === 0 ? USUAL_WORDS : other.join(', ')})</span>
        </summary>
        <SettingsFields text={text} set={setText} />
      </details>
    </MakeForm>
  );
}
