/** One snag: what is wrong, somebody who meets it, mends in one press, and setting it aside. */
import { YourName } from './YourName';
import { useId, useState } from 'react';
import { changeOf } from '../../core/editing/change';
import { snagKey, type Snag } from '../../core/snags';
import { asSentence } from '../../core/wording/sentence';
import { AsideSchema, type Aside } from '../../wire/asides';
import { NothingSchema } from '../../wire/common';
import { call } from '../ui/api';
import { whenText } from '../ui/format';
import { useGoTo } from '../state/going';
import { useReviewer } from '../state/reviewer';
import { ShortForm } from '../ui/ShortForm';
import { FormActs } from '../ui/FormActs';
import { Problem } from '../ui/Problem';
import classes from './snags.module.css';
import { useStudy } from '../state/store';

export const SEVERITY_WORDS = { error: 'Error', warning: 'Warning', note: 'Note' } as const;

interface Props {
  readonly snag: Snag;
  /** Where it is set aside. */
  readonly aside?: Aside;
  /** It has only just come up: setting it aside can wait. */
  readonly fresh?: boolean;
  /** What stands before its words: the place, as a door where the list is not already at it. */
  readonly heading: React.ReactNode;
  /** Told when somebody is walked, so that what covers the view can go. */
  readonly left?: () => void;
}

export function SnagEntry({ snag, aside, fresh = false, heading, left }: Props) {
  const commit = useStudy((state) => state.commit);
  const setToWalk = useStudy((state) => state.setToWalk);
  const goTo = useGoTo();
  const [setting, setSetting] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const { witness, mends = [], at } = snag;
  return (
    <div className={classes.snag} data-severity={snag.severity}>
      {heading}
      <p>{asSentence(snag.message)}</p>
      {aside === undefined ? (
        <div className={classes.acts}>
          {mends.map(({ label, patches }) => (
            <button
              key={label}
              type="button"
              className={classes.mend}
              onClick={() => setProblem(commit(changeOf(label, patches)))}
            >
              {label}
            </button>
          ))}
          {witness !== undefined && (
            <button
              type="button"
              onClick={() => {
                setToWalk({ witness, item: at.item ?? null });
                goTo('walk');
                left?.();
              }}
            >
              Walk one
            </button>
          )}
          {!setting && !fresh && (
            <button type="button" className={classes.quiet} onClick={() => setSetting(true)}>
              Set aside …
            </button>
          )}
        </div>
      ) : (
        <SetAside aside={aside} />
      )}
      <Problem of={problem} />
      {setting && aside === undefined && <Reason snag={snag} done={() => setSetting(false)} />}
    </div>
  );
}

/** Why a snag is set aside, and whose judgement that is. */
function Reason({ snag, done }: { readonly snag: Snag; readonly done: () => void }) {
  const id = useStudy((state) => state.id);
  const asides = useStudy((state) => state.asides);
  const setAsides = useStudy((state) => state.setAsides);
  const by = useReviewer();
  const { reviewer, remember } = by;
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const form = useId();
  const keep = async () => {
    if (reason.trim() === '' || reviewer.trim() === '') {
      setProblem('Say why it may stay, and who says so.');
      return;
    }
    const key = snagKey(snag);
    remember();
    const reply = await call(AsideSchema, 'POST', `/api/studies/${id}/asides`, {
      snag: key,
      reason: reason.trim(),
      reviewer: reviewer.trim(),
    });
    if (!reply.ok) {
      setProblem(reply.problem);
      return;
    }
    setAsides([...asides.filter((other) => other.snag !== key), reply.body]);
    done();
  };
  return (
    <ShortForm className={classes.reason} send={keep} close={done}>
      <label htmlFor={`${form}-why`}>Why it may stay</label>
      <input
        id={`${form}-why`}
        autoFocus
        maxLength={500}
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      <YourName by={by} />
      <Problem of={problem} />
      <FormActs className={classes.acts} quiet={classes.quiet} cancel={done}>
        Set aside
      </FormActs>
    </ShortForm>
  );
}

function SetAside({ aside }: { readonly aside: Aside }) {
  const id = useStudy((state) => state.id);
  const asides = useStudy((state) => state.asides);
  const setAsides = useStudy((state) => state.setAsides);
  const [problem, setProblem] = useState<string | null>(null);
  const back = async () => {
    const reply = await call(NothingSchema, 'DELETE', `/api/studies/${id}/asides`, { snag: aside.snag });
    if (reply.ok) setAsides(asides.filter(({ snag }) => snag !== aside.snag));
    else setProblem(reply.problem);
  };
  return (
    <>
      <p className={classes.why}>
        “{aside.reason}” {aside.reviewer}, {whenText(aside.at)}
      </p>
      <div className={classes.acts}>
        <button type="button" onClick={() => void back()}>
          Bring back
        </button>
      </div>
      <Problem of={problem} />
    </>
  );
}
