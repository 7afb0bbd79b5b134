/** Versions in the database: numbered, whole, and not to be changed by anybody. */
import assert from 'node:assert/strict';
import { createHash } from 'node:crypto';
import { describe, it } from 'node:test';
import { eq } from 'drizzle-orm';
import { ask, questionnaire, section } from '../../tests/support/questionnaire';
import { writeDocument } from '../core/document/read';
import { openStore } from './open';
import { studies, versions } from './schema';
import { addStudy, removeStudy, restoreStudy, saveStudy } from './studies';
import { addVersion, findVersion, listVersions, type VersionToAdd } from './versions';

const first = questionnaire([section('a', [ask('fuel'), ask('cars')])], { title: 'First' });
const second = { ...first, title: 'Second' };
const kept = (revision: number, rest: Partial<VersionToAdd> = {}): VersionToAdd => ({
  frozen: false,
  revision,
  note: '',
  author: 'Ada',
  at: 7,
  gate: null,
  reason: null,
  ...rest,
});

function withStudies() {
  const db = openStore(':memory:');
  addStudy(db, first, 1, 'one');
  addStudy(db, first, 1, 'two');
  return db;
}

describe('versions', () => {
  it('are numbered by study, and keep the questionnaire while the draft goes on', () => {
    const db = withStudies();
    assert.ok(addVersion(db, 'one', kept(1, { note: 'before the board' }))?.added);
    saveStudy(db, 'one', 1, second, 2);
    assert.ok(addVersion(db, 'one', kept(2, { frozen: true, gate: [], reason: 'the pilot begins' }))?.added);
    assert.ok(addVersion(db, 'two', kept(1))?.added);
    assert.deepEqual(
      listVersions(db, 'one').map((each) => [each.number, each.frozen, each.note, each.reason]),
      [
        [2, true, '', 'the pilot begins'],
        [1, false, 'before the board', null],
      ],
    );
    assert.deepEqual(findVersion(db, 'one', 1)?.document, first);
    assert.deepEqual(findVersion(db, 'one', 2)?.document, second);
    assert.equal(findVersion(db, 'one', 3), null);
    assert.equal(findVersion(db, 'two', 2), null);
    assert.deepEqual(
      listVersions(db, 'two').map((each) => each.number),
      [1],
    );
  });

  it('have the checksum of the very file that is handed over', () => {
    const db = withStudies();
    addVersion(db, 'one', kept(1));
    const digits = createHash('sha256').update(writeDocument(first)).digest('hex');
    assert.equal(listVersions(db, 'one')[0]?.checksum, digits);
  });

  it('are made of the revision that was looked at, or not at all', () => {
    const db = withStudies();
    saveStudy(db, 'one', 1, second, 2);
    const late = addVersion(db, 'one', kept(1));
    assert.ok(late?.added === false);
    assert.equal(late.study.document.title, 'Second');
    assert.equal(addVersion(db, 'none', kept(1)), null);
    assert.deepEqual(listVersions(db, 'one'), []);
  });

  it('cannot be changed or taken away in the database, while the study is there', () => {
    const db = withStudies();
    addVersion(db, 'one', kept(1, { frozen: true }));
    addVersion(db, 'one', kept(1));
    for (const change of [{ document: '{}' }, { note: 'other' }, { frozen: false }, { number: 9 }, { at: 1 }])
      assert.throws(() => db.update(versions).set(change).run(), /a version never changes/);
    assert.throws(() => db.delete(versions).run(), /a version stays/);
    removeStudy(db, 'one', 3);
    assert.throws(() => db.delete(versions).run(), /a version stays/);
    restoreStudy(db, 'one');
    assert.equal(listVersions(db, 'one').length, 2);
    // With the study itself they go.
    db.delete(studies).where(eq(studies.id, 'one')).run();
    assert.deepEqual(listVersions(db, 'one'), []);
  });
});
