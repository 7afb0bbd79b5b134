/** What can be wrong with collected rows, each with its meaning and where it is told. */

export interface ProblemTraits {
  readonly meaning: string;
  /** Of the file as a whole, not of a row. */
  readonly ofFile: boolean;
}

export const PROBLEMS = {
  'unexpected-answer': {
    meaning: 'something stands where the routing says that nothing was asked',
    ofFile: false,
  },
  'missing-answer': { meaning: 'asked, and nothing is there', ofFile: false },
  'unknown-code': { meaning: 'neither a code on the list nor a missing code', ofFile: false },
  'out-of-limits': { meaning: 'outside the limits of the question, or refused by a check', ofFile: false },
  'too-many-picks': { meaning: 'more picks than allowed', ofFile: false },
  'too-few-picks': { meaning: 'fewer picks than allowed', ofFile: false },
  'contradictory-picks': { meaning: 'picks that exclude each other', ofFile: false },
  'wrong-number-drawn': { meaning: 'more or fewer questions answered than the section draws', ofFile: false },
  'wrong-ending': { meaning: 'the answers lead to another ending', ofFile: false },
  'duplicate-case': { meaning: 'another row has the same case number', ofFile: false },
  'unknown-column': { meaning: 'a column that is not in the codebook', ofFile: true },
  'missing-column': { meaning: 'a column of the codebook that the file lacks', ofFile: true },
} as const satisfies Readonly<Record<string, ProblemTraits>>;

export type ProblemKind = keyof typeof PROBLEMS;
export const PROBLEM_KINDS = Object.keys(PROBLEMS) as ProblemKind[];

/** As it is called in a sentence. */
export function problemWord(kind: ProblemKind): string {
  return kind.replaceAll('-', ' ');
}
