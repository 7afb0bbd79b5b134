/** The answers that make a route this one: of what steers alone, pass by pass and, of grids, row by row. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { steeringParts } from './steering-parts';

const options = [1, 2].map((code) => ({ code, label: `Answer ${code}` }));
const rows = [
  { name: 'dry', label: 'Is it dry?' },
  { name: 'lit', label: 'Is it lit?' },
];
const plan = planFor(
  questionnaire([
    section('a', [
      ask('rooms', { type: 'number', min: 1, max: 2 }, { label: 'Rooms' }),
      ask('idle'),
      ask('state', { type: 'grid', rows, options }),
    ]),
    section('b', [ask('warm'), ask('why', 2, { askIf: 'warm = 2 and lit = 1' })], {
      repeat: { times: 'rooms', max: 2 },
    }),
  ]),
);

it('are those of what steers alone, each pass by itself, by label or by name', () => {
  const items = ['rooms', 'idle', 'state', 'warm#1', 'warm#2'];
  const answers = { rooms: 2, idle: 1, dry: 1, lit: 2, 'warm#1': 1, 'warm#2': null };
  assert.deepEqual(
    steeringParts(plan, { items, answers }).map(({ key, pass, label, value }) => [key, pass, label, value]),
    [
      ['rooms', null, 'Rooms', 2],
      ['lit', null, 'Is it lit?', 2],
      ['warm#1', 1, 'warm', 1],
      ['warm#2', 2, 'warm', null],
    ],
  );
});
