/** Studies in the database: one that is damaged leaves the others, and itself, as they are. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { anyChange, intOf } from '../../tests/agree/changes';
import { randomDocument } from '../../tests/agree/documents';
import { readEdited, writeDocument } from '../core/document/read';
import type { Questionnaire } from '../core/document/types';
import { applyChange } from '../core/editing/change';
import { emptyQuestionnaire } from '../core/editing/structure';
import { openStore } from './open';
import { studies } from './schema';
import {
  addStudy,
  findStudy,
  listStudies,
  removeStudy,
  restoreStudy,
  saveStudy,
  storedStudies,
  storedText,
} from './studies';

const damaged = (id: string, document: string) => ({
  id,
  document,
  revision: 3,
  createdAt: 1,
  changedAt: 2,
  removedAt: null,
});

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
    storedStudies(db).map(({ id, title }) => [id, title]),
    [
      ['whole', 'Whole'],
      ['cut', ''],
      ['other', 'Other'],
    ],
  );
  assert.equal(findStudy(db, 'cut'), null);
  assert.equal(storedText(db, 'cut'), '{"format": "jolly-');
  // Nothing writes over what is there.
  assert.equal(saveStudy(db, 'cut', 3, emptyQuestionnaire('Mine'), 9), null);
  assert.equal(storedText(db, 'cut'), '{"format": "jolly-');
  assert.ok(removeStudy(db, 'cut', 10));
  assert.equal(storedStudies(db).length, 2);
  assert.ok(restoreStudy(db, 'cut'));
  assert.equal(storedText(db, 'cut'), '{"format": "jolly-');
});

it('a study that takes the place of another of that id is read anew', () => {
  const db = openStore(':memory:');
  for (const title of ['First', 'Second']) {
    addStudy(db, emptyQuestionnaire(title), 5, 'same');
    assert.equal(findStudy(db, 'same')?.document.title, title);
  }
  assert.equal(findStudy(db, 'same')?.revision, 1);
});

function changed(document: Questionnaire, seed: number): Questionnaire {
  const change = anyChange(document, intOf(seed));
  return change === null ? document : (applyChange(document, change)?.document ?? document);
}

it('a save writes the same text as writing all of it would, and reads what others saved', () => {
  const db = openStore(':memory:');
  let document: Questionnaire = randomDocument(1);
  addStudy(db, document, 1, 'study');
  for (let seed = 1; seed < 120; seed += 1) {
    const found = findStudy(db, 'study');
    assert.deepEqual(found?.document, document);
    const edited = readEdited(seed % 10 === 0 ? randomDocument(seed) : changed(document, seed));
    if (!edited.ok) continue;
    const saved = saveStudy(db, 'study', found?.revision ?? 0, edited.document, seed);
    assert.equal(saved?.saved, true);
    assert.equal(storedText(db, 'study'), writeDocument(edited.document));
    document = edited.document;
  }
  // An earlier revision is told, with what is there now.
  const late = saveStudy(db, 'study', 1, document, 500);
  assert.ok(late?.saved === false);
  assert.deepEqual(late.study.document, document);
});
