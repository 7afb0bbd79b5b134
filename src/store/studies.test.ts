/** Studies in the database: one that is damaged leaves the others, and itself, as they are. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { emptyQuestionnaire } from '../core/editing/structure';
import { openStore } from './open';
import { studies } from './schema';
import { addStudy, findStudy, listStudies, removeStudy, restoreStudy, saveStudy, storedText, unreadableStudies } from './studies'; // prettier-ignore

const damaged = (id: string, document: string) => ({ id, document, revision: 3, createdAt: 1, changedAt: 2, removedAt: null }); // prettier-ignore

it('a study that cannot be read is told apart, given as it is, and removed', () => {
  const db = openStore(':memory:');
  addStudy(db, emptyQuestionnaire('Whole'), 5, 'whole');
  db.insert(studies)
    .values([damaged('cut', '{"format": "jolly-'), damaged('other', '{"title": "Other"}')])
    .run();
  assert.deepEqual(
    listStudies(db).map(({ id }) => id),
    ['whole'],
  );
  assert.deepEqual(
    unreadableStudies(db).map(({ id }) => id),
    ['cut', 'other'],
  );
  assert.match(unreadableStudies(db)[0]?.problem ?? '', /not JSON/);
  assert.equal(findStudy(db, 'cut'), null);
  assert.equal(storedText(db, 'cut'), '{"format": "jolly-');
  // Nothing writes over what is there.
  assert.equal(saveStudy(db, 'cut', 3, emptyQuestionnaire('Mine'), 9), null);
  assert.equal(storedText(db, 'cut'), '{"format": "jolly-');
  assert.ok(removeStudy(db, 'cut', 10));
  assert.equal(unreadableStudies(db).length, 1);
  assert.ok(restoreStudy(db, 'cut'));
  assert.equal(storedText(db, 'cut'), '{"format": "jolly-');
});
