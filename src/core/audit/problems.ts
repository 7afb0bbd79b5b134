/** What can be wrong with collected rows, each with its meaning. */

export const PROBLEMS = {
  'unexpected-answer': {
    meaning: 'something stands where the routing says that nothing was asked',
  },
  'missing-answer': { meaning: 'asked, and nothing is there' },
  'unknown-code': { meaning: 'neither a code on the list nor a missing code' },
  'out-of-limits': { meaning: 'outside the limits of the question, or refused by a check' },
  'too-many-picks': { meaning: 'more picks than allowed' },
  'too-few-picks': { meaning: 'fewer picks than allowed' },
  'contradictory-picks': { meaning: 'picks that exclude each other' },
  'wrong-number-drawn': { meaning: 'more or fewer questions answered than the section draws' },
  'wrong-ending': { meaning: 'the answers lead to another ending' },
  'duplicate-case': { meaning: 'another row has the same case number' },
  'unknown-column': { meaning: 'a column that is not in the codebook' },
  'missing-column': { meaning: 'a column of the codebook that the file lacks' },
} as const satisfies Readonly<Record<string, { readonly meaning: string }>>;

export type ProblemKind = keyof typeof PROBLEMS;
export const PROBLEM_KINDS = Object.keys(PROBLEMS) as ProblemKind[];

/** As it is called in a sentence. */
export function problemWord(kind: ProblemKind): string {
  return kind.replaceAll('-', ' ');
}
