/** How long interviews take: the exact distribution, by ending and by section, and what to cut. */
import { useState } from 'react';
import { Bar, BarChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { EndingMinutes } from '../../core/forecast/forecast';
import { minuteBars, shareAbove } from '../../core/forecast/histogram';
import { costs } from '../../core/forecast/costs';
import type { Figures } from '../../worker/forecast/types';
import { useStudy } from '../state/store';
import { grouped } from '../ui/format';
import { useAsked } from '../ui/use-asked';
import { minutesText, percentOf } from './figures';
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

interface ChartProps {
  readonly figures: Figures;
  readonly limit: number | null;
  readonly height: number;
}

/** Of those who finish, how many take how long. */
export function MinutesChart({ figures, limit, height }: ChartProps) {
  const bars = minuteBars(figures.lengths);
  const width = (bars[0]?.to ?? 1) - (bars[0]?.from ?? 0);
  const [first, last] = [bars[0]?.from ?? 0, bars.at(-1)?.to ?? 1];
  const start = Math.max(0, first - width);
  // A limit far off would leave no room for the bars; the figures tell of it all the same.
  const isNear = limit !== null && limit < last + (last - start) / 2;
  const end = isNear ? Math.max(last, limit + width) : last;
  return (
    <figure
      className={classes.chart}
      role="img"
      aria-label="Minutes of all who finish; the same figures stand in a table on the leaf Minutes"
    >
      <ResponsiveContainer width="100%" height={height}>
        <BarChart
          data={bars.map(({ from, to, share }) => ({ middle: (from + to) / 2, share: 100 * share }))}
          margin={{ top: 12, right: 12, bottom: 0, left: 0 }}
          barCategoryGap={1}
          accessibilityLayer={false}
        >
          <XAxis
            type="number"
            dataKey="middle"
            domain={[start, end]}
            ticks={ticksIn(start, end)}
            tickFormatter={(minutes: number) => String(Math.round(minutes * 100) / 100)}
            tick={{ fontSize: 11, fill: 'var(--ink-soft)' }}
            stroke="var(--ink)"
            unit=" min"
          />
          <YAxis hide domain={[0, 'dataMax']} />
          {isNear && (
            <ReferenceLine
              x={limit}
              stroke="var(--coral)"
              strokeDasharray="3 3"
              label={{
                value: `limit ${limit}`,
                position: 'insideTopRight',
                fontSize: 11,
                fill: 'var(--coral)',
              }}
            />
          )}
          <Bar dataKey="share" fill="var(--pine-mid)" isAnimationActive={false} />
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}

const TICKS = [0.25, 0.5, 1, 2, 5, 10, 20, 30];
const MOST_TICKS = 6;

/** Whole minutes, or simple parts of one, few enough to be read. */
function ticksIn(start: number, end: number): number[] {
  const step = TICKS.find((each) => (end - start) / each <= MOST_TICKS) ?? 60;
  const first = Math.ceil(start / step);
  return Array.from(
    { length: Math.max(0, Math.floor(end / step) - first + 1) },
    (_, n) => (first + n) * step,
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
