/** Problems of an audit in words. */
import { PROBLEMS, problemWord, type ProblemKind } from '../audit/problems';
import type { RowProblem } from '../audit/types';

/** A problem of a row with what is known beyond its kind; `ending` gives an ending's words. */
export function problemAt({ problem, instead }: RowProblem, ending: (id: string) => string): string {
  const kind = problemWord(problem);
  if (instead === undefined) return kind;
  if (problem === 'wrong-ending')
    return instead === '' ? `${kind}: they stop part-way` : `${kind}: they lead to ${ending(instead)}`;
  return `${kind}: row ${instead} has it as well`;
}

export function problemWords(kind: ProblemKind): string {
  return PROBLEMS[kind].meaning;
}
