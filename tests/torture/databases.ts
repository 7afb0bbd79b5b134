/** Damaged databases: named with what to do and left as they are, or opened and read. */
import assert from 'node:assert/strict';
import { copyFileSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { WHOLE_STUDY } from '../../src/core/document/addresses';
import type { Questionnaire } from '../../src/core/document/types';
import { faultOf } from '../../src/server/faults';
import { addComment, listComments } from '../../src/store/comments';
import { DatabaseProblem, makeReady } from '../../src/store/database-file';
import { addLink, listLinks } from '../../src/store/links';
import { openStore, type Store } from '../../src/store/open';
import * as schema from '../../src/store/schema';
import { addStudy, findStudy, storedStudies } from '../../src/store/studies';
import { listVerdicts, putVerdict } from '../../src/store/verdicts';
import { FEATURED } from '../agree/featured';
import { brokenBytes, intOf, type SeededPart } from './part';
import { passedBy } from '../support/verdicts';

const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-damaged-'));
const whole = path.join(folder, 'whole.sqlite');

/** Once with all that was written in the file, and once with the last of it still beside it. */
function makeWhole(): void {
  if (existsSync(`${whole}.wal-kept`)) return;
  const db = openStore(whole);
  FEATURED.forEach((document, n) => addStudy(db, document as Questionnaire, n, `s${n}`));
  for (let n = 0; n < 200; n += 1) {
    addComment(db, `s${n % FEATURED.length}`, {
      place: WHOLE_STUDY,
      text: `Comment ${n}`,
      author: 'A',
      at: n,
    });
    const marks = [`${n}`];
    putVerdict(db, 's0', { ...passedBy('A', marks), at: n });
  }
  addLink(db, 's0', 'Board', 1);
  copyFileSync(`${whole}-wal`, `${whole}.wal-kept`);
  copyFileSync(whole, `${whole}.before-wal`);
  (db as unknown as { $client: Database.Database }).$client.close();
}

function readAll(db: Store): void {
  for (const { id } of storedStudies(db)) {
    findStudy(db, id);
    listVerdicts(db, id);
    listComments(db, id);
    listLinks(db, id);
  }
}

export const databases: SeededPart = {
  name: 'databases',
  words: 'damaged databases, opened as a start does and read through',
  one(seed) {
    makeWhole();
    const int = intOf(seed);
    const file = path.join(folder, 'damaged.sqlite');
    for (const beside of ['', '-wal', '-shm']) rmSync(file + beside, { force: true });
    const withWal = int(0, 3) === 0;
    const broken = brokenBytes(readFileSync(withWal ? `${whole}.before-wal` : whole), int);
    writeFileSync(file, broken);
    if (withWal) writeFileSync(`${file}-wal`, brokenBytes(readFileSync(`${whole}.wal-kept`), int));
    try {
      makeReady(file);
    } catch (error) {
      if (!(error instanceof DatabaseProblem)) throw error;
      assert.match(error.message, /\. .+/, 'says what to do');
      if (!withWal) assert.deepEqual(readFileSync(file), Buffer.from(broken), 'nothing was changed');
      return;
    }
    const connection = new Database(file);
    try {
      readAll(drizzle(connection, { schema }));
    } catch (error) {
      // Damage that only shows on reading is told as the disk's, not as a fault of the program.
      assert.equal(faultOf(error).status, 507, error instanceof Error ? (error.stack ?? '') : String(error));
    } finally {
      connection.close();
    }
  },
};
