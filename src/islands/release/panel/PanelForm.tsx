/** Making up a panel: what it is for, how many, and what is assumed of them. */
import { useState } from 'react';
import { DAY, usualPanel } from '../../../core/panel/panel-settings';
import type { Version } from '../../../wire/versions';
import { useStudy } from '../../state/store';
import type { Trials } from '../../state/trials';
import { MakeForm } from '../trial/MakeForm';
import { PanelFields } from './PanelFields';
import { panelText, panelWords, readPanel } from './panel-text';
import classes from './panel.module.css';

interface Props {
  readonly trials: Trials;
  /** Null for the draft. */
  readonly version: Version | null;
  readonly close: () => void;
  readonly made: () => void;
}

const MONDAY = 1;

/** The Monday that comes, so that a week of the panel is a row of its clock. */
function nextMonday(now: number): number {
  const weekday = new Date(now).getUTCDay();
  return now + ((7 + MONDAY - weekday) % 7 || 7) * DAY;
}

export function PanelForm({ trials, ...rest }: Props) {
  const given = useStudy((state) => state.document.given);
  const [count, setCount] = useState('300');
  const [file, setFile] = useState<File | null>(null);
  const [text, setText] = useState(() =>
    panelText(usualPanel(nextMonday(Date.now()), 1 + Math.floor(Math.random() * 1_000_000))),
  );
  const read = readPanel(text);
  const known = (given ?? []).flatMap((entry) => (entry.random ? [] : [entry.name]));
  const make = async (name: string, version: number | null) => {
    if (!read.ok) return read.problem;
    const sample =
      file === null ? { count: Number(count.trim().replaceAll(',', '') || NaN) } : { csv: await file.text() };
    return trials.makePanel(name, version, sample, read.settings);
  };
  return (
    <MakeForm
      thing="panel"
      act="Make up a panel"
      example="Dry run"
      make={make}
      intro={
        <p className={classes.note}>
          Made-up people get letters and answer by themselves, through the same doors as real ones, so that
          you see what fielding will look like. Nothing leaves this machine.
        </p>
      }
      {...rest}
    >
      <div className={classes.sample} role="group" aria-label="Sample">
        <label>
          <input
            type="radio"
            name="sample"
            checked={file === null}
            onChange={() => setFile(null)}
            aria-label="A made-up sample"
          />
          A sample of
        </label>
        <input
          size={6}
          inputMode="numeric"
          aria-label="People in the sample"
          value={count}
          onChange={(event) => setCount(event.target.value)}
          onFocus={() => setFile(null)}
        />
        made-up people, or
        <label className={classes.file}>
          {file === null ? 'that of a CSV file …' : `that of ${file.name}`}
          <input
            type="file"
            accept=".csv,text/csv"
            aria-label="Sample as a CSV file"
            onChange={(event) => setFile(event.target.files?.[0] ?? null)}
          />
        </label>
      </div>
      <p className={classes.note}>
        {known.length === 0
          ? 'The first column of a file says who it is.'
          : `Known of each beforehand: ${known.join(', ')}; made up by their assumed shares, or columns of the file beside the first, which says who it is.`}
      </p>
      <details className={classes.more}>
        <summary>
          What is assumed of them{' '}
          <span>({read.ok ? panelWords(read.settings) : 'something in it cannot be read'})</span>
        </summary>
        <PanelFields text={text} set={setText} known={known} hasBegun={false} />
      </details>
    </MakeForm>
  );
}
