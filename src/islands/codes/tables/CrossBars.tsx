/** A cross-table as bars: each row's cases divided among the columns. */
import { Bar, BarChart, Legend, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Cross } from '../../../core/tables/cross';
import classes from './tables.module.css';

/** From dark to light and told apart by their place in the legend, which is the order along a bar. */
const FILLS = Array.from({ length: 9 }, (_, n) => `var(--series-${n + 1})`);
const LONGEST = 22;

interface Props {
  readonly cross: Cross;
  readonly madeUp: boolean;
}

export function CrossBars({ cross, madeUp }: Props) {
  const short = (label: string) => (label.length > LONGEST ? `${label.slice(0, LONGEST - 1)}…` : label);
  if (cross.columns.length > FILLS.length) return null;
  const data = cross.rows.map((label, n) => {
    const counts = cross.counts[n] ?? [];
    const sum = counts.reduce((all, count) => all + count, 0);
    return {
      label,
      ...Object.fromEntries(counts.map((count, m) => [`c${m}`, sum === 0 ? 0 : (100 * count) / sum])),
    };
  });
  return (
    <figure
      className={classes.chart}
      role="img"
      aria-label="Each row divided among the columns; the same figures stand in the table"
    >
      <ResponsiveContainer width="100%" height={data.length * 30 + 70}>
        <BarChart
          layout="vertical"
          data={data}
          margin={{ top: 4, right: 16, bottom: 0, left: 0 }}
          accessibilityLayer={false}
        >
          <XAxis
            type="number"
            // Shares add up to a hair more than a hundred, which is cut off instead of written below.
            domain={[0, 100]}
            allowDataOverflow
            ticks={[0, 25, 50, 75, 100]}
            tickFormatter={(tick: number) => `${tick}%`}
            tick={{ fontSize: 11, fill: 'var(--ink-soft)' }}
            stroke="var(--line)"
          />
          <YAxis
            type="category"
            dataKey="label"
            width={Math.min(150, 14 + 7 * Math.max(...cross.rows.map((label) => label.length)))}
            interval={0}
            tickFormatter={short}
            tick={{ fontSize: 11.5, fill: 'var(--ink)' }}
            stroke="var(--line)"
          />
          <Legend
            itemSorter={null}
            formatter={(name: string) => <span className={classes.legend}>{short(name)}</span>}
          />
          {cross.columns.map((name, m) => (
            <Bar
              key={m}
              dataKey={`c${m}`}
              name={name}
              stackId="all"
              fill={FILLS[m]}
              isAnimationActive={false}
              barSize={16}
            />
          ))}
        </BarChart>
      </ResponsiveContainer>
      {madeUp && <figcaption>Made-up respondents</figcaption>}
    </figure>
  );
}
