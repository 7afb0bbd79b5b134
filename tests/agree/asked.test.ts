/** Who is asked, in words, against everybody there can be: whoever the condition holds for is asked, and nobody else. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { analyse } from '../../src/core/analysis';
import { holds } from '../../src/core/condition/evaluate';
import { parseCondition } from '../../src/core/condition/parse';
import type { Condition } from '../../src/core/condition/syntax';
import { itemKey } from '../../src/core/routing/plan';
import { ask, planFor, questionnaire, section } from '../support/questionnaire';
import { allRoutes, TooMany } from './brute-force';
import { randomDocument } from './documents';
import { seedsToTry } from './seeds';

/** With the seeds that once failed. */
const SEEDS = seedsToTry([2, 141, 143, 207, 2871, 24177]);

function parsed(text: string): Condition {
  const result = parseCondition(text);
  assert.ok(result.ok, `“${text}” does not parse: ${result.ok ? '' : result.problem.message}`);
  return result.tree;
}

function agrees(seed: number): 'compared' | 'too many' {
  const plan = planFor(randomDocument(seed));
  const conditions = new Map(
    [...analyse(plan).asked].map(([name, text]) => [name, { text, tree: parsed(text) }]),
  );
  const quotas = (plan.document.quotas ?? []).length > 0;
  const presented = new Set<string>();
  try {
    allRoutes(plan, 8000, (walk, input) => {
      const keys = new Set(walk.steps.map(({ key }) => key));
      for (const { index, items, repeat, section: of } of plan.sections) {
        const passes =
          repeat === null ? [null] : Array.from({ length: walk.passes.get(index) ?? 0 }, (_, n) => n + 1);
        for (const pass of passes) {
          for (const { item } of items) {
            const { text, tree } = conditions.get(item.name) as { text: string; tree: Condition };
            const is = keys.has(itemKey(item.name, pass));
            const said = holds(tree, walk.environment(index, pass));
            if (is) presented.add(item.name);
            // Of what is drawn, or may be cut off by a quota, the condition says who could be asked.
            const could = quotas || (of.draw !== undefined && item.kind === 'question');
            const about = `seed ${seed}, ${itemKey(item.name, pass)} if ${text}, with ${JSON.stringify(input)}`;
            if (could) assert.ok(said || !is, about);
            else assert.equal(said, is, about);
          }
        }
      }
    });
  } catch (error) {
    if (error instanceof TooMany) return 'too many';
    throw error;
  }
  for (const [name, { text }] of conditions)
    assert.equal(text === 'never', !presented.has(name), `seed ${seed}, ${name} if ${text}`);
  return 'compared';
}

describe('who is asked', () => {
  it(`is what the condition says, on ${SEEDS.words}`, () => {
    let compared = 0;
    for (const seed of SEEDS.all) {
      if (agrees(seed) === 'compared') compared += 1;
    }
    assert.ok(compared > SEEDS.count * 0.6, `only ${compared} were small enough to try everything`);
  });

  it('is said in few words', () => {
    const options = [
      { code: 1, label: 'Own' },
      { code: 2, label: 'Rent' },
      { code: 3, label: 'Free' },
      { code: 98, label: 'DK', missing: 'dont_know' as const },
    ];
    const plan = planFor(
      questionnaire([
        section('a', [
          ask('adult', 2, { required: true, skips: [{ if: 'adult = 2', to: { ending: 'out' } }] }),
          ask(
            'tenure',
            { type: 'single', options },
            { required: true, skips: [{ if: 'tenure = 1', to: { item: 'age' } }] },
          ),
          ask('landlord', 2, { askIf: 'tenure in (2, 3)' }),
          ask('age', { type: 'number', min: 16, max: 99 }, { required: true }),
        ]),
        section('b', [ask('young', 2), ask('old', 2, { askIf: 'age > 64' })], { askIf: 'not age < 18' }),
        section('c', [ask('last', 2)]),
      ]),
    );
    assert.deepEqual(Object.fromEntries(analyse(plan).asked), {
      adult: 'always',
      tenure: 'adult = 1',
      landlord: 'tenure in (2, 3)',
      age: 'adult = 1',
      young: 'age >= 18',
      old: 'age > 64',
      last: 'adult = 1',
    });
  });
});
