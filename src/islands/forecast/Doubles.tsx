/** What would double a base: how far the share of one answer would have to move. */
import { useState } from 'react';
import type { Group } from '../../core/analysis';
import { assumedWords } from '../../core/forecast/answer-words';
import type { Doubling } from '../../core/forecast/doubling';
import { groupKey } from '../../core/forecast/groups';
import { assumedAtQuestions } from '../../core/forecast/sets';
import { useStudy } from '../state/store';
import { grouped } from '../ui/format';
import primitives from '../ui/primitives.module.css';
import { percentOf } from './figures';
import classes from './selected.module.css';
import type { Forecasting } from './use-forecast';
import { useSettled } from './use-settled';

interface Props {
  readonly group: Group;
  readonly forecasting: Forecasting;
}

/** What adds less than this, times what there is, does not help. */
const WORTH_TELLING = 1.05;

export function Doubles({ group, forecasting }: Props) {
  const { client, held } = forecasting;
  const document = useStudy((state) => state.document);
  const [told, setTold] = useState<{ readonly key: string; readonly is: readonly Doubling[] | null } | null>(
    null,
  );
  const key = groupKey(group);
  useSettled(
    forecasting,
    () =>
      client.more
        .doublings(group)
        .catch(() => null)
        .then((is) => ({ key, is })),
    [key],
    setTold,
  );
  const known = told?.key === key ? told.is : undefined;
  const entries = assumedAtQuestions(document);
  return (
    <>
      <h2>What would double it</h2>
      <div className={primitives.card}>
        {known === undefined ? (
          <p className={classes.note}>Working it out …</p>
        ) : (
          <ul className={classes.doubles}>
            {known
              ?.filter(({ most }) => most >= WORTH_TELLING)
              .map(({ name, where, answer, from, to, most }) => {
                const entry = entries.get(name);
                const words = entry === undefined ? '' : assumedWords(entry.answer, answer);
                const among = where === null ? undefined : entry?.assume?.where?.[where]?.if;
                return (
                  <li key={`${name} ${where}`}>
                    <code>{name}</code> {words}
                    {among !== undefined && (
                      <>
                        {' '}
                        where <code>{among}</code>
                      </>
                    )}{' '}
                    {to === null ? (
                      <>alone does not: at 100% there are {most.toFixed(1)} times as many</>
                    ) : (
                      <>
                        at <b>{percentOf(to).toFixed(0)}%</b> instead of {percentOf(from).toFixed(0)}%
                      </>
                    )}
                  </li>
                );
              })}
            <li>
              <b>{grouped(2 * held.starts)}</b> who start instead of {grouped(held.starts)}
            </li>
          </ul>
        )}
      </div>
    </>
  );
}
