/** How large the sample has to be: for the bases that are wanted, what it costs, and what quotas turn away. */
import { useState } from 'react';
import { readPassKey } from '../../core/document/addresses';
import type { WantedBase } from '../../core/document/types';
import type { QuotaTold } from '../../core/forecast/forecast';
import { groupKey } from '../../core/forecast/groups';
import { sampleSizes } from '../../core/forecast/sampling';
import type { Figures } from '../../worker/forecast/types';
import { useStudy } from '../state/store';
import { grouped } from '../ui/format';
import { TableHead } from '../ui/TableHead';
import classes from './came.module.css';
import { CostTable } from './CostTable';
import { countOf, percentOf } from './figures';
import { NumberField } from './NumberField';
import sampleClasses from './sample.module.css';
import type { Forecasting } from './use-forecast';
import { useSettled } from './use-settled';

interface Props {
  readonly figures: Figures;
  readonly forecasting: Forecasting;
  readonly readOnly: boolean;
}

export function SampleSheet({ figures, forecasting, readOnly }: Props) {
  return (
    <>
      <WantedTable figures={figures} forecasting={forecasting} readOnly={readOnly} />
      <CostTable figures={figures} forecasting={forecasting} readOnly={readOnly} />
      <QuotaTable forecasting={forecasting} />
    </>
  );
}

const keyOf = ({ of, pass }: WantedBase) => groupKey({ item: of, pass: pass ?? null });

function WantedTable({ figures, forecasting: { held, hold }, readOnly }: Props) {
  const wanted = held.wanted.flatMap((of) => {
    const row = figures.items.find(({ group }) => groupKey(group) === keyOf(of));
    return row === undefined ? [] : [{ of, row }];
  });
  const sizes = sampleSizes(wanted.map(({ of: { n }, row: { share } }) => ({ share, n })));
  const invited = (people: number | null) =>
    people === null || held.response === null || held.response === 0
      ? null
      : Math.ceil(people / held.response);
  const set = (next: readonly WantedBase[]) => hold({ wanted: next });
  const gone = held.wanted.length - wanted.length;
  return (
    <section className={classes.part} aria-label="Bases that are wanted">
      <h3>How many have to start</h3>
      {wanted.length === 0 ? (
        <p className={classes.none}>Say of which questions how many are wanted: add the first below.</p>
      ) : (
        <table className={classes.table}>
          <TableHead
            of={[
              'wanted of',
              'people',
              'start, 50% certain',
              '90%',
              '95%',
              <span className={sampleClasses.unseen}>take out</span>,
            ]}
          />
          <tbody>
            {wanted.map(({ of, row }, n) => (
              <tr key={keyOf(of)} data-decides={sizes.at(-1)?.decides === n || undefined}>
                <th scope="row">
                  <code>{of.pass === undefined ? of.of : `${of.of}, pass ${of.pass}`}</code>
                  {sizes.at(-1)?.decides === n && wanted.length > 1 && <small> decides</small>}
                  {row.share === 0 && <small> nobody is asked it: no number is enough</small>}
                </th>
                <td>
                  <NumberField
                    label={`Wanted of ${keyOf(of)}`}
                    value={of.n}
                    least={1}
                    most={10_000_000}
                    keep={(people) =>
                      set(held.wanted.map((each) => (each === of ? { ...each, n: people } : each)))
                    }
                  />
                </td>
                {sizes.map(({ certainty, each }) => (
                  <td key={certainty}>{peopleText(each[n] ?? null)}</td>
                ))}
                <td>
                  {!readOnly && (
                    <button
                      type="button"
                      className={sampleClasses.out}
                      aria-label={`${keyOf(of)} is not wanted`}
                      onClick={() => set(held.wanted.filter((each) => each !== of))}
                    >
                      ×
                    </button>
                  )}
                </td>
              </tr>
            ))}
            <tr className={sampleClasses.all}>
              <th scope="row">all of them at once</th>
              <td />
              {sizes.map(({ certainty, all }) => (
                <td key={certainty}>{peopleText(all)}</td>
              ))}
              <td />
            </tr>
            {held.response !== null && (
              <tr>
                <th scope="row">invitations for that, of which {percentOf(held.response)}% start</th>
                <td />
                {sizes.map(({ certainty, all }) => (
                  <td key={certainty}>{peopleText(invited(all))}</td>
                ))}
                <td />
              </tr>
            )}
          </tbody>
        </table>
      )}
      {gone > 0 && (
        <p className={classes.none}>
          {gone === 1 ? 'One base was wanted of a question' : `${gone} bases were wanted of questions`} that
          is there no more.
        </p>
      )}
      {!readOnly && figures.items.length > 0 && (
        <p className={classes.tools}>
          <label>
            {wanted.length === 0 ? 'Of' : 'Also of'}{' '}
            <select
              value=""
              aria-label="A base that is wanted"
              onChange={(event) => {
                const { name, pass } = readPassKey(event.target.value);
                if (name === '' || held.wanted.some((each) => keyOf(each) === event.target.value)) return;
                set([...held.wanted, { of: name, n: held.least, ...(pass === null ? {} : { pass }) }]);
              }}
            >
              <option value="">choose …</option>
              {figures.items.flatMap(({ group }) =>
                'item' in group ? (
                  <option key={groupKey(group)} value={groupKey(group)}>
                    {group.pass === null ? group.item : `${group.item}, pass ${group.pass}`}
                  </option>
                ) : (
                  []
                ),
              )}
            </select>
          </label>
        </p>
      )}
      {wanted.length > 1 && (
        <p className={classes.none}>
          Each by itself is exact. For all at once chances of missing are added up, which is on the safe side
          however the bases hang together.
        </p>
      )}
    </section>
  );
}

function QuotaTable({ forecasting }: Pick<Props, 'forecasting'>) {
  const { client, held } = forecasting;
  const quotas = useStudy((state) => state.document.quotas);
  const [told, setTold] = useState<readonly QuotaTold[]>([]);
  useSettled(
    forecasting,
    () => (quotas ? client.more.quotas(null).catch(() => []) : null),
    [quotas],
    setTold,
  );
  if (quotas === undefined || quotas.length === 0) return null;
  return (
    <section className={classes.part} aria-label="What quotas do">
      <h3>What quotas do</h3>
      <table className={classes.table}>
        <TableHead
          of={[
            'quota',
            'target',
            'full after, half certain',
            '95%',
            `full at ${grouped(held.starts)}`,
            'turned away',
            'completes lost',
          ]}
        />
        <tbody>
          {told.map(({ id, target, fullAt, chanceFull, turnedAway, completesLost }) => (
            <tr key={id}>
              <th scope="row">
                <code>{id}</code>
              </th>
              <td>{grouped(target)}</td>
              <td>{peopleText(fullAt[50])}</td>
              <td>{peopleText(fullAt[95])}</td>
              <td>{(100 * chanceFull).toFixed(0)}%</td>
              <td>{countOf(turnedAway)}</td>
              <td>{countOf(completesLost)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={classes.none}>
        Each quota by itself, the others open, and before anybody breaks off; on average over every order in
        which people can come.
      </p>
    </section>
  );
}

function peopleText(people: number | null): string {
  return people === null ? 'no number' : grouped(people);
}
