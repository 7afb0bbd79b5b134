/** Lines of a pasted list that somebody wants read as something else than they look. */
import type { LineKind } from '../../core/exchange/from-list';

/** By the line's words and which of those with the same words it is: writing elsewhere in the list moves no choice. */
export type Readings = ReadonlyMap<string, LineKind>;

/** The readings by line, from 1, as the reader of lists takes them. */
export function byLine(source: string, readings: Readings): Map<number, LineKind> {
  const found = new Map<number, LineKind>();
  keysOf(source).forEach((key, index) => {
    const kind = readings.get(key);
    if (kind !== undefined) found.set(index + 1, kind);
  });
  return found;
}

/** With one line, from 1, read as `kind`; null lets it be read as it looks again. */
export function withReading(
  source: string,
  readings: Readings,
  line: number,
  kind: LineKind | null,
): Readings {
  const key = keysOf(source)[line - 1];
  const next = new Map(readings);
  if (key === undefined) return next;
  if (kind === null) next.delete(key);
  else next.set(key, kind);
  return next;
}

function keysOf(source: string): string[] {
  const seen = new Map<string, number>();
  return source.split(/\r\n|\r|\n/).map((text) => {
    const words = text.trim();
    const nth = (seen.get(words) ?? 0) + 1;
    seen.set(words, nth);
    return `${nth} ${words}`;
  });
}
