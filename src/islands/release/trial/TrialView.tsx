/** Trial: the links under which colleagues and respondents answer, and making one. */
import { useState } from 'react';
import type { Version } from '../../../wire/versions';
import { usePanels } from '../../state/panels';
import { useTrials } from '../../state/trials';
import { PanelForm } from '../panel/PanelForm';
import { LinkForm } from './LinkForm';
import { LinkSlip } from './LinkSlip';
import { Problem } from '../../ui/Problem';
import classes from './trial.module.css';

/** Names of this machine that no other one knows it by. */
const HERE_ALONE = /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])$/;

interface Props {
  readonly version: Version | null;
  /** Opens the monitor of a link, by its token. */
  readonly watch: (link: string) => void;
}

export function TrialView({ version, watch }: Props) {
  const trials = useTrials();
  const { list, problem } = trials;
  const panelOf = usePanels(list?.some(({ isPanel }) => isPanel) ?? false);
  /** The form that is open. */
  const [making, setMaking] = useState<'link' | 'panel' | null>(null);
  /** The form that was open before: the focus comes back to its button. */
  const [last, setLast] = useState<'link' | 'panel' | null>(null);
  const close = () => {
    setLast(making);
    setMaking(null);
  };
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
      ) : making === 'panel' ? (
        <PanelForm key={version?.number ?? 'draft'} {...{ trials, version }} close={close} made={close} />
      ) : isFirst || making === 'link' ? (
        <LinkForm
          key={version?.number ?? 'draft'}
          {...{ trials, version }}
          close={isFirst ? null : close}
          made={close}
        />
      ) : (
        <span className={classes.acts}>
          <button
            type="button"
            className={classes.make}
            autoFocus={last === 'link'}
            onClick={() => setMaking('link')}
          >
            Make a link for {version === null ? 'the draft' : `version ${version.number}`} …
          </button>
          <button type="button" autoFocus={last === 'panel'} onClick={() => setMaking('panel')}>
            Make up a panel …
          </button>
        </span>
      )}
      {isFirst && mayMake && making !== 'panel' && (
        <span className={classes.acts}>
          Or see first what fielding will look like, with people who are made up:
          <button type="button" onClick={() => setMaking('panel')}>
            Make up a panel …
          </button>
        </span>
      )}
      <Problem of={problem} />
      <ul className={classes.slips}>
        {list.map((trial) => (
          <LinkSlip key={trial.token} {...{ trial, trials, panelOf, watch }} />
        ))}
      </ul>
    </section>
  );
}
