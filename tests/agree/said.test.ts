/**
 * Who is asked, as it is printed: on every kind of generated questionnaire, against everybody there can be or, where
 * answers have many values, against people whose values are not those that the analysis tries.
 */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, it } from 'node:test';
import { fileURLToPath } from 'node:url';
import { analyse } from '../../src/core/analysis';
import { passKey } from '../../src/core/document/addresses';
import { readDocument } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { planOf } from '../../src/core/routing/planner';
import { walk, type Walk } from '../../src/core/routing/walk';
import { planFor } from '../support/questionnaire';
import { intOf } from './changes';
import { randomChain, randomDocument } from './documents';
import { caseOf } from './judges';
import { randomCounts, randomManyOptions } from './many-options';
import { judgeReadable, judgeSaid } from './said';
import { seedsToTry } from './seeds';
import { wideDocument, wideValue } from './wide';

/** With the seeds that once failed. */
const SMALL = seedsToTry([216, 2032, 20705], 50);
const WIDE = seedsToTry([], 50);

function judgeAll(plan: Plan, about: string, most: number): boolean {
  const found = caseOf(plan, about, most);
  if (found === null) return false;
  judgeReadable(plan, found.analysis, about);
  // Whom a full quota leads away, or a hard check keeps, may be counted in or not.
  const sure = (plan.document.quotas ?? []).length === 0 && !JSON.stringify(plan.document).includes('"hard"');
  if (sure)
    judgeSaid(
      plan,
      found.analysis,
      found.people.map((each) => each.walk),
      about,
      true,
    );
  return true;
}

function somePeople(document: Questionnaire, plan: Plan, seed: number, count: number): Walk[] {
  const int = intOf(seed + 9_000_000);
  return Array.from({ length: count }, (_, n) => {
    const answers = Object.fromEntries(
      document.sections.flatMap(({ items, repeat }) =>
        items.flatMap((item) => {
          if (item.kind !== 'question') return [];
          const passes = repeat === undefined ? [null] : Array.from({ length: repeat.max }, (__, p) => p + 1);
          return passes.map((pass) => [passKey(item.name, pass), wideValue(int, item)] as const);
        }),
      ),
    );
    const result = walk(plan, { answers, seed: n });
    assert.ok(result.ok);
    assert.notEqual(result.walk.ending, null, JSON.stringify(answers));
    return result.walk;
  });
}

describe('who is asked, in print', () => {
  for (const [make, words] of [
    [randomDocument, 'small questionnaires'],
    [randomChain, 'chains of sections'],
    [randomManyOptions, 'questions of many options'],
    [randomCounts, 'how many options are picked'],
  ] as const)
    it(`can be read where it stands, holds for just those asked, and has nothing to spare: ${words}`, () => {
      const compared = SMALL.all.filter((seed) =>
        judgeAll(planFor(make(seed)), `${words}, seed ${seed}`, 3000),
      );
      assert.ok(compared.length > SMALL.count * 0.3, `only ${compared.length} were small enough`);
    });

  it(`does so for values that nobody tried, on ${WIDE.words} about numbers, dates, times and picks`, () => {
    for (const seed of WIDE.all) {
      const document = wideDocument(seed);
      const plan = planFor(document);
      const analysis = analyse(plan);
      const about = `wide, seed ${seed}`;
      assert.deepEqual(plan.problems, [], about);
      judgeReadable(plan, analysis, about);
      judgeSaid(plan, analysis, somePeople(document, plan, seed, 150), about, false);
    }
  });

  it('is in the values of the author, without each or pass elsewhere, and short', () => {
    const here = path.dirname(fileURLToPath(import.meta.url));
    const said = (name: string) => {
      const text = readFileSync(path.join(here, '..', 'findings', `${name}.fork.json`), 'utf8');
      const read = readDocument(JSON.parse(text));
      assert.ok(read.ok);
      return Object.fromEntries(analyse(planOf(read.document)).asked);
    };
    assert.deepEqual(said('times-in-words'), {
      left_home: 'always',
      moved: 'always',
      early_or_late: 'left_home not in (08:15..17:30)',
      before: 'moved < 2020-03-01',
      after: 'left_home > 17:30 and moved >= 2020-03-01',
    });
    assert.equal(said('leaks-84').v_11, 'not Q7 in (1.5..4, 7.2) and (Item1 has any (2, 3, 98) or Q7 asked)');
    assert.equal(said('leaks-132').v_7, 'Item2 has any (1, 2) or not Item2 has 3');
    assert.equal(said('count-of-thirty').block, 'tools has 7 and count(tools) >= 4');
    assert.equal(said('count-of-thirty').either, 'tools has 30 or count(tools) >= 5');
    assert.equal(said('leaks-148').q13, 'not Item3 in (2, 3) and (q2 = 2 or v_1 <> q2)');
  });
});
