/** The verdict on the route that was walked: passed, or sent back with a remark about the whole or an item. */
import { useState } from 'react';
import { VERDICT_WORDS } from '../../core/document/vocabularies';
import { capital } from '../../core/document/words';
import type { Verdict } from '../../wire/verdicts';
import { YourName } from '../slips/YourName';
import { useLedger } from '../state/ledger';
import { useReviewer } from '../state/reviewer';
import type { WalkedRoute } from '../state/route-of-walk';
import { useStudy } from '../state/store';
import { onVersion } from '../state/versions';
import type { Session } from '../../core/responding/session';
import { grouped, whenText } from '../ui/format';
import { Problem } from '../ui/Problem';
import classes from './cards.module.css';
import { useVerdict, type Remark } from './use-verdict';

/** What is being written of a route; `open`: whether it is in sight. */
interface RemarkDraft extends Remark {
  readonly open: boolean;
}

interface Props {
  readonly session: Session;
  readonly found: WalkedRoute | null;
  readonly follow: (number: string) => void;
}

const NOTHING_WRITTEN: RemarkDraft = { open: false, remark: '', place: '' };

/** A name and a remark that were begun outlive the moments in which the walk is on no route that is known. */
export function VerdictCard({ session, found, follow }: Props) {
  const by = useReviewer();
  const [draft, setDraft] = useState(NOTHING_WRITTEN);
  /** The route that somebody says they have read elsewhere. */
  const [read, setRead] = useState<string | null>(null);
  if (found !== null) return <OnRoute {...{ session, found, follow, by, draft, setDraft, read, setRead }} />;
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
  readonly by: ReturnType<typeof useReviewer>;
  readonly draft: RemarkDraft;
  readonly setDraft: (draft: RemarkDraft) => void;
  readonly read: string | null;
  readonly setRead: (fingerprint: string) => void;
}

function OnRoute({ session, found, follow, by, draft, setDraft, read, setRead }: OnRouteProps) {
  const ledger = useLedger();
  const isVersion = useStudy((state) => state.version !== null);
  const { next, problem, pass, sendBack, takeBack } = useVerdict(found, by, follow);
  const verdict = ledger.byFingerprint.get(found.fingerprint);
  const seen = session.reached >= session.pages.length || read === found.fingerprint;
  const number = grouped(found.number);
  const passed = async () => {
    // A remark that was begun goes with the verdict that was given instead.
    if (await pass()) setDraft(NOTHING_WRITTEN);
  };
  return (
    <>
      <h2>Verdict on route {number}</h2>
      <div className={classes.card}>
        {isVersion && verdict === undefined ? (
          <p>Nobody has judged a route that shows just this. Verdicts are given on the draft.</p>
        ) : verdict === undefined ? (
          <p>Does every question fit this respondent, and is nothing they need missing?</p>
        ) : (
          <GivenVerdict verdict={verdict} reviewer={by.reviewer} takeBack={() => void takeBack()} />
        )}
        {!isVersion && !by.isGiven && (
          <div className={classes.field}>
            <YourName by={by} />
          </div>
        )}
        <Problem of={problem} className={classes.problem} />
        {isVersion ? null : seen ? (
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
        {!isVersion && <SendBack number={number} items={found.items} {...{ sendBack, draft, setDraft }} />}
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
  const isVersion = useStudy((state) => state.version !== null);
  const versions = useStudy((state) => state.versions);
  const { mark, word } = VERDICT_WORDS[verdict.verdict];
  return (
    <p>
      <strong>
        {mark} {capital(word)}
      </strong>{' '}
      by {verdict.reviewer}, {whenText(verdict.at)}
      {onVersion(versions, verdict.revision)}.{verdict.place !== '' && ` At ${verdict.place}:`}
      {verdict.remark !== '' && ` “${verdict.remark}”`}{' '}
      {!isVersion && (!reviewing || verdict.reviewer === reviewer) && (
        <button type="button" className={classes.link} onClick={takeBack}>
          Take back
        </button>
      )}
    </p>
  );
}

interface SendBackProps extends Pick<OnRouteProps, 'draft' | 'setDraft'> {
  readonly number: string;
  /** Keys of the items on the route. */
  readonly items: readonly string[];
  /** Whether it was taken. */
  readonly sendBack: (remark: Remark) => Promise<boolean>;
}

/** A remark stays written until the route is sent back, also while it is hidden. */
function SendBack({ number, items, sendBack, draft, setDraft }: SendBackProps) {
  const { remark, place } = draft;
  if (!draft.open)
    return (
      <button type="button" className={classes.back} onClick={() => setDraft({ ...draft, open: true })}>
        Send back with a remark
      </button>
    );
  const send = async () => {
    if (await sendBack({ remark, place })) setDraft(NOTHING_WRITTEN);
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
          onChange={(event) => setDraft({ ...draft, remark: event.target.value })}
        />
      </label>
      <label className={classes.field}>
        About
        <select
          value={items.includes(place) ? place : ''}
          onChange={(event) => setDraft({ ...draft, place: event.target.value })}
        >
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
        <button type="button" className={classes.link} onClick={() => setDraft({ ...draft, open: false })}>
          Cancel
        </button>
      </span>
    </>
  );
}
