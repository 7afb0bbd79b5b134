/** A case in hand: every change is on the shelf before the page shows it. */
import { useMemo, useRef, useState } from 'react';
import { caseAfter, inputsOf, sessionOfCase, type KeptCase } from '../core/responding/kept-case';
import { followed, sessionOf, type Session, type SessionState } from '../core/responding/session';
import type { Plan } from '../core/routing/plan';
import type { Shelf } from './shelf';

export interface CaseInHand {
  readonly kept: KeptCase;
  readonly session: Session;
  readonly change: (kept: KeptCase) => void;
}

/** `closed`: called once the case has come to its ending. */
export function useCase(plan: Plan, shelf: Shelf, opened: KeptCase, closed: () => void): CaseInHand {
  const [now, setNow] = useState<{ kept: KeptCase; session: SessionState }>(() => ({
    kept: opened,
    session: sessionOfCase(opened),
  }));
  const latest = useRef(now);
  const put = (next: typeof now) => {
    const closes = next.kept.closed !== null && latest.current.kept.closed === null;
    latest.current = next;
    shelf.put(next.kept);
    setNow(next);
    if (closes) closed();
  };
  const { kept, session } = now;
  const { answers, timedOut, given, seed, full } = kept;
  const ways = useMemo(
    () => followed(plan, { answers, inputs: inputsOf({ timedOut, given, seed, full }) }),
    [plan, answers, timedOut, given, seed, full],
  );
  return {
    kept,
    session: sessionOf(plan, session, ways, (action) =>
      put(caseAfter(plan, latest.current.kept, latest.current.session, action, Date.now())),
    ),
    change: (changed) => put({ kept: changed, session: latest.current.session }),
  };
}
