/** On which version something was made. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { madeOn } from './made-on';

it('tells the version that a study was at a revision, and the draft between two', () => {
  const versions = [
    { number: 3, revision: 9 },
    { number: 1, revision: 4 },
    { number: 2, revision: 9 },
  ];
  assert.deepEqual(
    [3, 4, 5, 8, 9, 10].map((revision) => madeOn(versions, revision)),
    [
      'the draft before version 1',
      'version 1',
      'the draft after version 1',
      'the draft after version 1',
      'version 3',
      'the draft after version 3',
    ],
  );
  // What is older than versions, and a study of which none was kept, say nothing.
  assert.equal(madeOn(versions, null), null);
  assert.equal(madeOn([], 4), null);
});
