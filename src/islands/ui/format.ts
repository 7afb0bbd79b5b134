/** Numbers and times as the interface writes them. */
import { format, isThisYear, isToday, isYesterday } from 'date-fns';

/** 2048263 as 2,048,263; also for decimal strings of any length. */
export function grouped(count: string | number | bigint): string {
  return BigInt(count).toLocaleString('en-GB');
}

/** Grouped up to so many digits; longer counts as 5.58 × 10⁴². */
export function countText(count: string | number | bigint, digits = 10): string {
  const text = BigInt(count).toString();
  if (text.length <= digits) return grouped(count);
  const power = [...String(text.length - 1)].map((digit) => '⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(digit)]).join('');
  return `${Number(`${text[0]}.${text.slice(1, 6)}`).toFixed(2)} × 10${power}`;
}

/** The number of a route: grouped up to ten digits, of longer ones the last, by which neighbours are told apart. */
export function routeText(number: string): string {
  return number.length <= 10 ? grouped(number) : `…${number.slice(-6, -3)},${number.slice(-3)}`;
}

export function plural(count: string | number | bigint, word: string, words = `${word}s`): string {
  return `${grouped(count)} ${BigInt(count) === 1n ? word : words}`;
}

/** "14:02", "yesterday 14:02" or "3 Nov 2026, 14:02". */
export function whenText(at: number): string {
  if (isToday(at)) return format(at, 'HH:mm');
  return isYesterday(at) ? `yesterday ${format(at, 'HH:mm')}` : format(at, 'd MMM yyyy, HH:mm');
}

/** "3 Nov", or of another year "3 Nov 2025". */
export function dayText(at: number): string {
  return format(at, isThisYear(at) ? 'd MMM' : 'd MMM yyyy');
}

/** Of so many bytes: "18 kB", "1.2 MB". */
export function sizeText(bytes: number): string {
  return bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
}

/** "9 s", "12 min 30 s". */
export function secondsText(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  return `${Math.floor(whole / 60)} min${whole % 60 === 0 ? '' : ` ${whole % 60} s`}`;
}
