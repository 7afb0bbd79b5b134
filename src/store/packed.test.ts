/** Rows that are kept packed: counted before they are kept, and never in the way of a save. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { gunzipSync, gzipSync } from 'node:zlib';
import { emptyQuestionnaire } from '../core/editing/structure';
import { findDataset, listDatasets, putDataset } from './datasets';
import { openStore } from './open';
import { packedProblem, unpacked } from './packed';
import { addStudy, saveStudy } from './studies';

describe('packed rows', () => {
  it('are refused where they unpack to more than the limit, are damaged or not packed at all', async () => {
    assert.equal(await packedProblem(gzipSync('a,b\r\n1,2\r\n'), 1_000), null);
    assert.match(
      (await packedProblem(gzipSync(Buffer.alloc(50_000_000)), 1_000_000)) ?? '',
      /more than 1 MB/,
    );
    assert.match((await packedProblem(Buffer.from('a,b\r\n1,2\r\n'))) ?? '', /not packed by gzip/);
    assert.match((await packedProblem(gzipSync('a,b\r\n').subarray(0, 12))) ?? '', /damaged/);
  });

  it('are nothing where they cannot be unpacked within the limit', () => {
    assert.equal(unpacked(gzipSync('a,b'), 1_000), 'a,b');
    assert.equal(unpacked(gzipSync(Buffer.alloc(5_000)), 1_000), null);
    assert.equal(unpacked(Buffer.from([0, 1])), null);
  });

  it('that cannot be read stay as they are while names and codes of the study change', () => {
    const db = openStore(':memory:');
    const document = emptyQuestionnaire('Study');
    addStudy(db, document, 1, 'study');
    const good = gzipSync('done\r\n-1\r\n');
    putDataset(db, 'study', { name: 'damaged', rows: 1, body: Buffer.from([7, 7]), at: 1 });
    putDataset(db, 'study', { name: 'sound', rows: 1, body: good, at: 2 });
    const missing = document.missing.map((entry) => ({ ...entry, code: entry.code - 90 }));
    const saved = saveStudy(db, 'study', 1, { ...document, missing }, 2);
    assert.equal(saved?.saved, true);
    const bodies = new Map(
      listDatasets(db, 'study').map(({ id, name }) => [name, findDataset(db, 'study', id)]),
    );
    assert.deepEqual(bodies.get('damaged'), Buffer.from([7, 7]));
    assert.match(gunzipSync(bodies.get('sound') ?? good).toString(), /done/);
  });
});
