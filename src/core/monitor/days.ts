/** On which day of the calendar a moment falls, where those who look are. */

/** Zones are set by quarters of an hour: within one, it is the same day. */
const QUARTER = 15 * 60_000;

/** Gives the day of a moment as `2026-11-29`. Throws where the zone (IANA) is not known. */
export function daysIn(zone: string): (at: number) => string {
  const format = new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  });
  /** Asked thousands of times, and slow. */
  const known = new Map<number, string>();
  return (at) => {
    const quarter = Math.floor(at / QUARTER);
    let day = known.get(quarter);
    if (day === undefined) {
      day = format.format(quarter * QUARTER);
      known.set(quarter, day);
    }
    return day;
  };
}

/** All days from one to another, both among them. */
export function daysBetween(first: string, last: string): string[] {
  const days: string[] = [];
  for (let at = Date.parse(first); at <= Date.parse(last); at += 86_400_000)
    days.push(new Date(at).toISOString().slice(0, 10));
  return days;
}
