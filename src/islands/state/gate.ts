/** What stands in the way of freezing the open study, as far as it is known by now. */
import { createContext, useContext, useEffect, useMemo, useRef } from 'react';
import { gateOf, type GateLine } from '../../core/release/gate';
import type { ReleaseClient } from '../../worker/release/client';
import { useSnags } from './snags';
import { useStudy } from './store';
import type { StudyStore } from './study-state';

export const ReleaseContext = createContext<ReleaseClient | null>(null);

export function useReleaseClient(): ReleaseClient {
  const client = useContext(ReleaseContext);
  if (client === null) throw new Error('no release is at hand here');
  return client;
}

/**
 * In milliseconds. Which routes take every fork takes longer than all the rest: where somebody writes or walks, it waits
 * until they pause; where they look at the gate, it does not.
 */
const ASK_AFTER = 2500;
const ASK_SOON = 300;

/** Asks, after every edit and verdict, how far the routes were passed. `soon`: somebody looks at the gate. */
export function usePassing(store: StudyStore, client: ReleaseClient, soon: boolean): void {
  const asking = useRef<object | null>(null);
  useEffect(() => {
    if (store.getState().readOnly !== null) return;
    let timer: ReturnType<typeof setTimeout>;
    const ask = async () => {
      const { document, verdicts } = store.getState();
      const asked = {};
      asking.current = asked;
      const marks = verdicts.flatMap((each) => (each.verdict === 'passed' ? [each.marks] : []));
      try {
        const routes = await client.passedRoutes(document, marks);
        if (asking.current === asked) store.getState().setPassing({ routes, document, verdicts });
      } catch (error) {
        // The figure stays away; the server judges for itself, and says what is wrong where somebody freezes.
        console.error(error);
      }
    };
    const later = () => {
      asking.current = null;
      clearTimeout(timer);
      timer = setTimeout(() => void ask(), soon ? ASK_SOON : ASK_AFTER);
    };
    const { passing, document, verdicts } = store.getState();
    if (passing?.document !== document || passing.verdicts !== verdicts) later();
    const unsubscribe = store.subscribe((state, before) => {
      if (state.document !== before.document || state.verdicts !== before.verdicts) later();
    });
    return () => {
      asking.current = null;
      clearTimeout(timer);
      unsubscribe();
    };
  }, [store, client, soon]);
}

export interface Gate {
  readonly lines: readonly GateLine[];
  /** How many things stand in the way, all lines together. */
  readonly count: bigint;
  /** False while it is of an older document, or some of it is still being looked for. */
  readonly complete: boolean;
}

/** Null until the routes have been looked through once. */
export function useGate(): Gate | null {
  const document = useStudy((state) => state.document);
  const verdicts = useStudy((state) => state.verdicts);
  const wanted = useStudy((state) => state.routesWanted);
  const passing = useStudy((state) => state.passing);
  const { open, aside, complete } = useSnags();
  return useMemo(() => {
    if (passing === null) return null;
    const { total, exact, cover, covered, passed } = passing.routes;
    const lines = gateOf({
      // Those set aside are answered for, but for errors, which stand in the way all the same.
      snags: [...open, ...aside.flatMap(({ snag }) => (snag.severity === 'error' ? [snag] : []))],
      asides: new Set(),
      cover: cover.map(BigInt),
      covered,
      total: BigInt(total),
      exact,
      passed: new Set(passed.map(BigInt)),
      wanted,
    });
    return {
      lines,
      count: lines.reduce((sum, line) => sum + line.count, 0n),
      complete: complete && passing.document === document && passing.verdicts === verdicts,
    };
  }, [document, verdicts, wanted, passing, open, aside, complete]);
}
