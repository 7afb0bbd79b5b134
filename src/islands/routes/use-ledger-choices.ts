/** Which routes are listed, in which order, and which of them is current; kept in the address of the page. */
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { ListQuery } from '../../worker/list-query';
import { useAnalysisClient } from '../state/analysis';
import { useLedger } from '../state/ledger';
import type { DrawnRoutes } from '../state/random-draw';
import { listQuery, readShown, shownSearch, type RoutesShown } from '../state/routes-shown';
import { useStudy } from '../state/store';
import { useAsked } from '../ui/use-asked';
import { useCover, useSoonCovered, type CoverShown } from './use-cover';
import { useList, useRows } from './use-list';

export function useLedgerChoices(draw: DrawnRoutes) {
  const client = useAnalysisClient();
  const [shown, setShown] = useState<RoutesShown>(() => readShown(location.search));
  const [place, setPlace] = useState(0n);
  const [missed, setMissed] = useState<string | null>(null);
  /** The route that was current before the person went on to this one, and one to go to in the next list. */
  const [previous, setPrevious] = useState<string | null>(null);
  const [staying, setStaying] = useState<string | null>(null);
  const soon = useSoonCovered();
  const forks = useCover('forks', soon || shown.order === 'forks');
  const pairs = useCover('pairs', shown.order === 'pairs');
  const front = shown.order === 'pairs' ? pairs : forks;
  const query = useQuery(shown, draw, front.cover);
  const list = useList(query, shown.since);
  const [row] = useRows(list, place, 1);
  const current = row?.number ?? null;

  const choose = (next: bigint) => {
    if (next !== place) setPrevious(current);
    setStaying(null);
    setPlace(next);
  };
  const change = useCallback(
    (part: Partial<RoutesShown>) => {
      const next = { ...shown, ...part };
      history.replaceState(null, '', `${location.pathname}${shownSearch(next)}`);
      setShown(next);
      setMissed(null);
      // Who asks for another order wants to see what comes first.
      setStaying('order' in part ? null : current);
      if ('order' in part) setPlace(0n);
    },
    [shown, current],
  );
  // A route that is current stays so where it is in the new list.
  useAsked(
    () => (list === null || staying === null ? null : client.api.positionIn(list.query, staying)),
    [client, list, staying],
    (position) => setPlace(position === null ? 0n : BigInt(position) - 1n),
  );
  const goTo = async (number: string) => {
    const position = list === null ? null : await client.api.positionIn(list.query, number);
    setMissed(position === null ? number : null);
    if (position !== null) choose(BigInt(position) - 1n);
  };
  return {
    shown,
    change,
    showAll: () => change(readShown('')),
    /** Whether anything but the order was chosen. */
    filtered: shownSearch({ ...shown, order: 'canonical' }) !== '',
    list,
    place,
    choose,
    goTo,
    /** Few routes that take every fork; null while they are not known. */
    cover: forks.cover,
    /** What stands in front, where the order asks for that. */
    front,
    /** A route that was gone to and is not among those listed. */
    missed,
    current,
    previous: previous === current ? null : previous,
  };
}

/** What is asked of the worker; the same is the order in which one walks on. */
function useQuery(shown: RoutesShown, draw: DrawnRoutes, cover: CoverShown | null): ListQuery {
  const plan = useStudy((state) => state.plan);
  const setWalkList = useStudy((state) => state.setWalkList);
  const ledger = useLedger();
  const query = useMemo(() => {
    const isFirst = shown.order === 'forks' || shown.order === 'pairs';
    const front = isFirst ? (cover?.routes ?? []).map(({ number }) => number) : [];
    const asked = { ...listQuery(plan, shown), front };
    const walked = [...ledger.byNumber.keys()].sort(byNumber);
    switch (shown.verdict) {
      case 'open':
        return { ...asked, leaveOut: walked };
      case 'walked':
        return { ...asked, only: walked };
      case 'changed':
        return { ...asked, only: [...ledger.reopened.keys()].sort(byNumber) };
      case 'drawn':
        return { ...asked, only: [...new Set(draw.numbers)].sort(byNumber) };
      default:
        return asked;
    }
  }, [plan, shown, ledger, draw.numbers, cover]);
  // Passing a route takes it off a list of those still to walk: it is gone along without that.
  const inOrder = useMemo(() => JSON.stringify({ ...query, leaveOut: [] }), [query]);
  useEffect(() => setWalkList(JSON.parse(inOrder) as ListQuery), [inOrder, setWalkList]);
  return query;
}

function byNumber(a: string, b: string): number {
  return BigInt(a) < BigInt(b) ? -1 : 1;
}
