/** Of those who finish, how many take how long: bars, and the limit of the study where it is near them. */
import { Bar, BarChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { minuteBars } from '../../core/forecast/histogram';
import type { Figures } from '../../worker/forecast/types';
import { minutesText } from './figures';
import classes from './minutes.module.css';

interface Props {
  readonly figures: Figures;
  readonly limit: number | null;
  readonly height: number;
}

export function MinutesChart({ figures, limit, height }: Props) {
  const bars = minuteBars(figures.lengths);
  const width = (bars[0]?.to ?? 1) - (bars[0]?.from ?? 0);
  const [first, last] = [bars[0]?.from ?? 0, bars.at(-1)?.to ?? 1];
  const start = Math.max(0, first - width);
  // A limit far off would leave no room for the bars; the figures tell of it all the same.
  const isNear = limit !== null && limit < last + (last - start) / 2;
  // One bar alone stands where all of them are, not in the middle of its bin.
  const at = bars.length === 1 ? (figures.minutes?.mean ?? null) : null;
  const end = isNear ? Math.max(last, limit + width) : last;
  return (
    <figure
      className={classes.chart}
      role="img"
      aria-label="Minutes of all who finish; the same figures stand in a table on the leaf Minutes"
    >
      <ResponsiveContainer width="100%" height={height}>
        <BarChart
          data={bars.map(({ from, to, share }) => ({ middle: at ?? (from + to) / 2, share: 100 * share }))}
          margin={{ top: 12, right: 12, bottom: 0, left: 0 }}
          barCategoryGap={1}
          accessibilityLayer={false}
        >
          <XAxis
            type="number"
            dataKey="middle"
            domain={[start, end]}
            ticks={ticksIn(start, end)}
            tickFormatter={minutesText}
            tick={{ fontSize: 11, fill: 'var(--ink-soft)' }}
            stroke="var(--ink)"
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
          <Bar
            dataKey="share"
            fill="var(--pine-mid)"
            isAnimationActive={false}
            // The chart takes the width from what is between two bars: of one alone it would be none.
            {...(bars.length === 1 && { barSize: 32 })}
          />
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}

const TICKS = [1 / 60, 1 / 12, 0.25, 0.5, 1, 2, 5, 10, 20, 30];
const MOST_TICKS = 6;

/** Whole minutes or seconds, few enough to be read. */
function ticksIn(start: number, end: number): number[] {
  const step = TICKS.find((each) => (end - start) / each <= MOST_TICKS) ?? 60;
  const first = Math.ceil(start / step);
  return Array.from(
    { length: Math.max(0, Math.floor(end / step) - first + 1) },
    (_, n) => (first + n) * step,
  );
}
