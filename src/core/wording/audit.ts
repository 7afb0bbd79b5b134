/** Problems of an audit in words. */
import type { ProblemKind, RowProblem } from '../audit/types';

const WORDS: Readonly<Record<ProblemKind, string>> = {
  'unexpected-answer': 'something stands where the routing says that nothing was asked',
  'missing-answer': 'asked, and nothing is there',
  'unknown-code': 'neither a code on the list nor a missing code',
  'out-of-limits': 'outside the limits of the question, or refused by a check',
  'too-many-picks': 'more picks than allowed',
  'too-few-picks': 'fewer picks than allowed',
  'contradictory-picks': 'picks that exclude each other',
  'wrong-number-drawn': 'more or fewer questions answered than the section draws',
  'wrong-ending': 'the answers lead to another ending',
  'duplicate-case': 'another row has the same case number',
  'unknown-column': 'a column that is not in the codebook',
  'missing-column': 'a column of the codebook that the file lacks',
};

/** A problem of a row with what is known beyond its kind; `ending` gives an ending's words. */
export function problemAt({ problem, instead }: RowProblem, ending: (id: string) => string): string {
  const kind = problem.replaceAll('-', ' ');
  if (instead === undefined) return kind;
  if (problem === 'wrong-ending')
    return instead === '' ? `${kind}: they stop part-way` : `${kind}: they lead to ${ending(instead)}`;
  return `${kind}: row ${instead} has it as well`;
}

export function problemWords(kind: ProblemKind): string {
  return WORDS[kind];
}
