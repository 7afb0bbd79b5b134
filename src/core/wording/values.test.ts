/** Answers in words, and pipes filled with them. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section, walked } from '../../../tests/support/questionnaire';
import { answeredWords, shownText, valueWords } from './values';

const options = [
  { code: 1, label: 'Gas' },
  { code: 2, label: 'Oil' },
];

it('what was answered to a grid is all of its rows, without the blank ones', () => {
  const grid = {
    type: 'grid' as const,
    options,
    rows: [
      { name: 'g1', label: 'A' },
      { name: 'g2', label: 'B' },
    ],
  };
  const plan = planFor(
    questionnaire([section('a', [ask('g', grid), ask('one', { type: 'single', options })])]),
  );
  const words = (answers: Record<string, number>) =>
    walked(plan, { answers }).steps.map((step) => answeredWords(step, answers));
  assert.deepEqual(words({ g1: 1, g2: 2, one: 2 }), ['Gas · Oil', 'Oil']);
  assert.deepEqual(words({ g2: 2 }), ['Oil', '']);
});

describe('answers in words', () => {
  it('are labels, in order, and nothing for a blank', () => {
    assert.equal(valueWords({ type: 'single', options }, 2), 'Oil');
    assert.equal(valueWords({ type: 'multiple', options }, [1, 2]), 'Gas, Oil');
    assert.equal(valueWords({ type: 'rank', options }, [2, 1]), '1 Oil, 2 Gas');
    assert.equal(valueWords({ type: 'number', min: 0, max: 9 }, 4), '4');
    assert.equal(valueWords({ type: 'datetime' }, '2026-01-31T08:30'), '2026-01-31 08:30');
    assert.equal(valueWords({ type: 'single', options }, null), '');
  });

  it('are piped, by pass and by the option a pass is for', () => {
    const plan = planFor(
      questionnaire(
        [
          section('a', [ask('fuels', { type: 'multiple', options })]),
          section('b', [ask('cost', { type: 'number', min: 0, max: 99 })], {
            repeat: { each: 'fuels', max: 2 },
          }),
        ],
        {
          derived: [
            { name: 'band', label: 'Band', cases: [{ if: 'fuels has 1', code: 1, label: 'With gas' }] },
          ],
        },
      ),
    );
    const walk = walked(plan, { answers: { fuels: [1, 2], 'cost#1': 7, 'cost#2': 8 } });
    assert.equal(
      shownText(plan, walk, 'Pass {pass}: {each}, {cost}, of {fuels} ({band}) {{x}}', 1, 2),
      'Pass 2: Oil, 8, of Gas, Oil (With gas) {x}',
    );
    assert.equal(
      shownText(plan, walk, '{fuels}', 1, 2, (words) => words.toUpperCase()),
      'GAS, OIL',
    );
  });
});
