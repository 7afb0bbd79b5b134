/** Which rows of a dataset a condition holds for, written in the condition language as after the last section. */
import { holds } from '../condition/evaluate';
import { parseCondition } from '../condition/parse';
import { conditionProblems } from '../condition/resolve';
import type { ConditionProblem } from '../condition/scope';
import { eachName, type Condition } from '../condition/syntax';
import type { Plan } from '../routing/plan';
import type { Dataset } from './dataset';

export type Filtered =
  | { readonly ok: true; readonly rows: Uint32Array }
  | { readonly ok: false; readonly problem: Pick<ConditionProblem, 'message' | 'span'> };

/** An empty text leaves all rows. */
export function filterRows(plan: Plan, data: Dataset, text: string): Filtered {
  const all = Uint32Array.from({ length: data.count }, (_, row) => row);
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
  // Rows alike in all that it reads are alike to it.
  const columns = columnsRead(plan, data, parsed.tree);
  const { of, groups } = data.alikeIn([...columns], all);
  const isLeft = groups.map(({ row }) => holds(parsed.tree, data.environmentOf(row, columns)));
  return { ok: true, rows: all.filter((row) => isLeft[of[row] as number]) };
}

/** Columns of the variables that it names, of those that these are derived from, and of what says how often they are asked. */
function columnsRead(plan: Plan, data: Dataset, tree: Condition): ReadonlySet<number> {
  const names = new Set<string>();
  const add = (name: string) => {
    if (names.has(name)) return;
    names.add(name);
    const variable = plan.variables.get(name);
    if (variable?.of === 'derived')
      for (const { variable: input } of plan.derived[variable.index]?.inputs ?? [])
        add(input.name.toLowerCase());
    const placed = variable?.of === 'question' || variable?.of === 'row';
    const driver = placed ? plan.sections[variable.section]?.repeat?.driver : null;
    if (driver != null) add(driver.name.toLowerCase());
  };
  eachName(tree, ({ name }) => add(name.toLowerCase()));
  return new Set([...names].flatMap((name) => data.columnsFor(name)));
}
