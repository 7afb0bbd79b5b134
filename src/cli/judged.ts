/** What a questionnaire's snags say of the results of a command: that they are provisional, or that a check failed. */
import { analyse, type Analysis } from '../core/analysis';
import type { Plan } from '../core/routing/plan';
import { allSnagsOf, isProvisional, type Snag } from '../core/snags';
import { faultWords } from './run';

export interface Judged {
  /** The questionnaire has a snag of the error kind. */
  readonly provisional: boolean;
  /** Of checks that failed by a fault of the program: what they would have found is not known. */
  readonly faults: readonly Error[];
}

export function judge(plan: Plan, analysis: Analysis = analyse(plan)): Judged {
  return judgedBy(allSnagsOf(plan, analysis));
}

export function judgedBy(snags: readonly Snag[]): Judged {
  return { provisional: isProvisional(snags), faults: snags.flatMap(({ fault }) => fault ?? []) };
}

/** 3 where a check failed, which is told with the call and the place; 1 where results are provisional; else 0. */
export function exitCode(
  call: readonly string[],
  { provisional, faults }: Judged,
  problem: (text: string) => void = (text) => process.stderr.write(text),
): 0 | 1 | 3 {
  for (const fault of faults) problem(`jolly-fork: ${faultWords(call, fault)}\n`);
  return faults.length > 0 ? 3 : provisional ? 1 : 0;
}
