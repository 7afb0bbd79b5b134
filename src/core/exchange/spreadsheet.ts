/** Cells of a spreadsheet as text, as a CSV file would hold them, and back. */

/** A cell's value as a spreadsheet package gives it: formulas by their result, rich text by its words. */
export function cellText(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return dateText(value);
  if (typeof value !== 'object')
    return typeof value === 'boolean' ? (value ? '1' : '0') : String(value as string | number);
  if ('result' in value) return cellText(value.result);
  if ('richText' in value && Array.isArray(value.richText))
    return (value.richText as { text?: unknown }[]).map(({ text }) => cellText(text)).join('');
  if ('text' in value) return cellText(value.text);
  if ('error' in value) return cellText(value.error);
  return '';
}

/** A day, a time of day, or both: spreadsheets keep times of day as times of the year 1899. */
function dateText(value: Date): string {
  const text = value.toISOString();
  const [day = '', time = ''] = [text.slice(0, 10), text.slice(11, 19).replace(/:00$/, '')];
  if (value.getUTCFullYear() <= 1900) return time;
  return time === '00:00' ? day : `${day}T${time}`;
}

/** A number where the text is just how that number is written; the text otherwise. */
export function spreadsheetValue(cell: string | number): string | number {
  if (typeof cell === 'number' || cell === '') return cell;
  const number = Number(cell);
  return String(number) === cell && Number.isFinite(number) ? number : cell;
}
