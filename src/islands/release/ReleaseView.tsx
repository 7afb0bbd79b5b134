/** Release: versions down the left, what is other or who answers in the middle, what stands in the way of freezing at the right. */
import { useGate } from '../state/gate';
import { useStudy } from '../state/store';
import { Leaves } from '../ui/Leaves';
import { CompareView } from './CompareView';
import { FilesCard } from './FilesCard';
import { GateCard } from './GateCard';
import classes from './release.module.css';
import { heldAgainst, type Leaf } from './shown';
import { useReleaseShown } from './use-release-shown';
import { MonitorView } from './monitor/MonitorView';
import { TrialView } from './trial/TrialView';
import { VersionHead } from './VersionHead';
import { VersionList } from './VersionList';

export function ReleaseView() {
  const versions = useStudy((state) => state.versions);
  const [shown, show] = useReleaseShown();
  const gate = useGate();
  if (versions === null) return <div className={classes.columns} aria-busy="true" />;
  const version = versions.find(({ number }) => number === shown.of) ?? null;
  const of = version?.number ?? null;
  if (shown.watched !== null)
    return (
      <MonitorView
        key={`${shown.watched.link} ${shown.watched.asked}`}
        watched={shown.watched}
        watch={(asked) => show({ ...shown, watched: { link: shown.watched?.link ?? '', asked } })}
        back={() => show({ ...shown, leaf: 'trial', watched: null })}
      />
    );
  const against = heldAgainst(versions, { ...shown, of });
  return (
    <div className={classes.columns}>
      <VersionList versions={versions} of={of} show={(next) => show({ ...shown, of: next, against: null })} />
      <div className={classes.sheet}>
        {version !== null && <VersionHead version={version} />}
        <div className={classes.leaves}>
          <Leaves
            label="Leaves of the release"
            words={LEAF_WORDS}
            leaf={shown.leaf}
            turnTo={(leaf) => show({ ...shown, of, leaf })}
          />
        </div>
        {shown.leaf === 'trial' ? (
          <TrialView version={version} watch={(link) => show({ ...shown, watched: { link, asked: 0 } })} />
        ) : against === null ? (
          <NothingBefore isDraft={of === null} />
        ) : (
          <CompareView
            of={of}
            against={against}
            versions={versions}
            hold={(next) => show({ ...shown, of, against: next })}
          />
        )}
      </div>
      <aside className={classes.side} aria-label="Gate and files">
        <GateCard gate={gate} next={(versions[0]?.number ?? 0) + 1} />
        <FilesCard version={version} />
      </aside>
    </div>
  );
}

const LEAF_WORDS: Readonly<Record<Leaf, string>> = { compare: 'What is other', trial: 'Trial' };

function NothingBefore({ isDraft }: { readonly isDraft: boolean }) {
  return (
    <div className={classes.nothing}>
      <h1>{isDraft ? 'No version has been kept yet' : 'Nothing came before this version'}</h1>
      {isDraft ? (
        <>
          <p>
            A version is the questionnaire as it stands at one moment, with a number, a date, your name and a
            note. Keep one before you send it to the board, or before a change you may want to go back on.
          </p>
          <p>
            Freeze one for fielding once nothing at the right stands in the way. A version never changes; the
            draft goes on, and is held against it here: routes gained and lost, who is asked what, and every
            word that is other.
          </p>
        </>
      ) : (
        <p>Choose the draft at the left to see what is other in it, or a later version.</p>
      )}
    </div>
  );
}
