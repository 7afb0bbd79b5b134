/** Dates and times as people write them. */

let made: Intl.DateTimeFormat | null = null;

/** Made once it is needed: that takes longer than all of many a command. */
function format(): Intl.DateTimeFormat {
  made ??= new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  });
  return made;
}

/** “1 January 1940”, “1 January 1940, 08:15”, “08:15”: from what a document holds (`2020-01-31`, `2020-01-31T08:15`). */
export function momentWords(moment: string): string {
  const [, date, time] = /^(\d{4}-\d{2}-\d{2})?T?(.*)$/.exec(moment) ?? [];
  const day = date === undefined ? Number.NaN : Date.parse(`${date}T00:00:00Z`);
  if (Number.isNaN(day)) return moment;
  return time === undefined || time === '' ? format().format(day) : `${format().format(day)}, ${time}`;
}
