/**
 * What another implementation showed, held against the routing: whoever followed the test pack agrees and has tried every
 * fork; one step left out, put in or answered otherwise is told where it happened.
 */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { analyse } from '../../src/core/analysis';
import { countedForks, forksTaken } from '../../src/core/release/forks-taken';
import { FULL } from '../../src/core/release/steps';
import { testPack, type PackStep } from '../../src/core/release/test-pack';
import { Verification, type ObservedStep } from '../../src/core/release/verify';
import type { Plan } from '../../src/core/routing/plan';
import { planOf } from '../../src/core/routing/planner';
import { walk } from '../../src/core/routing/walk';
import { repeatedCodes } from '../../src/core/snags/repeated-codes';
import { intOf } from './changes';
import { randomChain, randomDocument } from './documents';
import { FEATURED } from './featured';
import { forksMet, withLastPasses } from './forks-met';
import { seedsToTry } from './seeds';

const SEEDS = seedsToTry([], 150);
const DOCUMENTS = [
  ...FEATURED,
  ...SEEDS.all.flatMap((seed) => [randomDocument(seed), randomChain(seed)]),
].filter((document) => repeatedCodes(document).length === 0);

const observed = (steps: readonly PackStep[]): ObservedStep[] =>
  steps.map(({ step, item, answer }) => ({ step: String(step), item, answer }));

function verified(plan: Plan, all: readonly (readonly ObservedStep[])[]) {
  const verification = new Verification(plan, analyse(plan));
  all.forEach((steps, n) => verification.take(`R${n + 1}`, steps));
  return verification.result();
}

describe('the test pack and what comes back of it', () => {
  it(`agree, and take every fork, ${SEEDS.words}`, () => {
    let taken = 0;
    for (const [n, document] of DOCUMENTS.entries()) {
      const plan = planOf(document);
      const analysis = analyse(plan);
      const { respondents } = testPack(plan, analysis);
      const result = verified(
        plan,
        respondents.map(({ steps }) => observed(steps)),
      );
      assert.deepEqual(result.differ, [], `document ${n}`);
      assert.deepEqual(result.forks.untaken, [], `document ${n}`);
      assert.equal(result.forks.all, analysis.cover.outcomes, `document ${n}`);
      assert.equal(result.agree, respondents.length);
      // Nobody need be told which quotas were full: what was shown tells.
      if ((document.quotas ?? []).length <= 4) {
        const untold = respondents.map(({ steps }) => observed(steps).filter(({ item }) => item !== FULL));
        assert.deepEqual(verified(plan, untold).differ, [], `document ${n}, quotas not told`);
      }
      taken += result.forks.all;
      // Told from a walk as another program tells it.
      for (const { walked } of respondents) {
        const done = walk(plan, walked);
        assert.ok(done.ok);
        assert.equal(
          countedForks(forksTaken(plan, done.walk)).length,
          withLastPasses(forksMet(plan, done.walk)).size,
          `document ${n}`,
        );
      }
    }
    assert.ok(taken > 10 * SEEDS.count);
  });

  it(`part at the very step that was left out or put in, ${SEEDS.words}`, () => {
    let tried = 0;
    for (const [n, document] of DOCUMENTS.entries()) {
      const plan = planOf(document);
      const int = intOf(n + 1);
      const drawing = plan.sections.some(({ section }) => section.draw !== undefined);
      const grids = plan.sections.some(({ items }) =>
        items.some(({ item }) => item.kind === 'question' && 'rows' in item.answer),
      );
      if (drawing || grids || (document.quotas ?? []).length > 0) continue;
      for (const { steps, name } of testPack(plan, analyse(plan)).respondents) {
        const all = observed(steps);
        const first = all.findIndex(({ step }) => step !== '0');
        if (all.length - first < 2) continue;
        for (const at of new Set([int(first, all.length - 2), int(first, all.length - 2)])) {
          const left = all.filter((_, k) => k !== at);
          const missing = verified(plan, [left]).differ[0];
          const gone = all[at]?.item;
          const next = all[at + 1] as ObservedStep;
          assert.equal(missing?.expected, gone, `${n} ${name}: ${gone} left out`);
          assert.equal(missing?.step, next.step);
          const put = { step: 'x', item: 'nowhere', answer: '' };
          const more = verified(plan, [[...all.slice(0, at), put, ...all.slice(at)]]).differ[0];
          assert.deepEqual([more?.step, more?.expected, more?.seen], ['x', gone, 'nowhere'], `${n} ${name}`);
          tried += 1;
        }
      }
    }
    assert.ok(tried > SEEDS.count, `only ${tried} were tried`);
  });
});
