/** Answers that routes are asked for by: conditions on one question, read and offered. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { answerAsked, answersToAsk } from './answers-asked';

const rows = [
  { name: 'g_heat', label: 'Heating' },
  { name: 'g_light', label: 'Light' },
];
const options = [1, 2].map((code) => ({ code, label: `Answer ${code}` }));
const plan = planFor(
  questionnaire([
    section('a', [
      ask('own', 2, { required: true }),
      ask('people', {
        type: 'number',
        min: 0,
        max: 9,
        specials: [{ code: 98, label: 'Not sure', missing: 'dont_know' }],
      }),
      ask('g', { type: 'grid', rows, options }),
    ]),
    section('b', [ask('room')], { repeat: { times: 'people', max: 3 } }),
  ]),
);

it('a condition on one question is an answer to it, in any pass; others are refused with what to do', () => {
  for (const [text, item] of [
    ['own = 2', 'own'],
    ['OWN in (1, 2)', 'own'],
    ['people > 3 or people unanswered', 'people'],
    ['g_heat = 1 and g_light = 2', 'g'],
    ['room = 1', 'room'],
  ] as const) {
    const read = answerAsked(plan, text);
    assert.equal(read.ok && read.item, item, text);
  }
  for (const [text, problem] of [
    ['own = 2 and people > 3', /name one question/],
    ['own = 2 and gone = 1', /name one question/],
    ['always', /name one question/],
    ['own =', /./],
    ['own = 7', /7/],
  ] as const) {
    const read = answerAsked(plan, text);
    assert.ok(!read.ok, text);
    assert.match(read.problem, problem);
  }
});

it('what is offered can be asked for', () => {
  const offered = answersToAsk(plan);
  assert.deepEqual(
    offered.map(({ item, answers, others }) => [item, answers.length, others]),
    [
      ['own', 2, false],
      ['people', 2, true],
      ['g', 5, false],
      ['room', 3, false],
    ],
  );
  for (const { item, answers } of offered)
    for (const { text } of answers) {
      const read = answerAsked(plan, text);
      assert.equal(read.ok && read.item, item, text);
    }
});
