/** What stands in the way of freezing, each line a door to its places; and freezing, with a reason where something does. */
import { useState } from 'react';
import { capital } from '../../core/document/words';
import { GATE, GATE_CHECKS, type GateLine } from '../../core/release/gate';
import { SnagDoor } from '../slips/SnagDoor';
import { SnagEntry } from '../slips/SnagEntry';
import type { Gate } from '../state/gate';
import { useGoTo } from '../state/going';
import { useStudy } from '../state/store';
import { countText, grouped, routeText } from '../ui/format';
import { FreezeForm } from './FreezeForm';
import classes from './gate.module.css';

interface Props {
  readonly gate: Gate | null;
  /** The number that the next version has. */
  readonly next: number;
}

export function GateCard({ gate, next }: Props) {
  const problem = useStudy((state) => state.analysisProblem);
  return (
    <>
      <h2>What stands in the way of freezing the draft</h2>
      <div className={classes.card}>
        {gate === null ? (
          <>
            <ul className={classes.lines} aria-hidden="true">
              {GATE_CHECKS.map((check) => (
                <li key={check} className={classes.line}>
                  <span>{capital(GATE[check].many)}</span>
                  <i />
                  <b data-none>…</b>
                </li>
              ))}
            </ul>
            <p role="status" className={problem === null ? classes.told : undefined}>
              {problem ?? 'Looking through the routes …'}
            </p>
          </>
        ) : (
          <ul className={classes.lines} aria-busy={!gate.complete}>
            {gate.lines.map((line) => (
              <Line key={line.check} line={line} />
            ))}
          </ul>
        )}
        <RoutesToPass />
        <FreezeForm gate={gate} next={next} />
      </div>
    </>
  );
}

function Line({ line }: { readonly line: GateLine }) {
  const [open, setOpen] = useState(false);
  const { check, count, snags, complete } = line;
  const row = (
    <>
      <span>{capital(GATE[check].many)}</span>
      <i aria-hidden="true" />
      <b data-none={count === 0n || undefined}>
        {complete ? '' : '≥ '}
        {countText(count, 7)}
      </b>
    </>
  );
  if (count === 0n) return <li className={classes.line}>{row}</li>;
  return (
    <li>
      <button type="button" className={classes.line} aria-expanded={open} onClick={() => setOpen(!open)}>
        {row}
      </button>
      {open &&
        (check === 'routes' ? (
          <RoutesLeft line={line} />
        ) : (
          <ul className={classes.snags}>
            {snags.map((snag, n) => (
              <li key={n}>
                <SnagEntry snag={snag} heading={<SnagDoor at={snag.at} />} />
              </li>
            ))}
          </ul>
        ))}
    </li>
  );
}

/** So many are named one by one. */
const MOST_NAMED = 30;

function RoutesLeft({ line: { routes, complete } }: { readonly line: GateLine }) {
  const goTo = useGoTo();
  return (
    <div className={classes.routes}>
      {!complete && (
        <p>The forks are too many to be sure that these routes take them all. The snags say where.</p>
      )}
      {routes.slice(0, MOST_NAMED).map((number) => (
        <button
          key={String(number)}
          type="button"
          title={`Walk route ${grouped(number)}`}
          onClick={() => goTo('walk', `?route=${number}`)}
        >
          {routeText(String(number))}
        </button>
      ))}
      {routes.length > MOST_NAMED && <span>and {routes.length - MOST_NAMED} more</span>}
      <button
        type="button"
        className={classes.all}
        onClick={() => goTo('routes', '?order=forks&verdict=open')}
      >
        All of them in Routes
      </button>
    </div>
  );
}

function RoutesToPass() {
  const wanted = useStudy((state) => state.routesWanted);
  const setWanted = useStudy((state) => state.setRoutesWanted);
  const total = useStudy((state) => state.analysis?.routes ?? null);
  return (
    <label className={classes.wanted}>
      Routes to pass
      <select value={wanted} onChange={(event) => setWanted(event.target.value === 'all' ? 'all' : 'cover')}>
        <option value="cover">those that take every fork</option>
        <option value="all">every route{total === null ? '' : `, ${countText(total, 7)}`}</option>
      </select>
    </label>
  );
}
