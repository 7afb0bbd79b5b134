/** The coded row: what stands in each column for an answer, and for one that is blank in whatever way. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section, walked } from '../../../tests/support/questionnaire';
import type { Answers } from '../document/types';
import { codedCells, codedRow } from './row';

const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });
const plan = planFor(
  questionnaire([
    section('a', [
      ask('own', { type: 'single', options: [option(1), option(5, { specify: true })] }),
      ask('picks', {
        type: 'multiple',
        options: [option(1), option(2), option(98, { missing: 'dont_know' })],
      }),
      ask('order', { type: 'rank', options: [option(1), option(2), option(3)] }),
      ask('words', { type: 'text' }),
      ask('rooms', { type: 'number', min: 0, max: 9 }, { missingCodes: { no_answer: -9 } }),
    ]),
  ]),
);
const row = (answers: Answers) => Object.values(codedRow(plan, walked(plan, { answers }), answers));

it('has answers as they are, picks as 0 and 1, places as codes, and words only where they were asked for', () => {
  const answers = { own: 5, own_5_text: 'A boat', picks: [2], order: [3, 1, 2], words: 'Aye', rooms: 0 };
  assert.deepEqual(row(answers), [5, 'A boat', 0, 1, 0, 3, 1, 2, 'Aye', 0, 'done']);
  assert.deepEqual(row({ ...answers, own: 1 }).slice(0, 2), [1, '']);
  assert.deepEqual(row({ ...answers, own_5_text: '' }).slice(0, 2), [5, '']);
});

it('has the code of a pick that stands for no answer in all of its columns', () => {
  assert.deepEqual(row({ picks: [98] }).slice(2, 5), [98, 98, 1]);
});

it('has the code for no answer of each, whichever way it is left blank', () => {
  const blank = [-3, '', -3, -3, -3, -3, -3, -3, -3, -9, 'done'];
  const ways: readonly Answers[] = [{}, { own: null, picks: [], order: [], words: '', rooms: null }];
  for (const answers of ways) assert.deepEqual(row(answers), blank, JSON.stringify(answers));
  const cells = codedCells(plan, walked(plan, { answers: {} }), {});
  assert.deepEqual(
    cells.map(({ column, reason }) => [column, reason]).filter(([, reason]) => reason !== 'no_answer'),
    [
      ['own_5_text', null],
      ['ending', null],
    ],
  );
  // A place that is left open is one as well.
  assert.deepEqual(row({ order: [2] as never }).slice(5, 8), [2, -3, -3]);
});
