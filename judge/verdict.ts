/** What a reader saw of a file. */
export interface Verdict {
  readonly file: string;
  readonly reader: string;
  readonly saw: string;
  readonly ok: boolean;
}

/** A few of those that are missing. */
export function lackingWords(lacking: readonly string[]): string {
  return lacking.length === 0 ? 'nothing is missing' : `missing: ${lacking.slice(0, 5).join('; ')}`;
}
