/** A full, read-only or broken disk is told in words, whatever the library calls it. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { emptyQuestionnaire } from '../core/editing/structure';
import { openFile } from '../store/database-file';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import * as schema from '../store/schema';
import { addStudy } from '../store/studies';
import { faultOf } from './faults';

function failing(prepare: (connection: ReturnType<typeof openFile>) => void): unknown {
  const connection = openFile(':memory:');
  const db = drizzle(connection, { schema });
  prepare(connection);
  try {
    for (let n = 0; n < 200; n += 1) addStudy(db, emptyQuestionnaire('x'.repeat(40_000)), 1);
  } catch (error) {
    return error;
  }
  return null;
}

it('a full disk, and one that cannot be written, are told with what to do; anything else is a fault of ours', () => {
  const full = faultOf(failing((connection) => connection.pragma('max_page_count = 80')));
  assert.equal(full.status, 507);
  assert.match(full.problem, /disk of the server is full.*kept in this browser.*Make room/);
  const readOnly = faultOf(failing((connection) => connection.pragma('query_only = ON')));
  assert.equal(readOnly.status, 507);
  assert.match(readOnly.problem, /cannot be written/);
  assert.match(
    faultOf(Object.assign(new Error(), { code: 'SQLITE_IOERR_WRITE' })).problem,
    /SQLITE_IOERR_WRITE/,
  );
  assert.deepEqual([faultOf(new RangeError('no such place')).status, faultOf(null).status], [500, 500]);
});
