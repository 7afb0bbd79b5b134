/** ISO 8601 dates, times and datetimes, as the document and the condition language write them. */

const DATE = /^(\d{4})-(\d{2})-(\d{2})$/;
const TIME = /^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$/;

/** Whether `text` is a real date (leap years minded), time of day, or both joined by `T`. */
export function isDateValue(type: 'date' | 'time' | 'datetime', text: string): boolean {
  switch (type) {
    case 'date':
      return isDate(text);
    case 'time':
      return TIME.test(text);
    case 'datetime': {
      const [date, time, ...rest] = text.split('T');
      return rest.length === 0 && isDate(date ?? '') && TIME.test(time ?? '');
    }
    default:
      return type satisfies never;
  }
}

function isDate(text: string): boolean {
  const match = DATE.exec(text);
  if (match === null) return false;
  const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
  if (month < 1 || month > 12 || day < 1) return false;
  const leap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  const days = [31, leap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][month - 1] ?? 0;
  return day <= days;
}

/** With seconds written out, so that equal moments are equal texts and earlier ones sort first. */
export function normalDate(text: string): string {
  return /(^|T)\d{2}:\d{2}$/.test(text) ? `${text}:00` : text;
}
