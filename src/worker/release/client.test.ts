/** The page's side of the release: two versions are compared once, and again only where that failed or others are asked about. */
import assert from 'node:assert/strict';
import { beforeEach, it } from 'node:test';
import { fakeWorkers, made } from '../../../tests/support/fake-worker';
import { questionnaire } from '../../../tests/support/questionnaire';
import { ReleaseClient } from './client';

type Titled = { readonly title: string };
const [old, now] = [questionnaire([], { title: 'old' }), questionnaire([], { title: 'now' })];

let compared: string[];
let fails: boolean;

beforeEach(() => {
  compared = [];
  fails = false;
  fakeWorkers(() => ({
    compare: (one: Titled, other: Titled) => {
      compared.push(`${one.title} ${other.title}`);
      if (fails) throw new Error('too entangled');
      return compared.length;
    },
    passedRoutes: ({ title }: Titled, marks: unknown[]) => `${title} ${marks.length}`,
    bothSides: (...asked: unknown[]) => asked,
    file: async (
      asked: string,
      { title }: Titled,
      version: string,
      progress: (n: number, of: number) => void,
    ) => {
      await progress(1, 2);
      return `${asked} ${title} ${version}`;
    },
  }));
});

it('compares the same two once, also while they are still being compared', async () => {
  const client = new ReleaseClient();
  const both = [client.compare(old, now), client.compare(old, now)];
  assert.deepEqual(await Promise.all(both), [1, 1]);
  assert.equal(await client.compare(old, now), 1);
  assert.equal(await client.compare(now, old), 2);
  assert.equal(await client.compare(now, now), 3);
  assert.equal(await client.compare(old, now), 4);
  assert.deepEqual(compared, ['old now', 'now old', 'now now', 'old now']);
  client.stop();
  assert.equal(await client.compare(old, now), 5);
  client.stop();
  assert.deepEqual(
    made.map(({ terminated }) => terminated),
    [true, true],
  );
});

it('tries again what could not be compared', async () => {
  const client = new ReleaseClient();
  fails = true;
  const first = client.compare(old, now);
  await assert.rejects(first, /too entangled/);
  fails = false;
  assert.equal(await client.compare(old, now), 2);
  client.stop();
});

it('keeps the newer comparison where the older fails after it was asked for', async () => {
  const client = new ReleaseClient();
  fails = true;
  const older = client.compare(old, now);
  const newer = client.compare(now, old);
  await assert.rejects(older);
  assert.equal(client.compare(now, old), newer);
  await assert.rejects(newer);
  client.stop();
});

it('hands what is asked for over, and tells how far a file has come', async () => {
  const client = new ReleaseClient();
  const told: number[][] = [];
  const file = await client.file(
    'script' as never,
    now,
    '2' as never,
    (done, of) => void told.push([done, of]),
  );
  assert.deepEqual([file, told], ['script now 2', [[1, 2]]]);
  assert.deepEqual(await client.passedRoutes(now, [['a'], ['b']]), 'now 2');
  assert.deepEqual(await client.bothSides('7' as never, 'lost' as never), ['7', 'lost']);
  assert.equal(made.length, 1);
  client.stop();
});
