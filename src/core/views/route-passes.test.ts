/** How often a route goes through each repeated section. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { routePasses } from './route-passes';

const repeat = { times: 'n', max: 3 };

it('is told for each section that repeats, by the last pass that is presented', () => {
  const number = ask('n', { type: 'number', min: 0, max: 3 });
  const twice = questionnaire([
    section('a', [number]),
    section('b', [ask('room'), ask('cold')], { repeat }),
    section('c', [ask('child')], { repeat }),
  ]);
  assert.deepEqual(routePasses(twice, ['n']), [0, 0]);
  assert.deepEqual(routePasses(twice, ['n', 'room#1', 'room#2', 'cold#2', 'child#1']), [2, 1]);
  // A pass counts though only one of its questions is asked.
  assert.deepEqual(routePasses(twice, ['n', 'room#1', 'cold#3']), [3, 0]);
  assert.equal(routePasses(questionnaire([section('a', [number])]), ['n']), null);
});
