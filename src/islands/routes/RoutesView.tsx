/** Routes: the ledger of every way through, one row a route and one column an item, fetched by number. */
import { useCallback, useEffect, useState } from 'react';
import type { RouteView } from '../../worker/types';
import { CheckedField } from '../script/Fields';
import { useAnalysisClient } from '../study/analysis';
import { nextToWalk, useLedger } from '../study/ledger';
import { useStudy } from '../study/store';
import { countText, grouped, plural } from '../ui/format';
import { LedgerGrid } from './LedgerGrid';
import { RouteFoot } from './RouteFoot';
import classes from './routes.module.css';

interface Props {
  readonly walk: (number: string) => void;
}

export function RoutesView({ walk }: Props) {
  const analysis = useStudy((state) => state.analysis);
  const problem = useStudy((state) => state.analysisProblem);
  const ledger = useLedger();
  const [current, setCurrent] = useState('1');
  const [column, setColumn] = useState<number | null>(null);
  const [walkedOnly, setWalkedOnly] = useState(false);
  const route = useRoute(current);

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
  const total = analysis.routes;
  const numbers = walkedOnly ? [...ledger.byNumber.keys()].sort(byNumber) : null;
  const next = ledger.byNumber.get('1')?.verdict === 'passed' ? nextToWalk(ledger, '1', total) : '1';
  return (
    <div className={classes.view}>
      <header className={classes.head}>
        <p className={classes.big}>
          {!analysis.exact && <small>at least</small>} <b title={grouped(total)}>{countText(total)}</b>
          <small>{analysis.exact ? 'routes, counted exactly' : 'routes'}</small>
        </p>
        {analysis.shortest !== null && analysis.longest !== null && (
          <p className={classes.lengths}>
            <button type="button" onClick={() => setCurrent(analysis.shortest?.number ?? '1')}>
              shortest {plural(analysis.shortest.items, 'item')}
            </button>
            <button type="button" onClick={() => setCurrent(analysis.longest?.number ?? '1')}>
              longest {plural(analysis.longest.items, 'item')}
            </button>
          </p>
        )}
        <Progress
          total={total}
          passed={ledger.passed}
          sentBack={ledger.sentBack}
          changed={ledger.changed.length}
        />
        <div className={classes.tools}>
          <label>
            Go to route{' '}
            <CheckedField
              field="go-to-route"
              label="Go to route"
              value=""
              size={9}
              placeholder="number"
              className={classes.number}
              take={(text) => {
                const digits = text.replace(/[,\s]/g, '');
                if (!/^\d+$/.test(digits) || BigInt(digits) < 1n || BigInt(digits) > BigInt(total))
                  return `There are routes from 1 to ${grouped(total)}.`;
                setWalkedOnly(false);
                setCurrent(String(BigInt(digits)));
                return null;
              }}
            />
          </label>
          <button
            type="button"
            aria-pressed={walkedOnly}
            disabled={ledger.byNumber.size === 0}
            onClick={() => {
              const [first] = [...ledger.byNumber.keys()].sort(byNumber);
              if (!walkedOnly && first !== undefined && !ledger.byNumber.has(current)) setCurrent(first);
              setWalkedOnly(!walkedOnly);
            }}
          >
            Walked only
          </button>
          {next !== null && (
            <button type="button" className={classes.dark} onClick={() => setCurrent(next)}>
              Next to walk
            </button>
          )}
        </div>
      </header>
      {analysis.limits.map((limit, index) => (
        <p key={index} className={classes.limit}>
          Counting stopped short at {limit.at.item ?? limit.at.given ?? 'the start'}: {limit.message}.
        </p>
      ))}
      <LedgerGrid
        total={numbers === null ? total : String(numbers.length)}
        numbers={numbers}
        current={current}
        setCurrent={setCurrent}
        column={column}
        setColumn={setColumn}
        open={walk}
      />
      <RouteFoot route={route} number={current} column={column} walk={walk} />
    </div>
  );
}

function byNumber(a: string, b: string): number {
  return BigInt(a) < BigInt(b) ? -1 : 1;
}

function Progress(counts: { total: string; passed: number; sentBack: number; changed: number }) {
  const { total, passed, sentBack, changed } = counts;
  const share = (count: number) => `${Number((BigInt(count) * 10_000n) / BigInt(total)) / 100}%`;
  const left = BigInt(total) - BigInt(passed) - BigInt(sentBack);
  return (
    <div className={classes.progress}>
      <div aria-hidden="true">
        <i style={{ width: share(passed) }} />
        <i data-back style={{ width: share(sentBack) }} />
      </div>
      <p>
        {grouped(passed)} walked and passed
        {sentBack > 0 && ` · ${grouped(sentBack)} sent back`}
        {changed > 0 && ` · ${grouped(changed)} changed since`} · {countText(left)} to go
      </p>
    </div>
  );
}

/** The route with a number, and a respondent who takes it; null while it is looked up. */
function useRoute(number: string): RouteView | null {
  const client = useAnalysisClient();
  const analysis = useStudy((state) => state.analysis);
  const [route, setRoute] = useState<RouteView | null>(null);
  const load = useCallback(() => client.api.route(number), [client, number]);
  useEffect(() => {
    if (analysis === null) return;
    let current = true;
    void load().then((found) => {
      if (current) setRoute(found);
    });
    return () => {
      current = false;
    };
  }, [analysis, load]);
  return route?.number === number ? route : null;
}
