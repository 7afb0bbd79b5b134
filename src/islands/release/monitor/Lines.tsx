/** What the monitor lists: minutes, items, forks, quotas, and answers that were given without care. */
import { useState } from 'react';
import type { Figures } from '../../../core/monitor/figures';
import { FAST, LEAST_FOR_PACE } from '../../../core/monitor/pace';
import { freeAt } from '../../../core/monitor/quota-pace';
import { LEAST_ROWS } from '../../../core/monitor/summary';
import { ENDINGS } from '../../../core/document/vocabularies';
import { EndingMark } from '../../ui/EndingMark';
import { grouped, plural } from '../../ui/format';
import { Figure } from './figure';
import { minuteWords, shareWords } from './monitor-text';
import { TableHead } from '../../ui/TableHead';
import classes from './monitor.module.css';

export function Minutes({ minutes: { count, took, expected } }: Pick<Figures, 'minutes'>) {
  return (
    <section aria-label="Minutes">
      <h2>
        Minutes <small>of {plural(count, 'complete interview')}</small>
      </h2>
      {took === null || expected === null ? (
        <p className={classes.says}>Nobody has answered to the end yet.</p>
      ) : (
        <table className={classes.rates}>
          <TableHead of={[null, 'lower quartile', 'median', 'upper quartile']} />
          <tbody>
            {(
              [
                ['They took', took],
                ['Forecast for them', expected],
              ] as const
            ).map(([words, of]) => (
              <tr key={words}>
                <th scope="row">{words}</th>
                {[of.lower, of.median, of.upper].map((seconds, n) => (
                  <td key={n}>{minuteWords(seconds)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** As many are shown before somebody asks for all. */
const FEW = 5;

export function Items({ items, unreached }: Pick<Figures, 'items' | 'unreached'>) {
  const [all, setAll] = useState(false);
  const gaps = ({ blank, dont_know, refused }: Figures['items'][number]) => blank + dont_know + refused;
  const ranked = items
    .filter((item) => gaps(item) > 0)
    .toSorted((a, b) => gaps(b) / b.asked - gaps(a) / a.asked || gaps(b) - gaps(a));
  return (
    <section aria-label="Items">
      <h2>
        No answer <small>by item, the largest share first</small>
      </h2>
      {ranked.length === 0 ? (
        <p className={classes.says}>Nobody left anything blank, or said “don’t know”.</p>
      ) : (
        <table className={classes.lines}>
          <TableHead of={['Item', 'asked', 'blank', 'don’t know', 'rather not']} />
          <tbody>
            {(all ? ranked : ranked.slice(0, FEW)).map((item) => (
              <tr key={item.name}>
                <th scope="row">
                  <code>{item.name}</code>
                </th>
                {(
                  [
                    ['asked', 'Asked'],
                    ['blank', 'Left blank'],
                    ['dont_know', 'Don’t know'],
                    ['refused', 'Rather not say'],
                  ] as const
                ).map(([is, words]) => (
                  <td key={is} title={is === 'asked' ? undefined : shareWords(item[is], item.asked)}>
                    <Figure
                      of={{ of: 'item', name: item.name, is }}
                      count={item[is]}
                      words={`${words}, ${item.name}`}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <MoreButton count={ranked.length} all={all} setAll={setAll} />
      <h2>
        Reached by nobody <small>{plural(unreached.length, 'item')}</small>
      </h2>
      <p className={classes.says}>
        {unreached.length === 0
          ? 'Every item was shown to somebody.'
          : unreached.map((name) => <code key={name}>{name} </code>)}
      </p>
    </section>
  );
}

interface MoreProps {
  readonly count: number;
  readonly all: boolean;
  readonly setAll: (all: boolean) => void;
}

function MoreButton({ count, all, setAll }: MoreProps) {
  if (count <= FEW) return null;
  return (
    <button type="button" className={classes.more} aria-expanded={all} onClick={() => setAll(!all)}>
      {all ? `The first ${FEW} alone` : `All ${grouped(count)}`}
    </button>
  );
}

export function Forks({ forks }: Pick<Figures, 'forks'>) {
  const [all, setAll] = useState(false);
  const met = forks.filter(({ came }) => came > 0);
  const others = forks.length - met.length;
  return (
    <section aria-label="Forks">
      <h2>
        Taken by nobody <small>with how many came to the fork</small>
      </h2>
      {met.length === 0 ? (
        <p className={classes.says}>
          {others === 0 ? 'Somebody took every fork, each way.' : 'Nobody has come to the rest of the forks.'}
        </p>
      ) : (
        <ul className={classes.forks}>
          {(all ? met : met.slice(0, FEW)).map(({ at, words, came }, n) => (
            // Two ways at a fork may be called the same.
            <li key={`${at} ${words} ${n}`}>
              <span>{words}</span>
              <i aria-hidden="true" />
              <Figure of={{ of: 'fork', at }} count={came} words={`Came to the fork “${words}”`} />
            </li>
          ))}
        </ul>
      )}
      <MoreButton count={met.length} all={all} setAll={setAll} />
      {others > 0 && (
        <p className={classes.says}>To the forks of {plural(others, 'other outcome')} nobody has come yet.</p>
      )}
    </section>
  );
}

interface QuotaProps extends Pick<Figures, 'quotas'> {
  readonly now: number;
  /** By which days are told; undefined: that of whoever looks. */
  readonly zone: string | undefined;
  /** When the link closes by itself; null: it does not. */
  readonly closesAt: number | null;
}

export function Quotas({ quotas, now, zone, closesAt }: QuotaProps) {
  if (quotas.length === 0) return null;
  const when = new Intl.DateTimeFormat('en-GB', {
    ...{ weekday: 'short', day: 'numeric', month: 'short' },
    ...(zone === undefined ? {} : { timeZone: zone }),
  });
  const comes = (quota: Figures['quotas'][number]) => {
    const { count, target, fullAt } = quota;
    if (count >= target) return `full since ${when.format(fullAt ?? now)}`;
    if (closesAt !== null && (fullAt === null || fullAt > closesAt))
      return `${grouped(freeAt(target, quota, now, closesAt))} short when it closes`;
    if (count === 0) return 'nobody yet';
    return fullAt === null ? 'filling no more' : `full about ${when.format(fullAt)}`;
  };
  return (
    <section aria-label="Quotas">
      <h2>
        Quotas <small>at the pace of the last seven days</small>
      </h2>
      <ul className={classes.quotas}>
        {quotas.map((quota) => (
          <li key={quota.id}>
            <span>{quota.label}</span>
            <meter
              min={0}
              max={quota.target}
              value={Math.min(quota.count, quota.target)}
              aria-label={quota.label}
            />
            <b>
              <Figure of={{ of: 'quota', id: quota.id }} count={quota.count} words={`Quota ${quota.label}`} />{' '}
              of {grouped(quota.target)}
            </b>
            <small>{comes(quota)}</small>
          </li>
        ))}
      </ul>
    </section>
  );
}

export function Care({ fast, grids, count }: Pick<Figures, 'fast' | 'grids'> & { readonly count: number }) {
  return (
    <section aria-label="Care">
      <h2>
        Answered without care? <small>marked, not removed</small>
      </h2>
      <ul className={classes.forks}>
        <li title={`Complete in less than ${FAST} of the usual time, allowing for what each was asked`}>
          <span>
            {fast === null
              ? `fast: told from ${LEAST_FOR_PACE} complete interviews on`
              : `under half the usual time, of ${grouped(count)} complete`}
          </span>
          <i aria-hidden="true" />
          {fast !== null && (
            <Figure of={{ of: 'fast' }} count={fast.count} words="Under half the usual time" />
          )}
        </li>
        {grids.map(({ name, whole, straight }) => (
          <li key={name} title={`Of those who answered all rows, ${LEAST_ROWS} or more`}>
            <span>
              <code>{name}</code> same in each row, of {grouped(whole)}
            </span>
            <i aria-hidden="true" />
            <Figure
              of={{ of: 'straight', grid: name }}
              count={straight}
              words={`The same answer in each row of ${name}`}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Only where there are several of a kind: else the bands above say the same. */
export function Endings({ endings }: Pick<Figures, 'endings'>) {
  const kinds = endings.map(({ kind }) => kind);
  if (new Set(kinds).size === kinds.length) return null;
  return (
    <section aria-label="Endings">
      <h2>Endings</h2>
      <ul className={classes.forks}>
        {endings.map(({ id, label, kind, count }) => (
          <li key={id}>
            <span>
              <EndingMark kind={kind} /> {label}
            </span>
            <i aria-hidden="true" />
            {count === null ? (
              'not told apart'
            ) : ENDINGS[kind].keepsNothing ? (
              <span>{grouped(count)}</span>
            ) : (
              <Figure of={{ of: 'ending', id }} count={count} words={label} />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
