/** Which rows of a dataset a condition holds for, written in the condition language as after the last section. */
import type { ConditionProblem } from '../condition/scope';
import { holds } from '../condition/evaluate';
import { parseCondition } from '../condition/parse';
import { conditionProblems } from '../condition/resolve';
import type { Plan } from '../routing/plan';
import type { Dataset } from './dataset';

export type Filtered =
  | { readonly ok: true; readonly rows: readonly number[] }
  | { readonly ok: false; readonly problem: Pick<ConditionProblem, 'message' | 'span'> };

/** An empty text leaves all rows. */
export function filterRows(plan: Plan, data: Dataset, text: string): Filtered {
  const all = Array.from({ length: data.count }, (_, row) => row);
  if (text.trim() === '') return { ok: true, rows: all };
  const parsed = parseCondition(text);
  if (!parsed.ok) return { ok: false, problem: parsed.problem };
  const [problem] = conditionProblems(parsed.tree, {
    document: plan.document,
    variables: plan.variables,
    before: { section: plan.sections.length, item: 0 },
    openPass: null,
    inputsOf: (index) => plan.derived[index]?.inputs ?? [],
  });
  if (problem !== undefined) return { ok: false, problem };
  return { ok: true, rows: all.filter((row) => holds(parsed.tree, data.environmentOf(row))) };
}
