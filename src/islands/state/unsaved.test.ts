/** Work kept in the browser's database: offered to the next visit, unless the page that left it is still open. */
import assert from 'node:assert/strict';
import { beforeEach, it } from 'node:test';
import 'fake-indexeddb/auto';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { dropUnsaved, keepUnsaved, thisPage, unsavedOf, type Unsaved } from './unsaved';

const base = questionnaire([section('a', [ask('one')])], { title: 'Saved' });
const entry = (page: string, rest: Partial<Unsaved> = {}): Unsaved => ({
  page,
  study: 'study',
  base,
  revision: 3,
  document: { ...base, title: page },
  at: 5,
  ...rest,
});

/** The locks that pages hold; undefined where the browser has none. */
let held: Set<string> | undefined;
Object.defineProperty(globalThis, 'navigator', {
  value: {
    get locks() {
      const of = held;
      return of === undefined
        ? undefined
        : {
            request: (name: string) => void of.add(name),
            query: async () => ({ held: [...of].map((name) => ({ name })) }),
          };
    },
  },
});

const pages = async (study = 'study') => (await unsavedOf(study)).map(({ page }) => page);

beforeEach(async () => {
  held = new Set();
  for (const study of ['study', 'other'])
    for (const { page } of await unsavedOf(study)) await dropUnsaved(page);
});

it('is given back by its study, the newest first, and once taken up no more', async () => {
  assert.ok(await keepUnsaved(entry('first')));
  assert.ok(await keepUnsaved(entry('second', { at: 9 })));
  assert.ok(await keepUnsaved(entry('elsewhere', { study: 'other' })));
  assert.deepEqual(await pages(), ['second', 'first']);
  const [newest] = await unsavedOf('study');
  assert.deepEqual(newest, entry('second', { at: 9 }));
  // The same page keeps one state: its last.
  await keepUnsaved(entry('second', { at: 2 }));
  assert.deepEqual(await pages(), ['first', 'second']);
  await dropUnsaved('second');
  assert.deepEqual(await pages(), ['first']);
});

it('is not offered while the page that keeps it is open', async () => {
  const mine = thisPage();
  assert.equal(thisPage(), mine);
  await keepUnsaved(entry(mine));
  await keepUnsaved(entry('gone'));
  assert.deepEqual(await pages(), ['gone']);
  held = new Set();
  assert.deepEqual((await pages()).sort(), [mine, 'gone'].sort());
});

it('where a browser does not tell which pages are open, only what has not changed for a while is offered', async () => {
  held = undefined;
  await keepUnsaved(entry('now', { at: Date.now() }));
  await keepUnsaved(entry('before', { at: Date.now() - 120_000 }));
  assert.deepEqual(await pages(), ['before']);
  held = new Set();
});

it('what cannot be read any more is not offered', async () => {
  const broken = { ...entry('broken'), document: { title: 'No questionnaire' } } as unknown as Unsaved;
  await keepUnsaved(broken);
  await keepUnsaved({ ...entry('older'), revision: 'three' } as unknown as Unsaved);
  await keepUnsaved(entry('whole'));
  assert.deepEqual(await pages(), ['whole']);
});

it('a value that the database cannot hold is told as not kept', async () => {
  assert.equal(await keepUnsaved({ ...entry('odd'), at: (() => 1) as unknown as number }), false);
});
