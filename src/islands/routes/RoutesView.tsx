/** Routes: the ledger of every way through, one row a route and one column an item, fetched by number. */
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { ListQuery } from '../../worker/list-query';
import { useAnalysisClient } from '../state/analysis';
import { useLedger } from '../state/ledger';
import { useStudy } from '../state/store';
import { useRandomDraw } from '../state/random-draw';
import { FilterBar } from './FilterBar';
import { FrontNote, useCover, useSoonCovered } from './front-note';
import { LedgerGrid } from './LedgerGrid';
import { LedgerHead } from './LedgerHead';
import { listQuery, readShown, shownSearch, type RoutesShown } from '../state/routes-shown';
import { RouteFoot } from './RouteFoot';
import classes from './routes.module.css';
import { SignOff } from './SignOff';
import { useList, useRows } from './use-list';
import { useRoute } from './use-route';

interface Props {
  readonly walk: (number: string) => void;
}

export function RoutesView({ walk }: Props) {
  const analysis = useStudy((state) => state.analysis);
  const problem = useStudy((state) => state.analysisProblem);
  if (problem !== null) return <p className={classes.message}>The routes could not be counted: {problem}</p>;
  if (analysis === null) return <p className={classes.message}>Counting the routes …</p>;
  if (analysis.routes === '0') {
    return (
      <p className={classes.message}>
        There is no route yet: no respondent gets from the first item to an ending. Write a question in
        Script, or look at the snags.
      </p>
    );
  }
  return <Ledger walk={walk} />;
}

function Ledger({ walk }: Props) {
  const plan = useStudy((state) => state.plan);
  const analysis = useStudy((state) => state.analysis);
  const client = useAnalysisClient();
  const ledger = useLedger();
  const draw = useRandomDraw();
  const [shown, setShown] = useState<RoutesShown>(() => readShown(location.search));
  const [zoom, setZoom] = useState(1);
  const [column, setColumn] = useState<number | null>(null);
  const [place, setPlace] = useState(0n);
  const [missed, setMissed] = useState<string | null>(null);
  const [against, setAgainst] = useState<string | null>(null);
  /** The route that was current before the person went on to this one, and one to go to in the next list. */
  const [previous, setPrevious] = useState<string | null>(null);
  const [staying, setStaying] = useState<string | null>(null);
  const query = useMemo(() => {
    const asked = listQuery(plan, shown);
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
  }, [plan, shown, ledger, draw.numbers]);
  const list = useList(query, shown.since);
  const setWalkList = useStudy((state) => state.setWalkList);
  // Passing a route takes it off a list of those still to walk: it is gone along without that.
  const inOrder = useMemo(() => JSON.stringify({ ...query, leaveOut: [] }), [query]);
  useEffect(() => setWalkList(JSON.parse(inOrder) as ListQuery), [inOrder, setWalkList]);
  const soon = useSoonCovered();
  const cover = useCover('forks', soon || shown.order === 'forks');
  const pairs = useCover('pairs', shown.order === 'pairs');
  const [row] = useRows(list, place, 1);
  const current = row?.number ?? null;
  const route = useRoute(current);
  const other = useRoute(against);

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
  const total = BigInt(list?.summary.total ?? '0');
  useEffect(() => {
    if (list === null || staying === null) return;
    let latest = true;
    void client.api.positionIn(list.query, staying).then((position) => {
      if (latest) setPlace(position === null ? 0n : BigInt(position) - 1n);
    });
    return () => {
      latest = false;
    };
  }, [client, list, staying]);
  const goTo = async (number: string) => {
    const position = list === null ? null : await client.api.positionIn(list.query, number);
    setMissed(position === null ? number : null);
    if (position !== null) choose(BigInt(position) - 1n);
  };
  if (analysis === null) return null;
  const anything = shownSearch({ ...shown, order: 'canonical' }) !== '';
  return (
    <div className={classes.view}>
      <LedgerHead
        cover={cover}
        list={list}
        filtered={anything}
        everyForkFirst={shown.order === 'forks'}
        setEveryForkFirst={(first) => change({ order: first ? 'forks' : 'canonical' })}
        showAll={() => change(readShown(''))}
        goTo={(number) => void goTo(number)}
        walk={walk}
        missed={missed}
        zoom={zoom}
        setZoom={setZoom}
      />
      <SignOff cover={cover} draw={draw} show={(verdict) => change({ verdict })} />
      <FilterBar shown={shown} change={change} />
      {analysis.limits.map((limit, index) => (
        <p key={index} className={classes.limit}>
          Counting stopped short at {limit.at.item ?? limit.at.given ?? 'the start'}: {limit.message}.
        </p>
      ))}
      <FrontNote order={shown.order} cover={shown.order === 'pairs' ? pairs : cover} />
      {list === null ? (
        <p className={classes.message}>Looking them up …</p>
      ) : list.summary.refused !== null ? (
        <p className={classes.message} role="status">
          Which of these routes are left is too entangled to tell exactly. Take one of the choices above back.
        </p>
      ) : total === 0n ? (
        <p className={classes.message} role="status">
          No route is left by these choices.{' '}
          <button type="button" onClick={() => change(readShown(''))}>
            Show all routes
          </button>
        </p>
      ) : (
        <LedgerGrid
          list={list}
          place={place < total ? place : total - 1n}
          setPlace={choose}
          column={column}
          setColumn={setColumn}
          zoom={zoom}
          open={walk}
        />
      )}
      {current !== null && total > 0n && (
        <RouteFoot
          route={route}
          number={current}
          column={column}
          cover={shown.order === 'pairs' ? pairs : cover}
          walk={walk}
          previous={previous === current ? null : previous}
          against={other}
          compare={setAgainst}
        />
      )}
    </div>
  );
}

function byNumber(a: string, b: string): number {
  return BigInt(a) < BigInt(b) ? -1 : 1;
}
