/** The page's side of the forecast: while a share is dragged, whatever was asked for in between is left out. */
import assert from 'node:assert/strict';
import { beforeEach, it } from 'node:test';
import { fakeWorkers, made } from '../../../tests/support/fake-worker';
import { questionnaire } from '../../../tests/support/questionnaire';
import { ForecastClient } from './client';
import type { FiguresAsked } from './types';

const [first, second] = [questionnaire([], { title: 'first' }), questionnaire([], { title: 'second' })];
const asking = (starts: number): FiguresAsked => ({ starts, breakOff: 0, assumptions: [] });

/** What the worker was asked, in order, and the figures that it has not given yet. */
let asked: string[];
let waiting: (() => void)[];

beforeEach(() => {
  asked = [];
  waiting = [];
  fakeWorkers(() => ({
    load: ({ title }: { title: string }) => void asked.push(title),
    figures: ({ starts }: FiguresAsked) => {
      asked.push(String(starts));
      if (starts === 0) throw new Error('no figures');
      return new Promise((resolve) => waiting.push(() => resolve(`figures of ${starts}`)));
    },
    effects: () => 'effects',
    quotas: () => 'quotas',
    sample: (_: unknown, rows: unknown) => rows,
  }));
});

async function answered(): Promise<void> {
  while (waiting.length === 0) await new Promise((resolve) => setTimeout(resolve, 1));
  waiting.shift()?.();
}

it('works out what was asked for first and what was asked for last, and nothing in between', async () => {
  const client = new ForecastClient();
  const dragged = [1, 2, 3, 4].map((starts) => client.figures(first, asking(starts)));
  await answered();
  assert.deepEqual(await dragged[0], 'figures of 1');
  await answered();
  assert.deepEqual(await Promise.all(dragged), ['figures of 1', null, null, 'figures of 4']);
  assert.deepEqual(asked, ['first', '1', '4']);
  // Nothing is left waiting: the next is worked out as the first was.
  const next = client.figures(second, asking(5));
  await answered();
  assert.deepEqual(await next, 'figures of 5');
  assert.deepEqual(asked.slice(3), ['second', '5']);
  client.stop();
});

it('goes on after figures that cannot be worked out', async () => {
  const client = new ForecastClient();
  const [failing, waits] = [client.figures(first, asking(0)), client.figures(first, asking(6))];
  await assert.rejects(failing, /no figures/);
  await answered();
  assert.deepEqual(await waits, 'figures of 6');
  client.stop();
});

it('takes a sample on its own questionnaire, and begins anew once it was stopped', async () => {
  const client = new ForecastClient();
  assert.deepEqual(await client.sample(first, ['a'], [[1]]), [[1]]);
  assert.deepEqual(await client.sample(first, ['a'], [[2]]), [[2]]);
  assert.deepEqual(await client.sample(second, ['a'], [[3]]), [[3]]);
  assert.deepEqual(asked, ['first', 'second']);
  assert.deepEqual(
    [await client.effects({} as never), await client.more.quotas(null)],
    ['effects', 'quotas'],
  );
  assert.equal(made.length, 1);
  client.stop();
  assert.equal(made[0]?.terminated, true);
  await client.sample(second, ['a'], []);
  assert.deepEqual([asked, made.length], [['first', 'second', 'second'], 2]);
  client.stop();
});
