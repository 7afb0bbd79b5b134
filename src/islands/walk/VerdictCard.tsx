/** The verdict on the route that was walked: passed, or sent back with a remark about the whole or an item. */
import { useState } from 'react';
import { VERDICT_WORDS } from '../../core/document/vocabularies';
import { capital } from '../../core/document/words';
import type { Verdict } from '../../wire/verdicts';
import { YourName } from '../slips/YourName';
import { useLedger } from '../state/ledger';
import type { WalkedRoute } from '../state/route-of-walk';
import { useStudy } from '../state/store';
import type { Session } from '../state/walk-session';
import { grouped, whenText } from '../ui/format';
import classes from './cards.module.css';
import { useVerdict, type Remark } from './use-verdict';

interface Props {
  readonly session: Session;
  readonly found: WalkedRoute | null;
  readonly follow: (number: string) => void;
}

export function VerdictCard({ session, found, follow }: Props) {
  if (found !== null) return <OnRoute session={session} found={found} follow={follow} />;
  if ((session.walk?.steps.length ?? 0) === 0) return null;
  return (
    <>
      <h2>Verdict</h2>
      <div className={classes.card}>
        <p>Once this walk comes to an ending, its route can be passed or sent back here.</p>
      </div>
    </>
  );
}

interface OnRouteProps extends Props {
  readonly found: WalkedRoute;
}

function OnRoute({ session, found, follow }: OnRouteProps) {
  const ledger = useLedger();
  const { by, next, problem, pass, sendBack, takeBack } = useVerdict(found, follow);
  /** The route that somebody says they have read elsewhere. */
  const [read, setRead] = useState<string | null>(null);
  /** A remark that was begun goes with the verdict that was given instead. */
  const [round, setRound] = useState(0);
  const verdict = ledger.byFingerprint.get(found.fingerprint);
  const seen = session.reached >= session.pages.length || read === found.fingerprint;
  const number = grouped(found.number);
  const passed = async () => {
    if (await pass()) setRound(round + 1);
  };
  return (
    <>
      <h2>Verdict on route {number}</h2>
      <div className={classes.card}>
        {verdict === undefined ? (
          <p>Does every question fit this respondent, and is nothing they need missing?</p>
        ) : (
          <GivenVerdict verdict={verdict} reviewer={by.reviewer} takeBack={() => void takeBack()} />
        )}
        {!by.isGiven && (
          <div className={classes.field}>
            <YourName by={by} />
          </div>
        )}
        {problem !== null && (
          <p role="alert" className={classes.problem}>
            {problem}
          </p>
        )}
        {seen ? (
          <button type="button" className={classes.pass} onClick={() => void passed()}>
            Pass route {number}
            {next !== null && `, walk ${grouped(next)}`}
          </button>
        ) : (
          <p className={classes.waiting}>
            It can be passed once it has been seen to its end.{' '}
            <button type="button" className={classes.link} onClick={() => setRead(found.fingerprint)}>
              I have read it in the script
            </button>
          </p>
        )}
        <SendBack key={round} number={number} items={found.items} sendBack={sendBack} />
      </div>
    </>
  );
}

interface GivenProps {
  readonly verdict: Verdict;
  readonly reviewer: string;
  readonly takeBack: () => void;
}

function GivenVerdict({ verdict, reviewer, takeBack }: GivenProps) {
  const reviewing = useStudy((state) => state.reviewing);
  const { mark, word } = VERDICT_WORDS[verdict.verdict];
  return (
    <p>
      <strong>
        {mark} {capital(word)}
      </strong>{' '}
      by {verdict.reviewer}, {whenText(verdict.at)}.{verdict.place !== '' && ` At ${verdict.place}:`}
      {verdict.remark !== '' && ` “${verdict.remark}”`}{' '}
      {(!reviewing || verdict.reviewer === reviewer) && (
        <button type="button" className={classes.link} onClick={takeBack}>
          Take back
        </button>
      )}
    </p>
  );
}

interface SendBackProps {
  readonly number: string;
  /** Keys of the items on the route. */
  readonly items: readonly string[];
  /** Whether it was taken. */
  readonly sendBack: (remark: Remark) => Promise<boolean>;
}

/** A remark stays written until the route is sent back, also while it is hidden. */
function SendBack({ number, items, sendBack }: SendBackProps) {
  const [returning, setReturning] = useState(false);
  const [remark, setRemark] = useState('');
  const [place, setPlace] = useState('');
  if (!returning)
    return (
      <button type="button" className={classes.back} onClick={() => setReturning(true)}>
        Send back with a remark
      </button>
    );
  const send = async () => {
    if (!(await sendBack({ remark, place }))) return;
    setReturning(false);
    setRemark('');
    setPlace('');
  };
  return (
    <>
      <label className={classes.field}>
        Remark
        <textarea
          autoFocus
          rows={3}
          maxLength={2000}
          value={remark}
          onChange={(event) => setRemark(event.target.value)}
        />
      </label>
      <label className={classes.field}>
        About
        <select value={place} onChange={(event) => setPlace(event.target.value)}>
          <option value="">the whole route</option>
          {items.map((key) => (
            <option key={key}>{key}</option>
          ))}
        </select>
      </label>
      <span className={classes.two}>
        <button type="button" className={classes.back} onClick={() => void send()}>
          Send back route {number}
        </button>
        <button type="button" className={classes.link} onClick={() => setReturning(false)}>
          Cancel
        </button>
      </span>
    </>
  );
}
