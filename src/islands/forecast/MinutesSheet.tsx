/** How long interviews take: the exact distribution, by ending and by section, and what to cut. */
import { useState } from 'react';
import type { EndingMinutes } from '../../core/forecast/forecast';
import { minuteBars, shareAbove } from '../../core/forecast/histogram';
import { costs } from '../../core/forecast/costs';
import type { Figures } from '../../worker/forecast/types';
import { useStudy } from '../state/store';
import { grouped } from '../ui/format';
import { useAsked } from '../ui/use-asked';
import { minutesText, percentOf } from './figures';
import { MinutesChart } from './MinutesChart';
import classes from './minutes.module.css';
import type { Forecasting } from './use-forecast';

interface Props {
  readonly figures: Figures;
  readonly forecasting: Forecasting;
}

/** Items that cost most, as many as are told. */
const MOST_COSTLY = 12;

export function MinutesSheet({ figures, forecasting }: Props) {
  const { client, held } = forecasting;
  const document = useStudy((state) => state.document);
  const plan = useStudy((state) => state.plan);
  const { minutes, lengths } = figures;
  const [endings, setEndings] = useState<readonly EndingMinutes[]>([]);
  useAsked(() => client.minutesByEnding().catch(() => []), [client, figures], setEndings);
  if (minutes === null)
    return (
      <p className={classes.none}>
        Nobody finishes under these assumptions: look at where people are lost, or at the shares at the left.
      </p>
    );
  const limit = document.settings?.maxMinutes;
  const above = limit === undefined ? null : shareAbove(lengths, limit);
  const { items, sections, hours } = costs(plan, figures.items, held.starts);
  return (
    <>
      <dl className={classes.figures}>
        <Figure words="mean" value={minutesText(minutes.mean)} />
        <Figure words="1 in 10 at most" value={minutesText(minutes.p10)} />
        <Figure words="half at most" value={minutesText(minutes.median)} />
        <Figure words="9 in 10 at most" value={minutesText(minutes.p90)} />
        <Figure words="longest" value={minutesText(minutes.longest)} />
        {above !== null && (
          <Figure words={`over the limit of ${limit} min`} value={`${percentOf(above).toFixed(1)}%`} />
        )}
        <Figure words="of everybody’s time" value={`${grouped(Math.round(hours))} h`} />
      </dl>
      <MinutesChart figures={figures} limit={limit ?? null} height={190} />
      <BarsTable figures={figures} />
      <div className={classes.pair}>
        <section aria-label="Minutes by ending">
          <h3>By ending</h3>
          <table>
            <thead>
              <tr>
                <th scope="col">ending</th>
                <th scope="col">of all</th>
                <th scope="col">mean</th>
                <th scope="col">9 in 10</th>
              </tr>
            </thead>
            <tbody>
              {endings.map(({ id, share, minutes: own }) => (
                <tr key={id}>
                  <th scope="row">
                    <code>{id}</code>
                  </th>
                  <td>{percentOf(share).toFixed(1)}%</td>
                  <td>{own === null ? 'nobody' : minutesText(own.mean)}</td>
                  <td>{own === null ? '' : minutesText(own.p90)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        <section aria-label="Minutes by section">
          <h3>By section</h3>
          <table>
            <thead>
              <tr>
                <th scope="col">section</th>
                <th scope="col">of whoever is shown it</th>
                <th scope="col">hours in all</th>
              </tr>
            </thead>
            <tbody>
              {sections.map(({ id, title, hours: own }) => {
                const shown =
                  figures.sections.find(({ group }) => 'section' in group && group.section === id)
                    ?.expected ?? 0;
                return (
                  <tr key={id}>
                    <th scope="row">{title}</th>
                    <td>{shown === 0 ? 'nobody' : minutesText((own * 60) / shown)}</td>
                    <td>{own.toFixed(1)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </section>
      </div>
      <section aria-label="What to cut">
        <h3>What costs most of everybody’s time</h3>
        <table>
          <thead>
            <tr>
              <th scope="col">item</th>
              <th scope="col">seconds each time</th>
              <th scope="col">hours in all</th>
              <th scope="col">of all hours</th>
            </tr>
          </thead>
          <tbody>
            {items.slice(0, MOST_COSTLY).map(({ name, seconds, hours: own }) => (
              <tr key={name}>
                <th scope="row">
                  <code>{name}</code>
                </th>
                <td>{Math.round(seconds)}</td>
                <td>{own.toFixed(1)}</td>
                <td>{hours === 0 ? '' : `${((100 * own) / hours).toFixed(1)}%`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </>
  );
}

function Figure({ words, value }: { readonly words: string; readonly value: string }) {
  return (
    <div>
      <dt>{words}</dt>
      <dd>{value}</dd>
    </div>
  );
}

function BarsTable({ figures }: { readonly figures: Figures }) {
  const bars = minuteBars(figures.lengths);
  return (
    <details className={classes.details}>
      <summary>These minutes as a table</summary>
      <table>
        <thead>
          <tr>
            <th scope="col">minutes</th>
            <th scope="col">of those who finish</th>
          </tr>
        </thead>
        <tbody>
          {bars.map(({ from, to, share }) => (
            <tr key={from}>
              <th scope="row">
                {minutesText(from)} to {minutesText(to)}
              </th>
              <td>{percentOf(share).toFixed(1)}%</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
