/** The verdicts against the routes as they are now: which stand, on which number, and which an edit re-opened. */
import { useEffect, useMemo } from 'react';
import type { Verdict } from '../../store/verdicts';
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
}

export function useLedger(): Ledger {
  const verdicts = useStudy((state) => state.verdicts);
  const standing = useStudy((state) => state.standing);
  return useMemo(() => {
    const byNumber = new Map<string, Verdict>();
    const changed: Verdict[] = [];
    for (const verdict of verdicts) {
      const number = standing[verdict.route];
      if (number === null) changed.push(verdict);
      else if (number !== undefined) byNumber.set(number, verdict);
    }
    const count = (kind: Verdict['verdict']) =>
      [...byNumber.values()].filter(({ verdict }) => verdict === kind).length;
    return {
      byNumber,
      byFingerprint: new Map(verdicts.map((verdict) => [verdict.route, verdict])),
      passed: count('passed'),
      sentBack: count('sent_back'),
      changed,
    };
  }, [verdicts, standing]);
}

/** Looks up, after every analysis and verdict, on which numbers the verdicts stand. */
export function useStanding(): void {
  const client = useAnalysisClient();
  const analysis = useStudy((state) => state.analysis);
  const verdicts = useStudy((state) => state.verdicts);
  const setStanding = useStudy((state) => state.setStanding);
  useEffect(() => {
    if (analysis === null) return;
    let current = true;
    void client.api.standing(verdicts.map(({ marks }) => marks)).then((numbers) => {
      if (current)
        setStanding(Object.fromEntries(verdicts.map(({ route }, n) => [route, numbers[n] ?? null])));
    });
    return () => {
      current = false;
    };
  }, [client, analysis, verdicts, setStanding]);
}

/** The first route after `number` that has no standing pass; null where there is none further on. */
export function nextToWalk(ledger: Ledger, number: string, total: string): string | null {
  for (let next = BigInt(number) + 1n; next <= BigInt(total); next += 1n) {
    if (ledger.byNumber.get(String(next))?.verdict !== 'passed') return String(next);
  }
  return null;
}
