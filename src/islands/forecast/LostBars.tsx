/** Bars of one kind of people below each other, of all who start; those of another chart above or below line up with them. */
import { Bar, BarChart, Cell, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { countOf } from './figures';
import classes from './lost.module.css';

export interface LostStep {
  readonly id: string;
  readonly words: string;
  /** Of all who start. */
  readonly share: number;
  /** The same if nobody broke off; null where nobody does. */
  readonly whole: number | null;
  readonly colour: string;
}

interface Props {
  readonly title: string;
  readonly steps: readonly LostStep[];
  readonly starts: number;
  readonly hasAxis: boolean;
}

export function LostBars({ title, steps, starts, hasAxis }: Props) {
  const hasWhole = steps.some(({ whole }) => whole !== null);
  return (
    <figure className={classes.chart}>
      <figcaption>{title}</figcaption>
      <div role="img" aria-label={`${title}: the same figures stand in the tables`}>
        <ResponsiveContainer width="100%" height={steps.length * 24 + (hasAxis ? 28 : 4)}>
          <BarChart
            layout="vertical"
            data={steps.map((step) => ({
              ...step,
              people: step.share * starts,
              unbroken: step.whole === null ? null : step.whole * starts,
            }))}
            margin={{ top: 0, right: 40, bottom: 0, left: 0 }}
            accessibilityLayer={false}
          >
            <XAxis
              type="number"
              domain={[0, starts]}
              hide={!hasAxis}
              tick={{ fontSize: 11, fill: 'var(--ink-soft)' }}
              tickFormatter={countOf}
              stroke="var(--line)"
            />
            <YAxis
              type="category"
              dataKey="words"
              width={170}
              interval={0}
              tick={{ fontSize: 12, fill: 'var(--ink)' }}
              stroke="var(--line)"
            />
            {hasWhole && (
              <Bar dataKey="unbroken" fill="var(--series-4)" isAnimationActive={false} barSize={6} />
            )}
            <Bar
              dataKey="people"
              isAnimationActive={false}
              barSize={hasWhole ? 9 : 13}
              label={{
                position: 'right',
                fontSize: 11.5,
                fill: 'var(--ink)',
                formatter: (people: unknown) => countOf(Number(people)),
              }}
            >
              {steps.map(({ id, colour }) => (
                <Cell key={id} fill={colour} />
              ))}
            </Bar>
          </BarChart>
        </ResponsiveContainer>
      </div>
    </figure>
  );
}
