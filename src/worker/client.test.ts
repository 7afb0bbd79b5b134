/** The page's side of the analysis: always about the newest document, whatever is still under way. */
import assert from 'node:assert/strict';
import { beforeEach, it } from 'node:test';
import { SUMMARY } from '../../tests/support/analysed';
import { fakeWorkers, made } from '../../tests/support/fake-worker';
import { questionnaire } from '../../tests/support/questionnaire';
import { AnalysisClient } from './client';

const document = (title: string) => questionnaire([], { title });

/** Answers asked for that are not given yet, by what was asked. */
let waiting: { readonly asked: string; readonly answer: () => void }[];

const later = (asked: string, value: unknown) =>
  new Promise((resolve) => waiting.push({ asked, answer: () => resolve(value) }));

/** A worker of which the test says when it answers. */
const api = () => ({
  load: ({ title }: { title: string }) =>
    title === 'broken'
      ? Promise.reject(new Error('the analysis failed'))
      : later(title, { ...SUMMARY, routes: title }),
  snags: () => later('snags', []),
  sample: () => later('sample', null),
  asked: () => later('asked', { items: { q: 'always' }, passes: {} }),
});

async function answer(asked: string): Promise<void> {
  for (let n = 0; n < 100 && !waiting.some((each) => each.asked === asked); n += 1)
    await new Promise((resolve) => setTimeout(resolve, 5));
  const at = waiting.findIndex((each) => each.asked === asked);
  assert.ok(at >= 0, `${asked} was asked`);
  waiting.splice(at, 1)[0]?.answer();
}

beforeEach(() => {
  waiting = [];
  fakeWorkers(api);
});

it('analyses a document, and then what follows of it, in one worker', async () => {
  const client = new AnalysisClient();
  assert.throws(() => client.api, /nothing has been analysed/);
  const coming = client.analyse(document('first'));
  await answer('first');
  const analysed = await coming;
  assert.equal(analysed?.routes, 'first');
  assert.equal(analysed.document.title, 'first');
  assert.deepEqual([analysed.snags, analysed.sample, analysed.asked], [null, undefined, {}]);
  const [snags, sample, asked] = [
    client.withSnags(analysed),
    client.withSample(analysed),
    client.withAsked(analysed),
  ];
  for (const each of ['snags', 'sample', 'asked']) await answer(each);
  assert.deepEqual((await snags)?.snags, []);
  assert.equal((await sample)?.sample, null);
  assert.deepEqual((await asked)?.asked, { q: 'always' });
  assert.equal(made.length, 1);
  client.stop();
});

it('a newer document ends the worker that still counts the older, which is told as overtaken', async () => {
  const client = new AnalysisClient();
  const older = client.analyse(document('older'));
  const newer = client.analyse(document('newer'));
  assert.equal(await older, null);
  assert.deepEqual(
    made.map(({ terminated }) => terminated),
    [true, false],
  );
  await answer('newer');
  assert.equal((await newer)?.routes, 'newer');
  client.stop();
});

it('asked again for what is being counted, it is that count; once it stands, another', async () => {
  const client = new AnalysisClient();
  const first = document('first');
  const both = [client.analyse(first), client.analyse(first)];
  await answer('first');
  const [one, other] = await Promise.all(both);
  assert.equal(one, other);
  assert.equal(one?.routes, 'first');
  const again = client.analyse(first);
  await answer('first');
  assert.notEqual(await again, one);
  assert.equal(made.length, 1);
  client.stop();
});

it('keeps its worker for the next document where it was not busy', async () => {
  const client = new AnalysisClient();
  for (const title of ['first', 'second']) {
    const coming = client.analyse(document(title));
    await answer(title);
    assert.equal((await coming)?.routes, title);
  }
  assert.equal(made.length, 1);
  client.stop();
});

it('what follows of an overtaken document is not told', async () => {
  const client = new AnalysisClient();
  const coming = client.analyse(document('first'));
  await answer('first');
  const analysed = await coming;
  assert.ok(analysed !== null);
  const following = [client.withSnags(analysed), client.withSample(analysed), client.withAsked(analysed)];
  const next = client.analyse(document('second'));
  for (const each of ['snags', 'sample', 'asked']) await answer(each);
  assert.deepEqual(await Promise.all(following), [null, null, null]);
  await answer('second');
  await next;
  client.stop();
  assert.throws(() => client.api, /nothing has been analysed/);
});

it('an analysis that fails is told, and the next one works', async () => {
  const client = new AnalysisClient();
  await assert.rejects(client.analyse(document('broken')), /the analysis failed/);
  const coming = client.analyse(document('mended'));
  await answer('mended');
  assert.equal((await coming)?.routes, 'mended');
  assert.equal(made.length, 1);
  client.stop();
});
