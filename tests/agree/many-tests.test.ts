/** Answers that many conditions test, each by another value: counted and told exactly, or said to be too much. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { analyse, DEFAULT_CAPS } from '../../src/core/analysis';
import { walk } from '../../src/core/routing/walk';
import { allSnagsOf } from '../../src/core/snags';
import { ask, planFor, questionnaire, section, trail } from '../support/questionnaire';
import { judgeReadable, judgeSaid } from './said';

const MOST = 200;

/** `many` questions, each asked by a test of its own of one number, every seventh by two of them, and a skip. */
function testedBy(many: number, most = MOST) {
  const cut = (n: number) => Math.floor((n * most) / many);
  const conditionOf = (n: number) =>
    n % 7 === 3
      ? `n > ${cut(n)} and n < ${most - cut(n)}`
      : n % 5 === 1
        ? `n < ${cut(n)} or n unanswered`
        : `n >= ${cut(n)}`;
  return planFor(
    questionnaire([
      section('a', [
        ask('n', { type: 'number', min: 0, max: most }),
        ...Array.from({ length: many }, (_, n) =>
          ask(`q${n}`, 2, {
            required: true,
            askIf: conditionOf(n),
            ...(n === 40 ? { skips: [{ if: 'q40 = 1 and n > 150', to: { ending: 'out' } }] } : {}),
          }),
        ),
      ]),
    ]),
  );
}

describe('an answer that many conditions test', () => {
  for (const many of [60, 75])
    it(`is counted as everybody who can be walked is, and told to those asked, with ${many} tests`, () => {
      const plan = testedBy(many);
      const everybody = [null, ...Array.from({ length: MOST + 1 }, (_, n) => n)].flatMap((n) =>
        [1, 2].map((code) => {
          const questions = Object.fromEntries(Array.from({ length: many }, (_, q) => [`q${q}`, code]));
          const answers = { ...questions, ...(n === null ? {} : { n }) };
          const result = walk(plan, { answers });
          assert.ok(result.ok);
          return result.walk;
        }),
      );
      const analysis = analyse(plan);
      assert.equal(analysis.exact, true);
      assert.equal(analysis.routes, BigInt(new Set(everybody.map((one) => trail(plan, one))).size));
      judgeReadable(plan, analysis, `${many} tests`);
      judgeSaid(plan, analysis, everybody, `${many} tests`, false);
    });

  it('is given up where that would take too long, with a sentence, and the rest of the checks', () => {
    const plan = testedBy(1500, 100_000);
    const caps = { ...DEFAULT_CAPS, steps: 500_000 };
    const analysis = analyse(plan, caps);
    assert.equal(analysis.exact, false);
    assert.match(analysis.limits[0]?.message ?? '', /too entangled/);
    const rules = new Set(allSnagsOf(plan, analysis, caps).map(({ rule }) => rule));
    assert.ok(rules.has('not-exact') && rules.has('unlabelled'));
  });
});
