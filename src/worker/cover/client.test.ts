/** The page's side of the search for covering sets: one search for a questionnaire, told as it improves, and stopped by hand. */
import assert from 'node:assert/strict';
import { afterEach, beforeEach, it } from 'node:test';
import { releaseProxy, type Remote } from 'comlink';
import { fakeWorkers, made } from '../../../tests/support/fake-worker';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Questionnaire } from '../../core/document/types';
import { CoverClient, type CoverStanding } from './client';
import { lookForCover } from './look';
import type { CoverFound, CoveringRoutes } from './types';

const asking = (...names: string[]): Questionnaire =>
  questionnaire([section('a', [...names.map((name) => ask(name)), ask('end')])]);
const some = (taken: number): CoveringRoutes => ({ routes: [], atLeast: 1, taken, of: 9 });
const all: CoverFound = { ...some(9), complete: true };

/** Searches under way: what was asked, how to tell more, and how to end. */
let searches: {
  readonly about: string;
  readonly improved: Remote<(soFar: CoveringRoutes) => void>;
  readonly end: (found: CoverFound | Error) => void;
}[];

beforeEach(() => {
  searches = [];
  fakeWorkers(() => ({
    look: ({ sections }: Questionnaire, what: string, improved: Remote<(soFar: CoveringRoutes) => void>) =>
      new Promise((resolve, fail) => {
        searches.push({
          about: `${what} of ${sections[0]?.items.length}`,
          improved,
          end: (found) => (found instanceof Error ? fail(found) : resolve(found)),
        });
      }),
  }));
});

// The channels on which more is told keep the process alive otherwise.
afterEach(() => searches.forEach(({ improved }) => improved[releaseProxy]()));

/** Lets messages arrive. */
const settled = async () => {
  for (let n = 0; n < 4; n += 1) await new Promise((resolve) => setTimeout(resolve, 5));
};
const stands = (told: readonly CoverStanding[]) => told.map(({ stands: of, taken }) => `${of} ${taken}`);

it('tells what was found so far, then all; the next to ask are told at once', async () => {
  const client = new CoverClient('forks');
  const [first, second]: CoverStanding[][] = [[], []];
  const document = asking('one');
  const unwatch = client.watch(document, (standing) => first?.push(standing));
  await settled();
  void searches[0]?.improved(some(3));
  await settled();
  client.watch(document, (standing) => second?.push(standing));
  unwatch();
  void searches[0]?.improved(some(7));
  await settled();
  searches[0]?.end(all);
  await settled();
  assert.deepEqual(
    [stands(first ?? []), stands(second ?? [])],
    [
      ['looking 0', 'looking 3'],
      ['looking 3', 'looking 7', 'found 9'],
    ],
  );
  assert.deepEqual([searches.length, made.length, made[0]?.terminated], [1, 1, true]);
  // Other words lead nobody elsewhere: nothing is looked for anew.
  const reworded = { ...document, title: 'Reworded' };
  const third: CoverStanding[] = [];
  client.watch(reworded, (standing) => third.push(standing));
  assert.deepEqual([stands(third), made.length], [['found 9'], 1]);
  client.stop();
});

it('begins anew for a questionnaire with other routes, and forgets the search before', async () => {
  const client = new CoverClient('pairs');
  const told: CoverStanding[] = [];
  const unwatch = client.watch(asking('one'), (standing) => told.push(standing));
  await settled();
  unwatch();
  client.watch(asking('one', 'two'), (standing) => told.push(standing));
  await settled();
  void searches[0]?.improved(some(3));
  searches[1]?.end(all);
  await settled();
  assert.deepEqual(stands(told), ['looking 0', 'looking 0', 'found 9']);
  assert.deepEqual(
    searches.map(({ about }) => about),
    ['pairs of 2', 'pairs of 3'],
  );
  assert.deepEqual(
    made.map(({ terminated }) => terminated),
    [true, true],
  );
});

it('is left where it is when it is stopped, until it is begun again; a fault is told', async () => {
  const client = new CoverClient('forks');
  const told: CoverStanding[] = [];
  const document = asking('one');
  client.halt();
  client.watch(document, (standing) => told.push(standing));
  await settled();
  void searches[0]?.improved(some(3));
  await settled();
  client.halt();
  client.halt();
  searches[0]?.end(all);
  await settled();
  assert.deepEqual(stands(told), ['looking 0', 'looking 3', 'stopped 3']);
  client.again(document);
  await settled();
  searches[1]?.end(new Error('out of memory'));
  await settled();
  assert.deepEqual(stands(told).slice(3), ['looking 0', 'failed 0']);
  client.halt();
  assert.equal(told.length, 5);
  // Stopped for good, it knows nothing.
  client.stop();
  client.watch(document, () => undefined);
  await settled();
  assert.equal(made.length, 3);
  client.stop();
});

it('looks for what it is asked, with what only one of the routes takes', () => {
  const must = { required: true };
  const plan = planFor(
    questionnaire([section('a', [ask('own', 2, must), ask('rent', 2, { ...must, askIf: 'own = 2' })])]),
  );
  const told: CoveringRoutes[] = [];
  const forks = lookForCover(plan, 'forks', (soFar) => told.push(soFar()));
  assert.deepEqual(
    forks.routes
      .map(({ items, ending, alone }) => [items.join(' '), ending, alone.length > 0])
      .sort((a, b) => String(a[0]).length - String(b[0]).length),
    [
      ['own', 'done', true],
      ['own rent', 'done', true],
    ],
  );
  assert.deepEqual([forks.complete, forks.atLeast, forks.taken === forks.of], [true, 2, true]);
  assert.ok((told[0]?.taken ?? 0) < forks.of && told.at(-1)?.taken === forks.of);
  const two = planFor(
    questionnaire([
      section('a', [
        ask('own', 2, must),
        ask('b', 2, { askIf: 'own = 1' }),
        ask('c', 2, { askIf: 'own = 2' }),
      ]),
    ]),
  );
  const pairs = lookForCover(two, 'pairs', () =>
    assert.fail('nothing is told of pairs before they are found'),
  );
  assert.ok(pairs.complete && pairs.routes.length >= 2 && pairs.taken === pairs.of);
});
