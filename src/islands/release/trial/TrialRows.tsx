/** What can be done with the coded rows of a link beside saving them: tables, an audit, and their shares as assumptions. */
import { useState } from 'react';
import * as v from 'valibot';
import { fileStem } from '../../../core/document/names';
import { seenMap, shareTakers, takeShares } from '../../../core/forecast/seen/seen-shares';
import { DatasetSchema } from '../../../wire/datasets';
import { SeenSharesSchema, type Trial } from '../../../wire/trials';
import { useData } from '../../state/data';
import { useGoTo } from '../../state/going';
import { useReviewer } from '../../state/reviewer';
import { useStudy, useStudyStore } from '../../state/store';
import { keepVersion } from '../../state/versions';
import { call } from '../../ui/api';
import { plural } from '../../ui/format';
import { FormActs } from '../../ui/FormActs';
import { Problem } from '../../ui/Problem';
import { submitting } from '../../ui/submitting';
import classes from './trial.module.css';

export function TrialRows({ trial }: { readonly trial: Trial }) {
  const { token, name } = trial;
  const api = useStudy((state) => state.api);
  const document = useStudy((state) => state.document);
  const { audit } = useData();
  const goTo = useGoTo();
  const [problem, setProblem] = useState<string | null>(null);
  const [taking, setTaking] = useState(false);
  const openTables = async () => {
    const reply = await call(v.array(DatasetSchema), 'POST', `${api}/trials/${token}/rows`, {});
    setProblem(reply.ok ? null : reply.problem);
    const [newest] = reply.ok ? reply.body.toSorted((a, b) => b.at - a.at) : [];
    if (newest !== undefined) goTo('codes', `?part=tables&rows=${encodeURIComponent(newest.id)}`);
  };
  const openAudit = async () => {
    try {
      const response = await fetch(`${api}/trials/${token}/data?as=rows`);
      if (!response.ok) throw new Error();
      const file = new File([await response.blob()], `${fileStem(name)}.csv`, { type: 'text/csv' });
      void audit.getState().open(document, api, file);
      goTo('codes', '?part=audit');
    } catch {
      setProblem('The server does not answer: try again once it does.');
    }
  };
  return (
    <>
      <span className={classes.acts}>
        <button type="button" onClick={() => void openTables()}>
          Keep its rows, and open the tables
        </button>
        <button type="button" onClick={() => void openAudit()}>
          Open in Audit
        </button>
        <button type="button" aria-expanded={taking} onClick={() => setTaking(!taking)}>
          Take its shares as assumptions …
        </button>
      </span>
      <Problem of={problem} className={classes.problem} />
      {taking && <TakeShares trial={trial} close={() => setTaking(false)} />}
    </>
  );
}

/** Under so many askings a share says little. */
const LEAST = 30;

function TakeShares({ trial, close }: { readonly trial: Trial; readonly close: () => void }) {
  const store = useStudyStore();
  const api = useStudy((state) => state.api);
  const by = useReviewer();
  const [least, setLeast] = useState(String(LEAST));
  const [told, setTold] = useState<{ readonly problem: string } | { readonly done: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const take = async () => {
    const fewest = Number(least);
    if (!Number.isInteger(fewest) || fewest < 1) return 'Say the fewest as a whole number from 1.';
    if (by.reviewer.trim() === '') return 'Say who you are: the version that is kept is signed.';
    const reply = await call(SeenSharesSchema, 'GET', `${api}/trials/${trial.token}/shares`);
    if (!reply.ok) return reply.problem;
    const { document, commit } = store.getState();
    const seen = seenMap(reply.body.shares);
    const takers = shareTakers(document, seen, fewest);
    if (takers.length === 0)
      return `Nothing was taken: no question of the draft was asked ${fewest} times under this link.`;
    const of = `“${trial.name}”`;
    commit(takeShares(seen, takers, of));
    by.remember();
    const from = trial.version === null ? 'a draft' : `version ${trial.version}`;
    const note = `Assumes the shares of ${of}, ${plural(reply.body.responses, 'response')} to ${from}`;
    const refused = await keepVersion(store, { note, author: by.reviewer.trim(), freezing: null });
    if (refused !== null) return refused;
    const number = store.getState().versions?.[0]?.number;
    setTold({
      done: `Taken for ${plural(takers.length, 'question')}, and kept as version ${number}: shares of the sample, made-up respondents and all that rests on them follow. Undo takes it back.`,
    });
    return null;
  };
  if (told !== null && 'done' in told)
    return (
      <p role="status" className={classes.done}>
        {told.done}{' '}
        <button type="button" onClick={close}>
          Close
        </button>
      </p>
    );
  return (
    <form
      className={classes.take}
      onSubmit={submitting(() => {
        setBusy(true);
        void take().then((problem) => {
          setBusy(false);
          if (problem !== null) setTold({ problem });
        });
      })}
    >
      <p>
        What was answered under this link is assumed of everybody from now on: the shares of answers and of
        blanks among those who were asked. Pages that somebody left are not counted. The draft with them is
        kept as a version.
      </p>
      <label>
        Only questions that were asked at least{' '}
        <input
          size={5}
          inputMode="numeric"
          value={least}
          onChange={(event) => setLeast(event.target.value)}
        />{' '}
        times
      </label>
      {!by.isGiven && (
        <label>
          Kept by{' '}
          <input
            size={16}
            maxLength={100}
            value={by.reviewer}
            onChange={(event) => by.setReviewer(event.target.value)}
          />
        </label>
      )}
      {told !== null && (
        <p role="alert" className={classes.problem}>
          {told.problem}
        </p>
      )}
      <FormActs className={classes.acts} busy={busy} main={classes.make} cancel={close}>
        Take the shares
      </FormActs>
    </form>
  );
}
