/** The current route in words, the item under the cursor with its reason, and the way into a walk. */
import { useMemo } from 'react';
import { walk as walkPlan } from '../../core/routing/walk';
import { endingLabel } from '../../core/views/targets';
import { steeringAnswers } from '../../core/views/route-words';
import { whyLines } from '../../core/wording/why';
import type { RouteView } from '../../worker/types';
import { useLedger } from '../study/ledger';
import { useStudy } from '../study/store';
import { grouped, percentText, plural, secondsText, whenText } from '../ui/format';
import classes from './routes.module.css';

interface Props {
  readonly route: RouteView | null;
  readonly number: string;
  /** Index among the plan's items. */
  readonly column: number | null;
  readonly walk: (number: string) => void;
}

const MOST = 14;

export function RouteFoot({ route, number, column, walk }: Props) {
  const plan = useStudy((state) => state.plan);
  const ledger = useLedger();
  const answers = useMemo(() => (route === null ? [] : steeringAnswers(plan, route)), [plan, route]);
  const verdict = route === null ? undefined : ledger.byFingerprint.get(route.fingerprint);
  const told = answers.filter(({ words }) => words !== '');
  return (
    <footer className={classes.foot} aria-live="polite">
      <div>
        <h2>
          Route {grouped(number)}
          {verdict !== undefined && (
            <small>
              {verdict.verdict === 'passed' ? '✓ passed' : '↩ sent back'} by {verdict.reviewer},{' '}
              {whenText(verdict.at)}
              {verdict.remark !== '' && `: “${verdict.remark}”`}
            </small>
          )}
        </h2>
        <p className={classes.say}>
          {route === null ? (
            'Looking it up …'
          ) : (
            <>
              {told.slice(0, MOST).map(({ key, label, words }, index) => (
                <span key={key}>
                  {index > 0 && '; '}
                  {label}: <em>{words}</em>
                </span>
              ))}
              {told.length > MOST && `; and ${told.length - MOST} more`}
              {told.length > 0 && '. '}
              {plural(route.items.length, 'item')}, {endingLabel(plan.document, route.ending)}. About{' '}
              {secondsText(route.seconds)}
              {route.share !== null && `, taken by ${percentText(route.share)} of the sample`}.
            </>
          )}
        </p>
        <ItemReason route={route} column={column} />
      </div>
      <div className={classes.actions}>
        <button type="button" className={classes.go} onClick={() => walk(number)}>
          Walk route {grouped(number)}
        </button>
      </div>
    </footer>
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
  const item = column === null ? undefined : plan.sections.flatMap(({ items }) => items)[column]?.item.name;
  const of = lines.filter(({ name }) => item !== undefined && name.split('#')[0] === item);
  const line = of.find(({ presented }) => presented) ?? of[0];
  if (line === undefined)
    return (
      <p className={classes.reason}>
        Point at a cell, or use the arrow keys, to see why an item is asked or not.
      </p>
    );
  return (
    <p className={classes.reason}>
      <code>{item}</code> {line.presented ? 'asked' : 'not applicable'}: {line.because}
    </p>
  );
}
