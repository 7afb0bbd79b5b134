/** Days, shares and times as the monitor writes them. */

const at = (day: string) => Date.parse(`${day}T00:00:00Z`);
const form = (options: Intl.DateTimeFormatOptions) =>
  new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' });
const DAY = form({ day: 'numeric' });
const DAY_OF_MONTH = form({ day: 'numeric', month: 'short' });
const WEEKDAY = form({ weekday: 'short' });

/** `2026-11-29` as "29", with the month where it begins, or is wanted: "29 Nov". */
export function dayWords(day: string, withMonth: boolean): string {
  return (withMonth || day.endsWith('-01') ? DAY_OF_MONTH : DAY).format(at(day));
}

/** "Sun". */
export const weekdayOf = (day: string): string => WEEKDAY.format(at(day));

/** With one digit; "–" of nothing. */
export function shareWords(numerator: number, denominator: number): string {
  return denominator === 0 ? '–' : `${((100 * numerator) / denominator).toFixed(1)}%`;
}

/** Of seconds, with one digit: "7.4". */
export const minuteWords = (seconds: number): string => (seconds / 60).toFixed(1);
