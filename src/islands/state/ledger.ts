/** The verdicts against the routes as they are now: which stand, on which number, and which an edit re-opened. */
import { useMemo, useState } from 'react';
import type { Verdict } from '../../wire/verdicts';
import { useAsked } from '../ui/use-asked';
import { useAnalysisClient } from './analysis';
import { useStudy } from './store';

export interface Ledger {
  /** Standing verdicts by route number. */
  readonly byNumber: ReadonlyMap<string, Verdict>;
  readonly byFingerprint: ReadonlyMap<string, Verdict>;
  readonly passed: number;
  readonly sentBack: number;
  /** Verdicts on routes that no longer show the same. */
  readonly changed: readonly Verdict[];
  /** Routes that a route with such a verdict became, by number, with what is different. */
  readonly reopened: ReadonlyMap<string, Reopened>;
}

export interface Reopened {
  readonly verdict: Verdict;
  readonly changes: readonly string[];
}

export function useLedger(): Ledger {
  const verdicts = useStudy((state) => state.verdicts);
  const standing = useStudy((state) => state.standing);
  const became = useStudy((state) => state.became);
  return useMemo(() => {
    const byNumber = new Map<string, Verdict>();
    const changed: Verdict[] = [];
    const reopened = new Map<string, Reopened>();
    for (const verdict of verdicts) {
      const number = standing[verdict.route];
      if (number === null) changed.push(verdict);
      else if (number !== undefined) byNumber.set(number, verdict);
    }
    for (const verdict of changed) {
      const now = became[verdict.route];
      if (now && !byNumber.has(now.number)) reopened.set(now.number, { verdict, changes: now.changes });
    }
    const count = (kind: Verdict['verdict']) =>
      [...byNumber.values()].filter(({ verdict }) => verdict === kind).length;
    return {
      byNumber,
      byFingerprint: new Map(verdicts.map((verdict) => [verdict.route, verdict])),
      passed: count('passed'),
      sentBack: count('sent_back'),
      changed,
      reopened,
    };
  }, [verdicts, standing, became]);
}

/** Looks up, after every analysis and verdict, on which numbers the verdicts stand. */
export function useStanding(): void {
  const client = useAnalysisClient();
  const analysed = useStudy((state) => state.analysis?.document);
  const verdicts = useStudy((state) => state.verdicts);
  const setStanding = useStudy((state) => state.setStanding);
  const look = async () => {
    const numbers = await client.api.standing(verdicts.map(({ marks }) => marks));
    const gone = verdicts.filter((_, n) => numbers[n] === null);
    const became = gone.length === 0 ? [] : await client.api.became(gone);
    return {
      standing: Object.fromEntries(verdicts.map(({ route }, n) => [route, numbers[n] ?? null])),
      became: Object.fromEntries(gone.map(({ route }, n) => [route, became[n] ?? null])),
    };
  };
  useAsked(
    () => (analysed === undefined ? null : look()),
    [client, analysed, verdicts, setStanding],
    ({ standing, became }) => setStanding(standing, became),
  );
}

/**
 * The next route to walk: of the list that was shown last, in its order, the first after `number` without a standing
 * pass; null where there is none further on, or it is not known yet.
 */
export function useNextToWalk(number: string | null): string | null {
  const client = useAnalysisClient();
  const analysed = useStudy((state) => state.analysis?.document);
  const query = useStudy((state) => state.walkList);
  const { byNumber } = useLedger();
  const [next, setNext] = useState<string | null>(null);
  const passed = useMemo(
    () => [...byNumber].flatMap(([of, { verdict }]) => (verdict === 'passed' ? [of] : [])),
    [byNumber],
  );
  useAsked(
    () => (analysed === undefined ? null : client.api.nextIn(query, number, passed)),
    [client, analysed, query, number, passed],
    setNext,
  );
  return next;
}
