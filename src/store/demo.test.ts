/** The demo: added where it is not there, the main study last; made anew, the work on it is gone. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { passedBy } from '../../tests/support/verdicts';
import { setTitle } from '../core/editing/structure';
import { applyChange } from '../core/editing/change';
import { seedDemo } from './demo';
import { openStore } from './open';
import { links, studies } from './schema';
import { findStudy, listStudies, removeStudy, saveStudy } from './studies';
import { listVerdicts, putVerdict } from './verdicts';

const HEATING = 'tern-valley-home-heating';

it('is added once, and what was changed of it stays', () => {
  const db = openStore(':memory:');
  seedDemo(db, 100);
  const added = new Map(listStudies(db).map(({ id, changedAt }) => [id, changedAt]));
  assert.equal(added.size, 3);
  // The list of studies begins with what was changed last.
  assert.equal(Math.max(...added.values()), added.get(HEATING));
  const study = findStudy(db, HEATING);
  assert.ok(study !== null);
  saveStudy(db, HEATING, 1, applyChange(study.document, setTitle('Mine')).document, 200);
  putVerdict(db, HEATING, { ...passedBy('Ada', ['m']), at: 1 });
  removeStudy(db, 'winter-diary', 300);
  seedDemo(db, 400);
  assert.equal(findStudy(db, HEATING)?.document.title, 'Mine');
  assert.equal(listVerdicts(db, HEATING).length, 1);
  assert.ok(findStudy(db, 'winter-diary') !== null);
  seedDemo(db, 500, { fresh: true });
  assert.deepEqual(findStudy(db, HEATING)?.document, study.document);
  assert.equal(findStudy(db, HEATING)?.revision, 1);
  assert.deepEqual(listVerdicts(db, HEATING), []);
});

it('work of a study that is not there cannot be kept, and goes with a study that goes', () => {
  const db = openStore(':memory:');
  assert.throws(() => putVerdict(db, 'none', { ...passedBy('Ada', ['m']), at: 1 }), /FOREIGN KEY/);
  seedDemo(db, 100);
  db.insert(links)
    .values({ studyId: HEATING, token: 't', name: 'Board', createdAt: 1, withdrawnAt: null })
    .run();
  db.delete(studies).run();
  assert.deepEqual(db.select().from(links).all(), []);
});
