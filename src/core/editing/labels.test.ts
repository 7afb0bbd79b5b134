/** Labels that the words of questions suggest, and many of them given in one step. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import fc from 'fast-check';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { applyChange } from './change';
import { labelAll, labelsWanted, shortLabel } from './labels';

it('keeps the matter of a question and leaves out what only asks', () => {
  for (const [text, label] of [
    ['Do you own or rent the home you live in?', 'Own or rent the home you live in'],
    ['What is the main way you heat your home?', 'Main way you heat your home'],
    ['How many **rooms** do you heat (kitchens too)?', 'How many rooms do you heat'],
    ['We now come to money. Is your home damp?', 'Home damp'],
    ['Thinking about {room_use}, was it cold?', 'Was it cold'],
    ['Which of these do you have?', 'Which of these do you have'],
    ['In what year did you take the plot?', 'In what year did you take the plot'],
    ['In what year?', 'Year'],
    ['Should there be a meter?', 'A meter'],
    ['Age', 'Age'],
  ] as const)
    assert.equal(shortLabel(text), label);
  assert.equal(
    shortLabel('How often in the last twelve months have you taken the ferry to the other side?'),
    'How often in the last twelve months',
  );
});

it('is short, and never empty where there are words', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.constantFrom(
          'do',
          'you',
          'the',
          'what',
          'is',
          'ferry',
          'your',
          'of',
          'Which',
          '?',
          '(a)',
          '{x}',
          'and',
        ),
        { minLength: 1, maxLength: 30 },
      ),
      (words) => {
        const label = shortLabel(words.join(' '));
        assert.ok(label.length <= 40);
        if (words.includes('ferry')) assert.notEqual(label, '');
      },
    ),
  );
});

it('labels many in one step, and leaves those alone that are emptied', () => {
  const document = questionnaire([
    section('a', [ask('q1', 2, { label: 'One' }), ask('q2', 2, { text: 'Is it dry?' }), ask('q3')]),
  ]);
  assert.deepEqual(
    labelsWanted(document).map(({ name, label }) => [name, label]),
    [
      ['q2', 'Is it dry'],
      ['q3', 'Q3'],
    ],
  );
  const { document: after, step } = applyChange(
    document,
    labelAll(
      new Map([
        ['q2', 'Dry'],
        ['q3', ' '],
      ]),
    ),
  );
  assert.deepEqual(
    after.sections[0]?.items.map((item) => item.kind === 'question' && item.label),
    ['One', 'Dry', undefined],
  );
  assert.equal(step.label, 'Label q2');
});

it('cuts a long question at the end of a word, the last that has room', () => {
  const fits = `${'word '.repeat(7)}abcde`;
  assert.equal(fits.length, 40);
  // Forty letters have room, and a word that ends with the fortieth is kept.
  assert.equal(shortLabel(`${fits}?`), `W${fits.slice(1)}`);
  assert.equal(shortLabel(`${fits} more`), `W${fits.slice(1)}`);
  assert.equal(shortLabel(`${'word '.repeat(7)}abcdef`), `W${'word '.repeat(7).trim().slice(1)}`);
});
