/** People who are each sent a link of their own: added from a CSV file, and saved with their links. */
import { useState } from 'react';
import { fileStem } from '../../../core/document/names';
import { csvLines } from '../../../core/exchange/csv';
import { PeopleListed, type Trial } from '../../../wire/trials';
import { useStudy } from '../../state/store';
import type { Trials } from '../../state/trials';
import { call } from '../../ui/api';
import { FileButton } from '../../ui/FileField';
import { plural } from '../../ui/format';
import { saveBlob } from '../../ui/save-blob';
import classes from './trial.module.css';

interface Props {
  readonly trial: Trial;
  readonly trials: Trials;
}

export function PeopleLine({ trial, trials }: Props) {
  const api = useStudy((state) => state.api);
  const [told, setTold] = useState<string | null>(null);
  const take = async (file: File) => {
    const reply = await trials.addPeople(trial.token, await file.text());
    setTold(
      reply.ok
        ? `${plural(reply.body.added, 'person', 'people')} added.${reply.body.unused.length > 0 ? ` Not used: ${reply.body.unused.join(', ')}.` : ''}`
        : reply.problem,
    );
  };
  const save = async () => {
    const reply = await call(PeopleListed, 'GET', `${api}/trials/${trial.token}/people`);
    if (!reply.ok) {
      setTold(reply.problem);
      return;
    }
    // Under which name the server is known is known here.
    const rows = reply.body.map(({ name, key }) => [name, `${location.origin}/answer/${trial.token}/${key}`]);
    const text = `\uFEFF${csvLines([['person', 'link'], ...rows])}`;
    saveBlob(new Blob([text], { type: 'text/csv' }), `${fileStem(trial.name)}-links.csv`);
  };
  return (
    <div className={classes.people}>
      <FileButton label={`People of ${trial.name}, as CSV`} accept=".csv,text/csv" choose={take}>
        Add people from a CSV file …
      </FileButton>
      {trial.people > 0 && (
        <button type="button" onClick={() => void save()}>
          Save their links, .csv
        </button>
      )}
      <small>
        First column: who it is; then a column for each value known beforehand, under its name.{' '}
        <b role="status">{told}</b>
      </small>
    </div>
  );
}
