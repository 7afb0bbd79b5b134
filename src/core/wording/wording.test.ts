/** Sentences: conditions in the words of the questionnaire, and why each item was shown or not. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section, walked } from '../../../tests/support/questionnaire';
import { parseCondition } from '../condition/parse';
import { conditionSentence } from './sentence';
import { placeWords } from './places';
import { whyLines } from './why';

const options = [
  { code: 1, label: 'Own' },
  { code: 2, label: 'Rent' },
];
const plan = planFor(
  questionnaire([
    section('a', [
      ask(
        'tenure',
        { type: 'single', options },
        { label: 'Tenure', skips: [{ if: 'tenure = 1', to: { item: 'age' } }] },
      ),
      ask('landlord', 2),
      ask('age', { type: 'number', min: 0, max: 120 }),
      ask('fuels', { type: 'multiple', options }, { askIf: 'age >= 18' }),
    ]),
    section('b', [ask('last', 2), ask('drawn', 2)], { askIf: 'tenure = 2', draw: 1 }),
    section('c', [ask('room', 2)], { repeat: { times: 'age', max: 2 }, onward: { ending: 'out' } }),
  ]),
);

describe('a condition as a sentence', () => {
  const say = (text: string) => {
    const parsed = parseCondition(text);
    assert.ok(parsed.ok);
    return conditionSentence(parsed.tree, plan.variables);
  };
  it('uses labels, and tells "is not" from "anything but"', () => {
    assert.equal(say('tenure = 2'), 'Tenure is “Rent”');
    assert.equal(say('tenure in (1, 2) and age >= 18'), 'Tenure is “Own” or “Rent”, and age is at least 18');
    assert.equal(say('tenure <> 1'), 'Tenure is not “Own”');
    assert.equal(say('not tenure = 1'), 'Tenure is anything but “Own”');
    assert.equal(say('not age in (1..5)'), 'age is anything but 1 to 5');
    assert.equal(
      say('fuels has any (1, 2) or fuels unanswered'),
      'fuels includes “Own” or “Rent”, or fuels was left blank',
    );
    assert.equal(say('count(room = 1) > 1'), 'the number of times that room is “Answer 1” is above 1');
  });
});

describe('why', () => {
  it('gives each item one reason, with the values that decided', () => {
    const walk = walked(plan, { answers: { tenure: 1, age: 0 }, draws: { b: ['last'] } });
    const lines = Object.fromEntries(
      whyLines(plan, walk).map(({ name, presented, because }) => [name, [presented, because]]),
    );
    assert.deepEqual(lines, {
      tenure: [true, 'the first item'],
      landlord: [false, 'skipped over from tenure, as tenure = 1'],
      age: [true, 'skipped to from tenure, as tenure = 1'],
      fuels: [false, 'asked only if age >= 18 (age = 0)'],
      last: [false, 'its section is asked only if tenure = 2 (tenure = 1)'],
      drawn: [false, 'its section is asked only if tenure = 2 (tenure = 1)'],
      'room#1': [false, 'its section has no pass for this respondent'],
    });
  });
});

describe('a place in words', () => {
  it('goes from the smallest part to the whole', () => {
    assert.equal(placeWords(plan.document, { item: 'tenure', skip: 0 }), 'skip 1 of item tenure');
    assert.equal(placeWords(plan.document, { section: 'c', onward: 0 }), 'onward of section C c');
    assert.equal(placeWords(plan.document, { item: 'tenure', option: 2 }), 'option 2 of item tenure');
  });
});
