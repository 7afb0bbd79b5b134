/** The page's side of the data worker: a questionnaire is loaded once, and again only where it is another. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { fakeWorkers, made } from '../../../tests/support/fake-worker';
import { questionnaire } from '../../../tests/support/questionnaire';
import { DataClient } from './client';

it('loads what it is asked about, and forgets it with the worker', async () => {
  const loaded: string[] = [];
  fakeWorkers(() => ({ load: ({ title }: { title: string }) => void loaded.push(title) }));
  const client = new DataClient();
  const [first, second] = [questionnaire([], { title: 'first' }), questionnaire([], { title: 'second' })];
  for (const document of [first, first, second, first]) await client.about(document);
  assert.deepEqual(loaded, ['first', 'second', 'first']);
  assert.equal(made.length, 1);
  client.stop();
  assert.equal(made[0]?.terminated, true);
  await client.about(first);
  assert.deepEqual([loaded.length, made.length], [4, 2]);
  // Another worker knows nothing of it.
  made[1]?.dispatchEvent(new Event('error'));
  await new Promise(setImmediate);
  await client.about(first);
  await client.about(first);
  assert.deepEqual([loaded.length, made.length], [5, 3]);
  client.stop();
});
