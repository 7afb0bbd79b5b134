/** A worker that is held: one for all questions until it is stopped. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { FakeWorker, fakeWorkers, made } from '../../tests/support/fake-worker';
import { HeldWorker } from './held-worker';

it('is made with the first question, answers until it is stopped, and made anew with the next', async () => {
  fakeWorkers(() => ({ twice: (number: number) => 2 * number }));
  const held = new HeldWorker<{ twice: (number: number) => number }>(
    () => new FakeWorker() as unknown as Worker,
  );
  held.stop();
  assert.deepEqual([held.worker, made.length], [null, 0]);
  assert.deepEqual([await held.api.twice(1), await held.api.twice(2), made.length], [2, 4, 1]);
  const before = held.api;
  assert.equal(held.worker, made[0]);
  held.stop();
  assert.deepEqual([held.worker, made[0]?.terminated], [null, true]);
  // Asked by whoever has it still.
  await assert.rejects(async () => before.twice(3), /released/);
  assert.deepEqual([await held.api.twice(4), made.length, made[1]?.terminated], [8, 2, false]);
  held.stop();
});

it('refuses what waits for a worker that breaks down, and makes another for the next question', async () => {
  let isDeaf = true;
  fakeWorkers(() => ({ twice: (number: number) => (isDeaf ? new Promise(() => undefined) : 2 * number) }));
  const held = new HeldWorker<{ twice: (number: number) => number }>(
    () => new FakeWorker() as unknown as Worker,
  );
  for (const [message, says] of [
    ['out of memory', /^Error: out of memory$/],
    // The program of the worker never came.
    [
      undefined,
      /^Error: A part of the program could not be loaded: see that the server runs, and reload the page.$/,
    ],
  ] as const) {
    const { api } = held;
    const waiting = api.twice(1);
    held.worker?.dispatchEvent(Object.assign(new Event('error'), { message }));
    await assert.rejects(async () => waiting, says);
    await assert.rejects(async () => api.twice(2), says);
  }
  assert.deepEqual([made.length, made[0]?.terminated], [2, true]);
  isDeaf = false;
  assert.deepEqual([await held.api.twice(2), made.length, made[1]?.terminated], [4, 3, true]);
  held.stop();
});
