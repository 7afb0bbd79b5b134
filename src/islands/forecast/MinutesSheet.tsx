/** How long interviews take: the exact distribution, by ending and by section, and what to cut. */
import { useState, type ReactNode } from 'react';
import type { EndingMinutes, SectionMinutes } from '../../core/forecast/forecast';
import { minuteBars, shareAbove } from '../../core/forecast/histogram';
import { costs } from '../../core/forecast/costs';
import type { Figures } from '../../worker/forecast/types';
import { useStudy } from '../state/store';
import { useAsked } from '../ui/use-asked';
import { hoursText, minutesText, percentOf } from './figures';
import { LongestRoute } from './LongestRoute';
import { MinutesChart } from './MinutesChart';
import { TableHead } from '../ui/TableHead';
import classes from './minutes.module.css';
import { PaceTable } from './PaceTable';
import type { Forecasting } from './use-forecast';
import { useSettled } from './use-settled';

interface Props {
  readonly figures: Figures;
  readonly forecasting: Forecasting;
  readonly readOnly: boolean;
}

/** Items that cost most, as many as are told. */
const MOST_COSTLY = 12;

export function MinutesSheet({ figures, forecasting, readOnly }: Props) {
  const { client, held } = forecasting;
  const document = useStudy((state) => state.document);
  const plan = useStudy((state) => state.plan);
  const { minutes, lengths } = figures;
  const [endings, setEndings] = useState<readonly EndingMinutes[]>([]);
  const [bySection, setBySection] = useState<readonly SectionMinutes[]>([]);
  useAsked(() => client.more.minutesByEnding().catch(() => []), [client, figures], setEndings);
  useSettled(forecasting, () => client.more.minutesBySection().catch(() => []), [], setBySection);
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
        <Figure words="longest" value={minutesText(minutes.longest)}>
          {figures.longest !== null && <LongestRoute longest={figures.longest} />}
        </Figure>
        {above !== null && (
          <Figure words={`over the limit of ${limit} min`} value={`${percentOf(above).toFixed(1)}%`} />
        )}
        <Figure words="of everybody’s time" value={hoursText(hours)} />
      </dl>
      <MinutesChart figures={figures} limit={limit ?? null} height={190} />
      <BarsTable figures={figures} />
      <div className={classes.tables}>
        <section aria-label="Minutes by ending">
          <h3>By ending</h3>
          <table>
            <TableHead of={['ending', 'of all', 'mean', '9 in 10']} />
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
            <TableHead of={['section', 'mean', '1 in 10', 'half', '9 in 10', 'time in all']} />
            <tbody>
              {sections.map(({ id, title, hours: own }) => {
                const taken = bySection.find((of) => of.id === id)?.minutes ?? null;
                return (
                  <tr key={id}>
                    <th scope="row">{title}</th>
                    <td>{taken === null ? 'nobody' : minutesText(taken.mean)}</td>
                    <td>{taken === null ? '' : minutesText(taken.p10)}</td>
                    <td>{taken === null ? '' : minutesText(taken.median)}</td>
                    <td>{taken === null ? '' : minutesText(taken.p90)}</td>
                    <td>{hoursText(own)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </section>
      </div>
      <p className={classes.source}>
        Minutes of a section: of those who are shown anything of it and finish
        {held.breakOff > 0 && ', before anybody breaks off'}; 1 in 10, half and 9 in 10 take at most as long.
      </p>
      <section aria-label="What to cut">
        <h3>What costs most of everybody’s time</h3>
        <table>
          <TableHead of={['item', 'seconds each time', 'time in all', 'of all time']} />
          <tbody>
            {items.slice(0, MOST_COSTLY).map(({ name, seconds, hours: own }) => (
              <tr key={name}>
                <th scope="row">
                  <code>{name}</code>
                </th>
                <td>{Math.round(seconds)}</td>
                <td>{hoursText(own)}</td>
                <td>{hours === 0 ? '' : `${((100 * own) / hours).toFixed(1)}%`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <PaceTable readOnly={readOnly} />
    </>
  );
}

interface FigureProps {
  readonly words: string;
  readonly value: string;
  readonly children?: ReactNode;
}

function Figure({ words, value, children }: FigureProps) {
  return (
    <div>
      <dt>{words}</dt>
      <dd>
        {value} {children}
      </dd>
    </div>
  );
}

function BarsTable({ figures }: { readonly figures: Figures }) {
  const bars = minuteBars(figures.lengths);
  return (
    <details className={classes.details}>
      <summary>These minutes as a table</summary>
      <table>
        <TableHead of={['minutes', 'of those who finish']} />
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
