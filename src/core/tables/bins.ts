/** Values that are too many to list, put together: numbers in steps that read well, moments by month or hour. */

/** Different values listed one by one at most. */
export const MOST_LISTED = 15;

export interface Bin {
  readonly label: string;
  has(value: number | string): boolean;
}

/** One bin a value where they are few, in order. */
export function binsOf(values: readonly (number | string)[], kind: 'numbers' | 'moments'): Bin[] {
  const different = [...new Set(values)].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
  if (different.length <= MOST_LISTED)
    return different.map((value) => ({ label: String(value), has: (of) => of === value }));
  return kind === 'numbers' ? steps(different as number[]) : moments(different as string[]);
}

/** Up to some ten bins of 1, 2 or 5 times a power of ten, from a multiple of that. */
function steps(different: readonly number[]): Bin[] {
  const [least = 0, most = 0] = [different[0], different.at(-1)];
  const power = 10 ** Math.floor(Math.log10((most - least) / 10));
  const step =
    [1, 2, 5, 10].map((factor) => factor * power).find((each) => (most - least) / each <= 12) ?? 10 * power;
  const whole = step >= 1 && different.every(Number.isInteger);
  const digits = Math.max(0, -Math.floor(Math.log10(step) + 1e-9));
  const first = Math.floor(least / step);
  const bins: Bin[] = [];
  for (let n = first; n * step <= most; n += 1) {
    const [from, to] = [n * step, (n + 1) * step];
    const label = whole
      ? step === 1
        ? String(from)
        : `${from} to ${to - 1}`
      : `${from.toFixed(digits)} to under ${to.toFixed(digits)}`;
    bins.push({ label, has: (value) => Number(value) >= from && Number(value) < to });
  }
  return bins;
}

/** Days by month, or by year where those are too many; times of day by hour. */
function moments(different: readonly string[]): Bin[] {
  const day = different[0]?.includes('-') === true;
  const by = (length: number) => [...new Set(different.map((value) => value.slice(0, length)))];
  const starts = day ? (by(7).length <= 2 * MOST_LISTED ? by(7) : by(4)) : by(2);
  return starts.map((start) => ({
    label: day ? start : `${start}:00 to ${start}:59`,
    has: (value) => String(value).startsWith(start),
  }));
}
