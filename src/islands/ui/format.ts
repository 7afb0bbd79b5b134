/** Numbers and times as the interface writes them. */
import { format, isToday, isYesterday } from 'date-fns';

/** 2048263 as 2,048,263; also for decimal strings of any length. */
export function grouped(count: string | number | bigint): string {
  return BigInt(count).toLocaleString('en-GB');
}

export function plural(count: string | number | bigint, word: string, words = `${word}s`): string {
  return `${grouped(count)} ${BigInt(count) === 1n ? word : words}`;
}

/** "14:02", "yesterday 14:02" or "3 Nov 2026, 14:02". */
export function whenText(at: number): string {
  if (isToday(at)) return format(at, 'HH:mm');
  return isYesterday(at) ? `yesterday ${format(at, 'HH:mm')}` : format(at, 'd MMM yyyy, HH:mm');
}
