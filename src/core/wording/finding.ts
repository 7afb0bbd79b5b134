/** What a table's figures may be said to be of: the sentence that each base allows. */

export interface Finding {
  readonly label: string;
  readonly count: number;
  readonly all: number;
  readonly asked: number;
  readonly answered: number;
  /** A case is one pass of a repeated section, not a respondent. */
  readonly passes: boolean;
  /** The rows are of respondents made up by the assumed answers: no sentence may read as a result. */
  readonly madeUp: boolean;
}

/** `where`: who is asked, in words; null where everybody is, or it is not known. */
export function findingSentences(
  { label, count, all, asked, answered, passes, madeUp }: Finding,
  where: string | null,
): string[] {
  const plain = passes ? ['passes', 'pass'] : ['respondents', 'respondent'];
  const [respondents, one] = plain.map((word) => (madeUp ? `made-up ${word}` : word)) as [string, string];
  const those = madeUp ? `those ${respondents}` : 'those';
  const said = `say “${label}”`;
  const of = (n: number) => `n = ${n.toLocaleString('en-GB')}`;
  const percent = (n: number) => (n === 0 ? '0%' : `${((100 * count) / n).toFixed(0)}%`);
  const everyone = `Of ${all === 1 ? `the one ${one}` : `all ${respondents}`} (${of(all)}), ${percent(all)} ${said}.`;
  if (asked === all && answered === all) return [everyone];
  const base = where === null ? `Of ${those} asked` : `Of ${those} asked, where ${where}`;
  const sentences: string[] = [];
  if (asked !== all) sentences.push(`${base} (${of(asked)}), ${percent(asked)} ${said}.`);
  if (answered !== asked)
    sentences.push(`Of ${those} who gave an answer (${of(answered)}), ${percent(answered)} ${said}.`);
  return [...sentences, everyone];
}
