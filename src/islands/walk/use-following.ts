/** Which route is followed: from the link, by number, or from a finding that somebody wants to see walked. */
import { useCallback, useEffect, useState } from 'react';
import { nameInKey } from '../../core/document/addresses';
import type { Plan } from '../../core/routing/plan';
import { countText, grouped } from '../ui/format';
import { useAnalysisClient } from '../state/analysis';
import { useStudy } from '../state/store';
import type { Session } from '../../core/responding/session';
import { firstGiven } from './first-given';

type Witness = Pick<Parameters<Session['start']>[1], 'given' | 'full' | 'draws'>;

/** What a walk begins with besides answers, where a route needs it. */
function inputsOf({ given, full, draws }: Witness) {
  return { seed: 1, ...(given && { given }), ...(full && { full }), ...(draws && { draws }) };
}

export type Following = ReturnType<typeof useFollowing>;

/** `show` is told the key of the step that is to be looked at first. */
export function useFollowing(plan: Plan, session: Session, show: (key: string) => void) {
  const ready = useStudy((state) => state.analysis !== null);
  const toWalk = useStudy((state) => state.toWalk);
  const setToWalk = useStudy((state) => state.setToWalk);
  const client = useAnalysisClient();
  const { start } = session;
  const [number, setNumber] = useState<string | null>(() =>
    new URLSearchParams(location.search).get('route'),
  );
  const [items, setItems] = useState<readonly string[]>([]);
  const [wanted, setWanted] = useState<string>(number ?? '1');

  const take = useCallback((found: string | null, keys: readonly string[]) => {
    setNumber(found);
    setItems(keys);
    if (found !== null) setWanted(found);
    history.replaceState(null, '', found === null ? location.pathname : `?route=${found}`);
  }, []);
  const follow = useCallback(
    async (asked: string) => {
      const route = await client.api.route(asked);
      if (route === null) return;
      start(route.answers, inputsOf(route));
      take(asked, route.items);
    },
    [client, start, take],
  );
  const [begun, setBegun] = useState(false);
  useEffect(() => {
    if (!ready || begun) return;
    // The walk begins once, when routes are known
    setBegun(true);
    if (number !== null && /^\d+$/.test(number)) void follow(number);
  }, [ready, begun, number, follow]);

  useEffect(() => {
    if (toWalk === null || !ready) return;
    const { witness, item } = toWalk;
    setToWalk(null);
    start(witness.answers, inputsOf(witness), item ?? undefined);
    const key = witness.items.find((each) => nameInKey(each) === item);
    void (
      witness.ending === null ? Promise.resolve(null) : client.api.numberOf(witness.items, witness.ending)
    ).then((found) => {
      if (key !== undefined) show(key);
      take(found, witness.items);
    });
  }, [toWalk, setToWalk, ready, client, start, show, take]);

  const free = () => {
    start(
      {},
      { seed: 1 + Math.floor(Math.random() * 1_000_000), given: session.inputs.given ?? firstGiven(plan) },
    );
    setNumber(null);
    history.replaceState(null, '', location.pathname);
  };
  const steps = session.walk?.steps ?? [];
  /** Whether an answer has led off the route that was followed. */
  const left =
    number !== null &&
    steps.length > 0 &&
    (steps.length !== items.length || steps.some(({ key }, index) => key !== items[index]));
  return { number, left, wanted, setWanted, follow, free };
}

/** What stands over the trail. `taken`: number of the route the walk is on; `total`: of all routes; null: not known yet. */
export function headingOf({ number, left }: Following, taken: string | null, total: string | null): string {
  if (number === null) return taken === null ? 'Choosing freely' : `Route ${grouped(taken)}`;
  if (left) return `Left route ${grouped(number)}${taken === null ? '' : ` for ${grouped(taken)}`}`;
  return `Route ${grouped(number)} of ${total === null ? '…' : countText(total)}`;
}
