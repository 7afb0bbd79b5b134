/** The page's side of reading files: each has a worker of its own, which is gone afterwards whatever came of it. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { fakeWorkers, made } from '../../../tests/support/fake-worker';
import { readFile } from './client';

it('reads a file in a worker of its own, which does not outlast it', async () => {
  fakeWorkers(() => ({
    read: (...asked: unknown[]) => {
      if (asked[0] === 'broken') throw new Error('no such file');
      return asked;
    },
  }));
  const asked = ['some', 'file'] as unknown as Parameters<typeof readFile>;
  assert.deepEqual(await readFile(...asked), asked);
  await assert.rejects(readFile(...(['broken'] as unknown as Parameters<typeof readFile>)), /no such file/);
  assert.deepEqual(
    made.map(({ terminated }) => terminated),
    [true, true],
  );
});
