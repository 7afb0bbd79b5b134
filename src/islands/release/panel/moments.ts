/** Moments of a panel's clock in words: it knows no time zone but UTC. */

const DAY_WORDS = new Intl.DateTimeFormat('en-GB', {
  ...{ weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' },
});
const MOMENT_WORDS = new Intl.DateTimeFormat('en-GB', {
  ...{ weekday: 'long', day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit', timeZone: 'UTC' },
});

/** "Mon 30 Nov". */
export const dayWords = (at: number): string => DAY_WORDS.format(at).replace(',', '');

/** "Monday 30 November, 09:00". */
export const momentWords = (at: number): string =>
  MOMENT_WORDS.format(at).replace(',', '').replace(' at ', ', ');
