/** Who is asked, in words, against everybody there can be: whoever the condition holds for is asked, and nobody else. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { analyse } from '../../src/core/analysis';
import { ask, planFor, questionnaire, section } from '../support/questionnaire';
import { randomChain, randomDocument } from './documents';
import { caseOf, judgeAsked } from './judges';
import { seedsToTry } from './seeds';

/** With the seeds that once failed. */
const SEEDS = seedsToTry([2, 141, 143, 207, 2871, 24177], 160);

describe('who is asked', () => {
  it(`is what the condition says, on ${SEEDS.words}`, () => {
    const compared = SEEDS.all.filter((seed) => {
      const found = caseOf(planFor(randomDocument(seed)), `seed ${seed}`, 8000);
      if (found !== null) judgeAsked(found);
      return found !== null;
    }).length;
    assert.ok(compared > SEEDS.count * 0.6, `only ${compared} were small enough to try everything`);
  });

  it('is said of some items alone as it is of all', () => {
    for (const seed of SEEDS.all.slice(0, 100)) {
      const plan = planFor(randomChain(seed));
      const all = analyse(plan);
      const names = [...all.asked.keys()].filter((_, n) => n % 3 === seed % 3);
      const some = analyse(plan).askedAmong(new Set(names));
      for (const name of names) {
        assert.equal(some.asked.get(name), all.asked.get(name), `seed ${seed}, ${name}`);
        const section = plan.sections.find(({ items }) => items.some(({ item }) => item.name === name));
        const having = all.passes.get(name)?.map((pass) => pass.if);
        assert.deepEqual(some.passes.get(section?.section.id ?? ''), having, `seed ${seed}, ${name}`);
      }
    }
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
