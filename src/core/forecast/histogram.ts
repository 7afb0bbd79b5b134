/** Lengths of interviews in bars of a whole or a simple part of a minute. */
import type { Length } from '../analysis';

export interface MinuteBar {
  /** In minutes, from and up to (not included). */
  readonly from: number;
  readonly to: number;
  /** Of those who finish, from 0 to 1. */
  readonly share: number;
}

const WIDTHS = [1 / 12, 1 / 6, 0.25, 0.5, 1, 2, 5, 10, 15, 30, 60];

/** At most so many bars, from the first that somebody is in to the last. */
export function minuteBars(lengths: readonly Length[], most = 24): MinuteBar[] {
  const total = lengths.reduce((sum, { share }) => sum + share, 0);
  const [first, last] = [lengths[0], lengths.at(-1)];
  if (total === 0 || first === undefined || last === undefined) return [];
  const [least, longest] = [first.seconds / 60, last.seconds / 60];
  const width = WIDTHS.find((each) => Math.floor(longest / each) - Math.floor(least / each) < most) ?? 120;
  const start = Math.floor(least / width);
  const bars = Array.from({ length: Math.floor(longest / width) - start + 1 }, (_, n) => ({
    from: (start + n) * width,
    to: (start + n + 1) * width,
    share: 0,
  }));
  for (const { seconds, share } of lengths) {
    const bar = bars[Math.min(bars.length - 1, Math.floor(seconds / 60 / width) - start)];
    if (bar !== undefined) bar.share += share / total;
  }
  return bars;
}

/** The share of those who finish that take longer than so many minutes. */
export function shareAbove(lengths: readonly Length[], minutes: number): number {
  const total = lengths.reduce((sum, { share }) => sum + share, 0);
  const above = lengths.reduce((sum, { seconds, share }) => (seconds > minutes * 60 ? sum + share : sum), 0);
  return total === 0 ? 0 : above / total;
}
