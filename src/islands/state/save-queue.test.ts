/** What is kept in the browser and sent off as a page goes, and what is told while a save waits. */
import assert from 'node:assert/strict';
import { beforeEach, describe, it, mock } from 'node:test';
import 'fake-indexeddb/auto';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Questionnaire } from '../../core/document/types';
import { SaveQueue, type SavingState } from './save-queue';

const base = questionnaire([section('a', [ask('one')])], { title: 'Start' });
const titled = (title: string): Questionnaire => ({ ...base, title });

let state: SavingState;
let sent: { readonly method: string; readonly body: Record<string, unknown> }[];
/** What the server answers next; null: nothing comes back. */
let answers: (Response | null)[];
let room: boolean;

function queueOf(rest: Partial<SavingState> = {}, earlier: Questionnaire | null = null): SaveQueue {
  state = {
    id: 'study',
    document: base,
    base,
    revision: 3,
    savedAt: 1,
    saving: { state: 'saved' },
    keeping: 'kept',
    past: [],
    future: [],
    ...rest,
  };
  return new SaveQueue(
    () => state,
    (next) => (state = { ...state, ...next }),
    earlier,
  );
}

const edit = (queue: SaveQueue, title: string) => {
  state = { ...state, document: titled(title) };
  queue.changed();
};

/** Lets everything that is under way come to rest. */
async function settled(): Promise<void> {
  for (let n = 0; n < 20; n += 1) await new Promise((resolve) => setImmediate(resolve));
}
async function pass(ms: number): Promise<void> {
  mock.timers.tick(ms);
  await settled();
}

beforeEach(() => {
  mock.timers.reset();
  mock.timers.enable({ apis: ['setTimeout', 'Date'], now: 1000 });
  sent = [];
  answers = [];
  room = true;
  Object.assign(globalThis, {
    fetch: async (_: string, { method, body }: { method: string; body?: string }) => {
      sent.push({ method, body: JSON.parse(body ?? 'null') as Record<string, unknown> });
      const answer = answers.shift();
      if (answer == null) throw new TypeError('no connection');
      return answer;
    },
    sessionStorage: {
      getItem: () => null,
      setItem: () => {
        if (!room) throw new DOMException('full', 'QuotaExceededError');
      },
      removeItem: () => undefined,
    },
  });
});
const saved = (revision: number) => Response.json({ revision, changedAt: 9 });

describe('a page that goes', () => {
  it('sends what is not saved, as edits on the revision it was made of, and nothing where all is', () => {
    const queue = queueOf();
    queue.leave();
    assert.equal(sent.length, 0);
    edit(queue, 'Mine');
    queue.leave();
    assert.deepEqual(
      sent.map(({ method, body }) => [method, body.revision, (body.operations as unknown[]).length]),
      [['PATCH', 3, 1]],
    );
  });

  it('sends nothing while two versions wait for somebody to choose', () => {
    const conflict = { state: 'conflict', problem: null, theirs: base, revision: 4, changedAt: 2 } as const;
    queueOf({ document: titled('Mine'), saving: conflict }).leave();
    assert.deepEqual(sent, []);
  });

  it('sends what came after a save that is on its way, on the revision that this makes', async () => {
    const queue = queueOf();
    edit(queue, 'First');
    mock.timers.tick(400);
    state = { ...state, document: titled('Second') };
    queue.leave();
    assert.deepEqual(
      sent.map(({ body }) => body.revision),
      [3, 4],
    );
    await settled();
    // What is on its way already is not sent twice.
    sent = [];
    const other = queueOf();
    edit(other, 'First');
    mock.timers.tick(400);
    other.leave();
    assert.equal(sent.length, 1);
    await settled();
  });
});

describe('what is kept in the browser', () => {
  it('is told as kept, as long as there is room for it anywhere', async () => {
    room = false;
    const queue = queueOf();
    edit(queue, 'Mine');
    queue.keep();
    await settled();
    assert.equal(state.keeping, 'kept');
    const broken = queueOf({ keeping: 'kept' });
    state = {
      ...state,
      document: { ...titled('Odd'), odd: () => 1 } as unknown as Questionnaire,
      saving: { state: 'waiting' },
    };
    broken.keep();
    await settled();
    assert.equal(state.keeping, 'full');
    state = { ...state, saving: { state: 'saved' }, document: base };
    broken.keep();
    assert.equal(state.keeping, 'kept');
  });
});

describe('a save that fails', () => {
  it('says why until one arrives, and tries again where the server may have it later', async () => {
    const queue = queueOf();
    answers = [null, null, saved(4)];
    edit(queue, 'Mine');
    await pass(400);
    assert.equal(state.saving.state, 'failed');
    const problem = 'problem' in state.saving ? state.saving.problem : undefined;
    assert.match(problem ?? '', /does not answer/);
    edit(queue, 'Mine too');
    assert.deepEqual(state.saving, { state: 'waiting', problem });
    await pass(4000);
    await pass(4000);
    assert.deepEqual([state.saving, state.revision], [{ state: 'saved' }, 4]);
    edit(queue, 'Later');
    assert.deepEqual(state.saving, { state: 'waiting', problem: undefined });
  });

  it('is not tried again where the server refused what it was sent', async () => {
    const queue = queueOf();
    answers = [Response.json({ problem: 'Not saved: no.' }, { status: 422 })];
    edit(queue, 'Mine');
    await pass(400);
    assert.deepEqual(state.saving, { state: 'failed', problem: 'Not saved: no.' });
    await pass(60_000);
    assert.equal(sent.length, 1);
    answers = [saved(4)];
    queue.saveNow();
    await pass(0);
    assert.equal(state.saving.state, 'saved');
    queue.saveNow();
    await pass(0);
    assert.equal(sent.length, 2);
  });

  it('sends the whole where edits are too many, or do not make just this', async () => {
    const queue = queueOf();
    answers = [saved(4)];
    const items = Array.from({ length: 2100 }, (_, n) => ask(`q${n}`, { type: 'text' }));
    state = { ...state, document: questionnaire([section('a', items)], { title: 'Start' }) };
    queue.changed();
    await pass(400);
    assert.equal(sent[0]?.method, 'PUT');
    assert.deepEqual([state.saving.state, state.revision], ['saved', 4]);
  });
});
