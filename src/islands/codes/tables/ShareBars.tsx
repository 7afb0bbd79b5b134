/** Shares as bars, beside the table that says the same in figures. */
import { Bar, BarChart, CartesianGrid, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import classes from './tables.module.css';

interface Props {
  readonly title: string;
  /** Shares in percent. */
  readonly bars: readonly { readonly label: string; readonly share: number }[];
}

const BAR = 26;
const LONGEST = 22;

export function ShareBars({ title, bars }: Props) {
  if (bars.length === 0) return <div className={classes.chart} />;
  const short = (label: string) => (label.length > LONGEST ? `${label.slice(0, LONGEST - 1)}…` : label);
  const most = Math.max(...bars.map(({ share }) => share));
  return (
    <figure className={classes.chart} role="img" aria-label={`${title}; the same figures stand in the table`}>
      <ResponsiveContainer width="100%" height={bars.length * BAR + 34}>
        <BarChart
          layout="vertical"
          data={bars.map(({ label, share }, at) => ({ at: `${at} ${label}`, share }))}
          margin={{ top: 0, right: 16, bottom: 0, left: 0 }}
          accessibilityLayer={false}
        >
          <CartesianGrid horizontal={false} stroke="var(--line-soft)" />
          <XAxis
            type="number"
            domain={[0, Math.min(100, Math.max(10, Math.ceil(most / 10) * 10))]}
            tickFormatter={(tick: number) => `${tick}%`}
            tick={{ fontSize: 11, fill: 'var(--ink-soft)' }}
            stroke="var(--line)"
          />
          <YAxis
            type="category"
            dataKey="at"
            width={Math.min(150, 14 + 7 * Math.max(...bars.map(({ label }) => label.length)))}
            interval={0}
            tickFormatter={(key: string) => short(key.slice(key.indexOf(' ') + 1))}
            tick={{ fontSize: 11.5, fill: 'var(--ink)' }}
            stroke="var(--line)"
          />
          <Bar dataKey="share" fill="var(--pine-mid)" isAnimationActive={false} barSize={13} />
        </BarChart>
      </ResponsiveContainer>
      <figcaption>{title.split(',')[0]}</figcaption>
    </figure>
  );
}
