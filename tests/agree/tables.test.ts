/** Tables and filters over rows put together by what they hold, against every row looked at by itself. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import heating from '../../demo/tern-valley-home-heating.fork.json';
import { holds } from '../../src/core/condition/evaluate';
import { parseCondition } from '../../src/core/condition/parse';
import type { Questionnaire } from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import { caseOf, casesOf } from '../../src/core/tables/cases';
import { crossOf } from '../../src/core/tables/cross';
import { Dataset } from '../../src/core/tables/dataset';
import { filterRows } from '../../src/core/tables/filter';
import { tableVariables } from '../../src/core/tables/variables';
import { planFor } from '../support/questionnaire';
import { randomChain, randomDocument } from './documents';
import { FEATURED } from './featured';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([], 60);

/** Every text of a document that is a condition. */
function conditionsIn(value: unknown): string[] {
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, of]) =>
    ['if', 'askIf'].includes(key) && typeof of === 'string' ? [of] : conditionsIn(of),
  );
}

function agree(plan: Plan, about: string, people: number): number {
  const rows = [...madeUpRespondents(plan, people, 5)].map((person) => person.row());
  // Everybody twice, the first of them blank: rows that are alike in all.
  const data = Dataset.ofRows(plan, [rows[0]?.map(() => '') ?? [], ...rows, ...rows]);
  const every = Array.from({ length: data.count }, (_, n) => n);
  let filtered = 0;
  for (const text of new Set(conditionsIn(plan.document))) {
    const left = filterRows(plan, data, text);
    const parsed = parseCondition(text);
    if (!left.ok || !parsed.ok) continue;
    filtered += 1;
    const byItself = every.filter((row) => holds(parsed.tree, data.environmentOf(row)));
    assert.deepEqual([...left.rows], byItself, `${about}: ${text}`);
  }
  const variables = tableVariables(plan);
  const some = every.filter((row) => row % 3 !== 0);
  variables.forEach((variable, n) => {
    const where = `${about}: ${variable.id}`;
    const count = (list: readonly (readonly [unknown, number])[]) => {
      const counted = new Map<string, number>();
      for (const [of, times] of list)
        counted.set(JSON.stringify(of), (counted.get(JSON.stringify(of)) ?? 0) + times);
      return counted;
    };
    const passes = variable.passes.map((_, pass) => pass);
    assert.deepEqual(
      count(casesOf(data, variable, some).map(({ of, times }) => [of, times] as const)),
      count(some.flatMap((row) => passes.map((pass) => [caseOf(data, variable, row, pass), 1] as const))),
      where,
    );
    const other = variables[(n * 7 + 3) % variables.length];
    const cross = other === undefined ? null : crossOf(data, variable, other, some);
    if (cross === null || other === undefined) return;
    const pairs = some.flatMap((row) =>
      passes.map((pass) => [caseOf(data, variable, row, pass), caseOf(data, other, row, pass)] as const),
    );
    const answered = pairs.filter(([a, b]) => a.state === 'answered' && b.state === 'answered');
    assert.equal(cross.cases, answered.length, `${where} by ${other.id}`);
    assert.equal(cross.without.row, pairs.filter(([a]) => a.state !== 'answered').length, where);
  });
  return filtered;
}

describe('rows that are alike are counted as rows are', () => {
  it('on questionnaires with every property, and on the heating study', () => {
    const filtered = FEATURED.map((document, n) => agree(planFor(document), `featured ${n}`, 30));
    filtered.push(agree(planFor(heating as unknown as Questionnaire), 'heating', 40));
    assert.ok(filtered.reduce((sum, count) => sum + count) > 40);
  });
  it(`on ${SEEDS.words}`, () => {
    for (const seed of SEEDS.all) {
      agree(planFor(randomDocument(seed)), `document ${seed}`, 12);
      agree(planFor(randomChain(seed)), `chain ${seed}`, 12);
    }
  });
});
