/** Whom an item is asked of, in words, where its section is repeated and where it is not. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { analyse } from '../analysis';
import { baseOf, type AskedOf } from './base';

it('says who has a repeated item, pass by pass, and never “everyone” of what only some have', () => {
  const plan = planFor(
    questionnaire([
      section('a', [ask('kids', { type: 'number', min: 0, max: 9 }, { required: true, label: 'Children' })]),
      section(
        'b',
        [ask('age', { type: 'number', min: 0, max: 17 }), ask('school', 2, { askIf: 'age >= 5' })],
        {
          repeat: { times: 'kids', max: 3 },
        },
      ),
    ]),
  );
  const { asked, passes } = analyse(plan);
  const of = (name: string): AskedOf => ({
    if: asked.get(name),
    passes: (passes.get(name) ?? []).map((each) => each.if),
  });
  assert.deepEqual(baseOf(plan.variables, of('kids')), { sentence: 'Everyone', conditions: [] });
  assert.deepEqual(baseOf(plan.variables, of('age')), {
    sentence: 'If Children is at least 1, for each of up to 3',
    conditions: ['kids >= 1'],
  });
  assert.deepEqual(baseOf(plan.variables, of('school')), {
    sentence: 'If Children is at least 1, for each of up to 3 where age is at least 5',
    conditions: ['kids >= 1', 'age >= 5'],
  });
  assert.deepEqual(baseOf(plan.variables, of('age'), 3).sentence, 'If Children is at least 3');
  assert.deepEqual(
    passes.get('age')?.map(({ pass, routes }) => [pass, String(routes)]),
    [
      [1, '14'],
      [2, '12'],
      [3, '8'],
    ],
  );
});
