/** Gives the verdict on a route that was walked, or takes it back. */
import { useState } from 'react';
import type { VerdictKind } from '../../core/document/vocabularies';
import { NothingSchema } from '../../wire/common';
import { VerdictSchema } from '../../wire/verdicts';
import { useNextToWalk } from '../state/ledger';
import type { useReviewer } from '../state/reviewer';
import type { WalkedRoute } from '../state/route-of-walk';
import { useStudy } from '../state/store';
import { call } from '../ui/api';

type Reviewer = ReturnType<typeof useReviewer>;

/** What is said of a route that is sent back. `place`: key of an item, empty for the whole route. */
export interface Remark {
  readonly remark: string;
  readonly place: string;
}

/** `follow` is called with the number of the next route to be walked, once one is passed. */
export function useVerdict(found: WalkedRoute, by: Reviewer, follow: (number: string) => void) {
  const api = useStudy((state) => state.api);
  const verdicts = useStudy((state) => state.verdicts);
  const setVerdicts = useStudy((state) => state.setVerdicts);
  const next = useNextToWalk(found.number);
  const [problem, setProblem] = useState<string | null>(null);
  const others = verdicts.filter(({ route }) => route !== found.fingerprint);

  /** Whether it was taken; else `problem` says why not. */
  const give = async (kind: VerdictKind, { remark, place }: Remark): Promise<boolean> => {
    by.remember();
    const reply = await call(VerdictSchema, 'POST', `${api}/verdicts`, {
      route: found.fingerprint,
      marks: found.marks,
      items: found.items,
      walked: found.walked,
      verdict: kind,
      remark,
      place,
      reviewer: by.reviewer.trim(),
    });
    setProblem(reply.ok ? null : reply.problem);
    if (reply.ok) setVerdicts([...others, reply.body]);
    return reply.ok;
  };
  /** Whether somebody's name is there to judge by. */
  const isNamed = (): boolean => {
    const named = by.reviewer.trim() !== '';
    if (!named) setProblem('Give your name first: a verdict says whose it is.');
    return named;
  };
  const pass = async (): Promise<boolean> => {
    if (!isNamed() || !(await give('passed', { remark: '', place: '' }))) return false;
    if (next !== null) follow(next);
    return true;
  };
  /** Whether it was taken, as with `pass`. */
  const sendBack = async ({ remark, place }: Remark): Promise<boolean> => {
    if (!isNamed()) return false;
    if (remark.trim() === '') {
      setProblem('Write a remark first: what should be mended on this route?');
      return false;
    }
    // Begun on another route, it may be about an item that is not on this one.
    return give('sent_back', { remark: remark.trim(), place: found.items.includes(place) ? place : '' });
  };
  const takeBack = async () => {
    const reply = await call(NothingSchema, 'DELETE', `${api}/verdicts`, { route: found.fingerprint });
    if (reply.ok) setVerdicts(others);
    else setProblem(reply.problem);
  };
  return { next, problem, pass, sendBack, takeBack };
}
