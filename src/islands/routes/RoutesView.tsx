/** Routes: the ledger of every way through, one row a route and one column an item, fetched by number. */
import { useState, type ComponentProps } from 'react';
import { useStudy } from '../state/store';
import { useRandomDraw } from '../state/random-draw';
import { FilterBar } from './FilterBar';
import { FrontNote } from './front-note';
import { LedgerGrid } from './LedgerGrid';
import { LedgerHead } from './LedgerHead';
import { RouteFoot } from './RouteFoot';
import classes from './routes.module.css';
import { SignOff } from './SignOff';
import { useLedgerChoices } from './use-ledger-choices';
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
  const analysis = useStudy((state) => state.analysis);
  const draw = useRandomDraw();
  const choices = useLedgerChoices(draw);
  const { shown, change, list, current, cover, front } = choices;
  const [zoom, setZoom] = useState(1);
  const [column, setColumn] = useState<number | null>(null);
  const [against, setAgainst] = useState<string | null>(null);
  const route = useRoute(current);
  const other = useRoute(against);
  if (analysis === null) return null;
  return (
    <div className={classes.view}>
      <LedgerHead
        cover={cover}
        list={list}
        filtered={choices.filtered}
        everyForkFirst={shown.order === 'forks'}
        setEveryForkFirst={(first) => change({ order: first ? 'forks' : 'canonical' })}
        showAll={choices.showAll}
        goTo={(number) => void choices.goTo(number)}
        walk={walk}
        missed={choices.missed}
        zoom={zoom}
        setZoom={setZoom}
      />
      <SignOff cover={cover} draw={draw} show={(verdict) => change({ verdict })} />
      <FilterBar shown={shown} change={change} listed={current !== null || list?.summary.total === '0'} />
      {analysis.limits.map((limit, index) => (
        <p key={index} className={classes.limit}>
          Counting stopped short at {limit.at.item ?? limit.at.given ?? 'the start'}: {limit.message}.
        </p>
      ))}
      <FrontNote order={shown.order} front={front} />
      <Listed choices={choices} shown={{ column, setColumn, zoom, open: walk }} />
      {current !== null && list !== null && list.summary.total !== '0' && (
        <RouteFoot
          route={route}
          number={current}
          column={column}
          cover={front.cover}
          walk={walk}
          previous={choices.previous}
          against={other}
          compare={setAgainst}
        />
      )}
    </div>
  );
}

interface ListedProps {
  readonly choices: ReturnType<typeof useLedgerChoices>;
  readonly shown: Pick<ComponentProps<typeof LedgerGrid>, 'column' | 'setColumn' | 'zoom' | 'open'>;
}

/** The rows, or why there are none. */
function Listed({ choices, shown }: ListedProps) {
  const { list, place } = choices;
  if (list === null) return <p className={classes.message}>Looking them up …</p>;
  if (list.summary.refused !== null)
    return (
      <p className={classes.message} role="status">
        Which of these routes are left is too entangled to tell exactly. Take one of the choices above back.
      </p>
    );
  const total = BigInt(list.summary.total);
  if (total === 0n)
    return (
      <p className={classes.message} role="status">
        No route is left by these choices.{' '}
        <button type="button" onClick={choices.showAll}>
          Show all routes
        </button>
      </p>
    );
  return (
    <LedgerGrid list={list} place={place < total ? place : total - 1n} setPlace={choices.choose} {...shown} />
  );
}
