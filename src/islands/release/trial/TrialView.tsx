/** Trial: the links under which colleagues and respondents answer, and making one. */
import { useState } from 'react';
import type { Version } from '../../../wire/versions';
import { useTrials } from '../../state/trials';
import { LinkForm } from './LinkForm';
import { LinkSlip } from './LinkSlip';
import classes from './trial.module.css';

/** Names of this machine that no other one knows it by. */
const HERE_ALONE = /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])$/;

export function TrialView({ version }: { readonly version: Version | null }) {
  const trials = useTrials();
  const { list, problem } = trials;
  /** Null until the form was opened once: then the focus comes back to its button. */
  const [making, setMaking] = useState<boolean | null>(null);
  if (list === null) return problem === null ? null : <p role="alert">{problem}</p>;
  const mayMake = version === null || version.frozen;
  const isFirst = list.length === 0;
  return (
    <section aria-label="Trial">
      {isFirst && (
        <p className={classes.teach}>
          A link lets people answer on their own phones and computers. It keeps{' '}
          {version === null ? 'the draft' : `version ${version.number}`} as it is now: what you edit later
          changes nothing for them. Send the draft to colleagues to try it out, and a frozen version to a
          pilot.
        </p>
      )}
      {HERE_ALONE.test(location.hostname) && (
        <p className={classes.here}>
          This address, {location.host}, is known on this machine alone. For other people’s phones start Jolly
          Fork under a name that they can reach: docs/security.md says how.
        </p>
      )}
      {!mayMake ? (
        <p className={classes.teach}>
          Version {version.number} is kept, not frozen. Links are made for a frozen version, or for the draft:
          choose one at the left.
        </p>
      ) : isFirst || making === true ? (
        <LinkForm
          key={version?.number ?? 'draft'}
          {...{ trials, version }}
          close={isFirst ? null : () => setMaking(false)}
          made={() => setMaking(false)}
        />
      ) : (
        <button
          type="button"
          className={classes.make}
          autoFocus={making === false}
          onClick={() => setMaking(true)}
        >
          Make a link for {version === null ? 'the draft' : `version ${version.number}`} …
        </button>
      )}
      {problem !== null && <p role="alert">{problem}</p>}
      <ul className={classes.slips}>
        {list.map((trial) => (
          <LinkSlip key={trial.token} trial={trial} trials={trials} />
        ))}
      </ul>
    </section>
  );
}
