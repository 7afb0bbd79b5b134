/** Two keyings of one form, field by field. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Answers } from '../document/types';
import { differences } from './compare';
import { Keying } from './sheet';

const options = [1, 2, 3].map((code) => ({ code, label: `Answer ${code}` }));
const keying = new Keying(
  planFor(
    questionnaire([
      section('a', [
        ask('own', { type: 'single', options }),
        ask('picks', { type: 'multiple', options }),
        ask('order', { type: 'rank', options }),
        ask('words', { type: 'text' }),
      ]),
    ]),
  ),
);
const told = (first: Answers, second: Answers) =>
  differences(keying, first, second).map((each) => [each.field.key, each.first, each.second]);

it('differ where an answer does, in the order of the form', () => {
  assert.deepEqual(told({ words: 'a', own: 1 }, { own: 2, words: 'b' }), [
    ['own', 1, 2],
    ['words', 'a', 'b'],
  ]);
  assert.deepEqual(told({ own: 1 }, { own: 1 }), []);
  // What the form has no field for is none of it.
  assert.deepEqual(told({ gone: 1 }, { gone: 2 }), []);
});

it('are the same whichever way a field is left blank', () => {
  assert.deepEqual(told({ own: null, picks: [], words: '' }, {}), []);
  assert.deepEqual(told({ own: 1 }, {}), [['own', 1, null]]);
  assert.deepEqual(told({}, { picks: [2] }), [['picks', null, [2]]]);
});

it('have the same picks in any order, and other ranks in another', () => {
  assert.deepEqual(told({ picks: [3, 1, 2] }, { picks: [2, 3, 1] }), []);
  assert.deepEqual(told({ picks: [1, 2] }, { picks: [1, 3] }), [['picks', [1, 2], [1, 3]]]);
  assert.deepEqual(told({ order: [1, 2, 3] }, { order: [2, 1, 3] }), [['order', [1, 2, 3], [2, 1, 3]]]);
});
