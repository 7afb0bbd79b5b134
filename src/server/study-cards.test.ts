/** The list of studies stands, whatever one of them does. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { emptyQuestionnaire } from '../core/editing/structure';
import { openStore } from '../store/open';
import { addStudy } from '../store/studies';
import { studyCards } from './study-cards';

it('a study whose examination fails is on the list all the same', (test) => {
  const db = openStore(':memory:');
  addStudy(db, emptyQuestionnaire('Sound'), 5, 'sound');
  addStudy(db, emptyQuestionnaire('Faulty'), 6, 'faulty');
  const told = test.mock.method(console, 'error', () => undefined);
  const cards = studyCards(db, ({ id, revision }) => {
    if (id === 'faulty') throw new RangeError('no answer fits');
    return { revision, routes: '1', exact: true, snags: [] };
  });
  assert.deepEqual(
    cards.map(({ title, routes, snags }) => [title, routes, snags]),
    [
      ['Faulty', null, null],
      ['Sound', '1', 0],
    ],
  );
  assert.match(String(told.mock.calls[0]?.arguments[0]), /faulty/);
});
