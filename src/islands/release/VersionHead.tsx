/** What is known of a version: who made it and when, what stood in the way; and what can be done with it. */
import { format } from 'date-fns';
import { useState } from 'react';
import { restoreVersion } from '../../core/editing/restore';
import { gateLineWords } from '../../core/release/gate';
import type { Version } from '../../wire/versions';
import { useStudy, useStudyStore } from '../state/store';
import { wholeVersion } from '../state/versions';
import classes from './release.module.css';

export function VersionHead({ version }: { readonly version: Version }) {
  const { number, frozen, author, at, note, checksum, gate, reason } = version;
  const home = useStudy((state) => state.home);
  return (
    <header className={classes.head}>
      <h1>
        Version {number}, {frozen ? 'frozen' : 'kept'} {format(at, 'd MMMM yyyy, HH:mm')} by {author}
      </h1>
      {note !== '' && <p>{note}</p>}
      {reason !== null && (
        <p className={classes.override}>
          Frozen all the same, with{' '}
          {(gate ?? [])
            .map(({ count, ...line }) => gateLineWords({ ...line, count: BigInt(count) }))
            .join(', ')}
          : “{reason}”
        </p>
      )}
      <p>
        Checksum (SHA-256){' '}
        <code title={checksum} className={classes.checksum}>
          {checksum.slice(0, 12)}…{checksum.slice(-4)}
        </code>
      </p>
      <div className={classes.acts}>
        <a className={classes.open} href={`${home}/versions/${number}/script`}>
          Open version {number}
        </a>
        <Restore version={version} />
      </div>
    </header>
  );
}

function Restore({ version: { number } }: { readonly version: Version }) {
  const store = useStudyStore();
  const api = useStudy((state) => state.api);
  const [told, setTold] = useState<string | null>(null);
  const restore = async () => {
    const reply = await wholeVersion(api, number);
    if (!reply.ok) {
      setTold(reply.problem);
      return;
    }
    const before = store.getState().document;
    const refused = store.getState().commit(restoreVersion(number, reply.body.document));
    setTold(refused ?? (store.getState().document === before ? 'The draft is this version already.' : null));
  };
  return (
    <>
      <button type="button" onClick={() => void restore()}>
        Restore it as the draft
      </button>
      {told !== null && <span role="status">{told}</span>}
    </>
  );
}
