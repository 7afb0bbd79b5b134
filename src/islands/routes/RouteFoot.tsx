/** The current route in words, the item under the cursor with its reason, and the ways into a walk or a comparison. */
import { useMemo } from 'react';
import { nameInKey } from '../../core/document/addresses';
import { VERDICT_WORDS } from '../../core/document/vocabularies';
import { walk as walkPlan } from '../../core/routing/walk';
import { forkEventWords } from '../../core/views/fork-events';
import { routeSentence } from '../../core/views/route-sentence';
import { endingLabel } from '../../core/wording/targets';
import { whyLines } from '../../core/wording/why';
import { percentText } from '../../core/wording/percent';
import type { RouteView } from '../../worker/types';
import { useLedger } from '../state/ledger';
import { useStudy } from '../state/store';
import { grouped, plural, routeText, secondsText, whenText } from '../ui/format';
import { Comparison } from './Comparison';
import classes from './routes.module.css';
import { takesAll, TAKEN, type CoverShown } from './use-cover';

interface Props {
  readonly route: RouteView | null;
  readonly number: string;
  /** Index among the plan's items. */
  readonly column: number | null;
  readonly cover: CoverShown | null;
  readonly walk: (number: string) => void;
  /** The route that was current before. */
  readonly previous: string | null;
  /** The route to compare with; null where none is. */
  readonly against: RouteView | null;
  readonly compare: (number: string | null) => void;
}

export function RouteFoot(props: Props) {
  const { route, number, column, cover, walk, previous, against, compare } = props;
  const comparing = against !== null && route !== null && against.number !== route.number;
  return (
    <section className={classes.foot} aria-label="Current route">
      {comparing ? (
        <Comparison first={against} second={route} />
      ) : (
        <div aria-live="polite">
          <h2 title={grouped(number)}>
            Route {routeText(number)} <Standing number={number} />
          </h2>
          <Sentence route={route} />
          <ItemReason route={route} column={column} />
          {column === null && <HereFor number={number} cover={cover} />}
        </div>
      )}
      <div className={classes.actions}>
        {comparing ? (
          <button type="button" onClick={() => compare(null)}>
            Stop comparing
          </button>
        ) : (
          previous !== null && (
            <button type="button" onClick={() => compare(previous)}>
              Compare with route {routeText(previous)}
            </button>
          )
        )}
        <button type="button" className={classes.go} onClick={() => walk(number)}>
          Walk route {routeText(number)}
        </button>
      </div>
    </section>
  );
}

/** The verdict on it, or the one on the route it was before an edit, with what is different since. */
function Standing({ number }: { readonly number: string }) {
  const ledger = useLedger();
  const verdict = ledger.byNumber.get(number);
  const before = ledger.reopened.get(number);
  const given = verdict ?? before?.verdict;
  if (given === undefined) return null;
  return (
    <small>
      {verdict === undefined && '↻ was '}
      {VERDICT_WORDS[given.verdict].mark} {VERDICT_WORDS[given.verdict].word} by {given.reviewer},{' '}
      {whenText(given.at)}
      {given.remark !== '' && `: “${given.remark}”${given.place === '' ? '' : ` (at ${given.place})`}`}
      {before !== undefined && verdict === undefined && `. Since then: ${before.changes.join('; ')}.`}
    </small>
  );
}

function Sentence({ route }: { readonly route: RouteView | null }) {
  const plan = useStudy((state) => state.plan);
  const parts = useMemo(() => (route === null ? [] : routeSentence(plan, route)), [plan, route]);
  if (route === null) return <p className={classes.say}>Looking it up …</p>;
  return (
    <p className={classes.say}>
      {parts.map(({ text, answer }, n) => (answer ? <em key={n}>{text}</em> : text))}.{' '}
      {plural(route.items.length, 'item')}, about {secondsText(route.seconds)},{' '}
      {endingLabel(plan.document, route.ending)}.
      {route.share !== null && ` Taken by ${percentText(route.share)} of the sample.`}
    </p>
  );
}

/** Why the item under the cursor is asked, or not applicable, on this route. */
function ItemReason({ route, column }: Pick<Props, 'route' | 'column'>) {
  const plan = useStudy((state) => state.plan);
  const lines = useMemo(() => {
    if (route === null) return [];
    const { answers, draws, given, full } = route;
    const result = walkPlan(plan, {
      answers,
      ...(draws ? { draws } : {}),
      ...(given ? { given } : {}),
      ...(full ? { full } : {}),
    });
    return result.ok ? whyLines(plan, result.walk) : [];
  }, [plan, route]);
  if (column === null) return null;
  const item = plan.sections.flatMap(({ items }) => items)[column]?.item.name;
  const of = lines.filter(({ name }) => item !== undefined && nameInKey(name) === item);
  const line = of.find(({ presented }) => presented) ?? of[0];
  if (line === undefined) return null;
  return (
    <p className={classes.reason}>
      <code>{item}</code> {line.presented ? 'asked' : 'not applicable'}: {line.because}
    </p>
  );
}

/** Why a route of the covering set is in it. */
function HereFor({ number, cover }: { readonly number: string; readonly cover: CoverShown | null }) {
  const plan = useStudy((state) => state.plan);
  const chosen = cover?.routes.find((each) => each.number === number);
  if (cover === null || chosen === undefined || cover.routes.length < 2)
    return (
      <p className={classes.reason}>
        Point at a cell, or use the arrow keys, to see why an item is asked or not.
      </p>
    );
  const alone = [...new Set(chosen.alone.map((event) => forkEventWords(plan, event)))];
  const some = alone.slice(0, 6).join('; ');
  return (
    <p className={classes.reason}>
      ◆ One of the {cover.routes.length} {takesAll(cover) ? `that take ${TAKEN[cover.what]}` : 'found so far'}
      .{' '}
      {alone.length === 0
        ? // No route of those that take every two is spare: it has some two of its own.
          cover.what === 'pairs' && takesAll(cover)
          ? 'Others take each of its outcomes, but some two of them only it takes together.'
          : 'Others of them take all that it takes, too.'
        : `Of them only this one has: ${some}${alone.length > 6 ? `; and ${alone.length - 6} more` : ''}.`}
    </p>
  );
}
