/** The verdict on the route that was walked: passed, or sent back with a remark about the whole or an item. */
import { useState } from 'react';
import { VERDICT_WORDS, type VerdictKind } from '../../core/document/vocabularies';
import { capital } from '../../core/document/words';
import { NothingSchema } from '../../wire/common';
import { VerdictSchema } from '../../wire/verdicts';
import { call } from '../ui/api';
import { grouped, whenText } from '../ui/format';
import { useLedger, useNextToWalk } from '../state/ledger';
import { useReviewer } from '../state/reviewer';
import { useStudy } from '../state/store';
import type { WalkedRoute } from '../state/route-of-walk';
import type { Session } from '../state/walk-session';
import classes from './cards.module.css';

interface Props {
  readonly session: Session;
  readonly found: WalkedRoute | null;
  readonly follow: (number: string) => void;
}

export function VerdictCard({ session, found, follow }: Props) {
  const api = useStudy((state) => state.api);
  const reviewing = useStudy((state) => state.reviewing);
  const verdicts = useStudy((state) => state.verdicts);
  const setVerdicts = useStudy((state) => state.setVerdicts);
  const ledger = useLedger();
  const { reviewer, isGiven, setReviewer, remember } = useReviewer();
  const [remark, setRemark] = useState('');
  const [place, setPlace] = useState('');
  const [returning, setReturning] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const next = useNextToWalk(found?.number ?? null);
  /** The route that somebody says they have read elsewhere. */
  const [read, setRead] = useState<string | null>(null);

  if (found === null) {
    const waiting = (session.walk?.steps.length ?? 0) > 0;
    return waiting ? (
      <>
        <h2>Verdict</h2>
        <div className={classes.card}>
          <p>Once this walk comes to an ending, its route can be passed or sent back here.</p>
        </div>
      </>
    ) : null;
  }
  const verdict = ledger.byFingerprint.get(found.fingerprint);
  const seen = session.reached >= session.pages.length || read === found.fingerprint;

  const give = async (kind: VerdictKind): Promise<void> => {
    if (reviewer.trim() === '') {
      setProblem('Give your name first: a verdict says whose it is.');
      return;
    }
    if (kind === 'sent_back' && remark.trim() === '') {
      setProblem('Write a remark first: what should be mended on this route?');
      return;
    }
    remember();
    const reply = await call(VerdictSchema, 'POST', `${api}/verdicts`, {
      route: found.fingerprint,
      marks: found.marks,
      items: found.items,
      walked: found.walked,
      verdict: kind,
      remark: kind === 'passed' ? '' : remark.trim(),
      place: kind === 'passed' ? '' : place,
      reviewer: reviewer.trim(),
    });
    if (!reply.ok) {
      setProblem(reply.problem);
      return;
    }
    setProblem(null);
    setReturning(false);
    setRemark('');
    setPlace('');
    setVerdicts([...verdicts.filter(({ route }) => route !== found.fingerprint), reply.body]);
    if (kind === 'passed' && next !== null) follow(next);
  };
  const takeBack = async () => {
    const reply = await call(NothingSchema, 'DELETE', `${api}/verdicts`, {
      route: found.fingerprint,
    });
    if (reply.ok) setVerdicts(verdicts.filter(({ route }) => route !== found.fingerprint));
    else setProblem(reply.problem);
  };
  const number = grouped(found.number);
  return (
    <>
      <h2>Verdict on route {number}</h2>
      <div className={classes.card}>
        {verdict === undefined ? (
          <p>Does every question fit this respondent, and is nothing they need missing?</p>
        ) : (
          <p>
            <strong>
              {VERDICT_WORDS[verdict.verdict].mark} {capital(VERDICT_WORDS[verdict.verdict].word)}
            </strong>{' '}
            by {verdict.reviewer}, {whenText(verdict.at)}.{verdict.place !== '' && ` At ${verdict.place}:`}
            {verdict.remark !== '' && ` “${verdict.remark}”`}{' '}
            {(!reviewing || verdict.reviewer === reviewer) && (
              <button type="button" className={classes.link} onClick={() => void takeBack()}>
                Take back
              </button>
            )}
          </p>
        )}
        {!isGiven && (
          <label className={classes.field}>
            Your name
            <input value={reviewer} maxLength={100} onChange={(event) => setReviewer(event.target.value)} />
          </label>
        )}
        {problem !== null && (
          <p role="alert" className={classes.problem}>
            {problem}
          </p>
        )}
        {seen ? (
          <button type="button" className={classes.pass} onClick={() => void give('passed')}>
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
        {returning ? (
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
                {found.items.map((key) => (
                  <option key={key}>{key}</option>
                ))}
              </select>
            </label>
            <span className={classes.two}>
              <button type="button" className={classes.back} onClick={() => void give('sent_back')}>
                Send back route {number}
              </button>
              <button type="button" className={classes.link} onClick={() => setReturning(false)}>
                Cancel
              </button>
            </span>
          </>
        ) : (
          <button type="button" className={classes.back} onClick={() => setReturning(true)}>
            Send back with a remark
          </button>
        )}
      </div>
    </>
  );
}
