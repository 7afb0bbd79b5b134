/** What is kept in the browser and sent off as a page goes, and what is told while a save waits. */
import assert from 'node:assert/strict';
import { beforeEach, describe, it, mock } from 'node:test';
import 'fake-indexeddb/auto';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Questionnaire } from '../../core/document/types';
import { isSameDocument, SaveQueue, together, type SavingState } from './save-queue';

const base = questionnaire([section('a', [ask('one')])], { title: 'Start' });
const titled = (title: string): Questionnaire => ({ ...base, title });

let state: SavingState;
let sent: { readonly method: string; readonly body: Record<string, unknown> }[];
/** What the server answers next; null: nothing comes back. */
let answers: (Response | null)[];
let room: boolean;
/** What the tab keeps, newest last. */
let inTab: { readonly document: { title: string } | null; readonly sent: { title: string } | null }[];

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
  inTab = [];
  Object.assign(globalThis, {
    fetch: async (_: string, { method, body }: { method: string; body?: string }) => {
      sent.push({ method, body: JSON.parse(body ?? 'null') as Record<string, unknown> });
      const answer = answers.shift();
      if (answer == null) throw new TypeError('no connection');
      return answer;
    },
    sessionStorage: {
      getItem: () => null,
      setItem: (_: string, written: string) => {
        if (!room) throw new DOMException('full', 'QuotaExceededError');
        inTab.push(JSON.parse(written) as (typeof inTab)[number]);
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

describe('changes that follow each other', () => {
  const times = async (every: number, count: number, queue: SaveQueue) => {
    for (let n = 0; n < count; n += 1) {
      edit(queue, `Title ${n}`);
      await pass(every);
    }
  };

  it('are saved together after the last, and at the latest two seconds after the first', async () => {
    const queue = queueOf();
    answers = [saved(4), saved(5), saved(6)];
    await times(300, 3, queue);
    assert.equal(sent.length, 0);
    await pass(99);
    assert.equal(sent.length, 0);
    await pass(1);
    assert.deepEqual([sent.length, state.saving.state], [1, 'saved']);
    // Typing that goes on: the seventh comes 1,800 ms after the first, and what is left of two seconds is waited.
    await times(300, 7, queue);
    assert.equal(sent.length, 2);
    await pass(400);
    assert.equal(sent.length, 2);
    assert.equal(state.saving.state, 'saved');
  });

  it('are saved once more where something came while a save was on its way', async () => {
    const queue = queueOf();
    answers = [saved(4), saved(5)];
    edit(queue, 'First');
    mock.timers.tick(400);
    assert.equal(state.saving.state, 'saving');
    edit(queue, 'Second');
    await settled();
    assert.deepEqual([state.saving.state, state.revision, sent.length], ['waiting', 4, 1]);
    await pass(400);
    assert.deepEqual([state.saving.state, state.revision, sent.length], ['saved', 5, 2]);
    assert.deepEqual(
      sent.map(({ body }) => body.revision),
      [3, 4],
    );
  });

  it('are kept in the tab with what is on its way, and as saved once they are', async () => {
    const queue = queueOf();
    answers = [saved(4)];
    edit(queue, 'Mine');
    await pass(300);
    assert.deepEqual([inTab.at(-1)?.document?.title, inTab.at(-1)?.sent, inTab.length], ['Mine', null, 1]);
    mock.timers.tick(100);
    mock.timers.tick(300);
    assert.deepEqual([inTab.at(-1)?.document?.title, inTab.at(-1)?.sent?.title], ['Mine', 'Mine']);
    await settled();
    await pass(300);
    assert.deepEqual([inTab.at(-1)?.document, inTab.at(-1)?.sent], [null, null]);
  });

  it('are written to the tab once, a moment after the last, and at once as the page goes', async () => {
    const queue = queueOf();
    for (const title of ['One', 'Two', 'Three']) {
      edit(queue, title);
      await pass(99);
    }
    assert.equal(inTab.length, 0);
    queue.leave();
    assert.deepEqual(
      inTab.map(({ document }) => document?.title),
      ['Three'],
    );
    await pass(300);
    // What had still been waited for is not written again.
    assert.equal(inTab.length, 1);
  });

  it('wait, and are not sent, while two versions stand beside each other', async () => {
    const conflict = { state: 'conflict', problem: null, theirs: base, revision: 4, changedAt: 2 } as const;
    const queue = queueOf({ saving: conflict });
    edit(queue, 'Mine');
    queue.saveNow();
    await pass(5000);
    assert.deepEqual([state.saving, sent.length], [conflict, 0]);
    assert.equal(inTab.at(-1)?.document?.title, 'Mine');
    await queue.look();
    assert.equal(sent.length, 0);
  });
});

describe('a save that may arrive later', () => {
  for (const [status, again] of [
    [401, true],
    [500, true],
    [503, true],
    [404, false],
    [409, false],
    [499, false],
  ] as const)
    it(`is ${again ? '' : 'not '}tried again after ${status}`, async () => {
      const queue = queueOf();
      answers = [Response.json({ problem: 'No.' }, { status }), saved(4)];
      edit(queue, 'Mine');
      await pass(400);
      assert.deepEqual(state.saving, { state: 'failed', problem: 'No.' });
      // What is written meanwhile is tried at the usual time, and says what was wrong until it arrives.
      await pass(3999);
      assert.equal(sent.length, 1);
      await pass(1);
      assert.equal(sent.length, again ? 2 : 1);
    });

  it('tells why the one before failed while it waits and while it is sent', async () => {
    const queue = queueOf();
    answers = [Response.json({ problem: 'No.' }, { status: 422 }), saved(4)];
    edit(queue, 'Mine');
    await pass(400);
    edit(queue, 'Mine too');
    edit(queue, 'Mine as well');
    assert.deepEqual(state.saving, { state: 'waiting', problem: 'No.' });
    mock.timers.tick(400);
    assert.deepEqual(state.saving, { state: 'saving', problem: 'No.' });
    await settled();
    assert.deepEqual(state.saving, { state: 'saved' });
  });
});

describe('what another visit left', () => {
  const left = { base, document: titled('Left'), revision: 3 };

  it('is saved at once where nobody saved since', async () => {
    const queue = queueOf();
    answers = [saved(4)];
    queue.takeUp(left);
    assert.deepEqual(state.saving, { state: 'waiting' });
    await pass(0);
    assert.deepEqual([sent[0]?.body.revision, state.saving.state, state.revision], [3, 'saved', 4]);
    assert.equal(state.document.title, 'Left');
    const count = inTab.length;
    await pass(300);
    assert.ok(inTab.length > count);
  });

  it('is put together with what others saved since, and kept', async () => {
    const theirs = questionnaire([section('a', [ask('one'), ask('more')])], { title: 'Start' });
    const queue = queueOf({ document: theirs, base: theirs, revision: 5 });
    answers = [saved(6)];
    queue.takeUp(left);
    assert.deepEqual([state.document.title, state.revision, state.saving.state], ['Left', 5, 'waiting']);
    assert.equal(state.document.sections[0]?.items.length, 2);
    await pass(400);
    assert.deepEqual([sent[0]?.body.revision, state.saving.state], [5, 'saved']);
  });
});

describe('a version of others', () => {
  const look = async (queue: SaveQueue, body: object) => {
    answers = [Response.json(body)];
    await queue.look();
  };

  it('is taken in as it is where nothing was written here, and kept', async () => {
    const queue = queueOf();
    await look(queue, { revision: 3 });
    await look(queue, { revision: 4, changedAt: 7 });
    await look(queue, { revision: 4, document: titled('Theirs') });
    assert.deepEqual([state.revision, state.document.title], [3, 'Start']);
    await look(queue, { revision: 4, document: titled('Theirs'), changedAt: 7 });
    assert.deepEqual(
      [state.revision, state.document.title, state.saving.state, state.savedAt],
      [4, 'Theirs', 'saved', 7],
    );
    await pass(300);
    assert.equal(inTab.length, 1);
  });

  it('is left alone where an own save came meanwhile, or none can be read', async () => {
    const queue = queueOf();
    answers = [Response.json({ revision: 5, document: titled('Theirs'), changedAt: 7 })];
    const looking = queue.look();
    state = { ...state, revision: 4 };
    await looking;
    assert.deepEqual([state.document.title, state.revision], ['Start', 4]);
    await look(queue, { revision: 5, document: { title: 'No questionnaire' }, changedAt: 7 });
    assert.deepEqual([state.document.title, state.revision], ['Start', 4]);
  });

  it('stands beside mine where both wrote in one place; what is chosen is saved, and told where it cannot be used', async () => {
    const queue = queueOf({ document: titled('Mine'), saving: { state: 'waiting' } });
    queue.absorb({ document: titled('Theirs'), revision: 4, changedAt: 7 }, null);
    assert.equal(state.saving.state, 'conflict');
    await pass(300);
    assert.equal(inTab.length, 1);
    queue.settle(() => true);
    assert.deepEqual([state.document.title, state.saving.state, state.revision], ['Mine', 'waiting', 4]);
    answers = [saved(5)];
    await pass(400);
    assert.deepEqual([state.saving.state, state.revision, sent[0]?.body.revision], ['saved', 5, 4]);
    queue.settle(() => false);
    await queue.takeTheirs('drop');
    assert.equal(state.document.title, 'Mine');
  });

  it('is taken as a whole once mine is a study of its own, and not where that failed', async () => {
    const theirs = titled('Theirs');
    const conflict = { state: 'conflict', problem: null, theirs, revision: 4, changedAt: 7 } as const;
    const queue = queueOf({ document: titled('Mine'), saving: conflict });
    answers = [Response.json({ problem: 'No room.' }, { status: 507 })];
    await queue.takeTheirs('copy');
    assert.deepEqual(
      [state.document.title, state.saving],
      ['Mine', { ...conflict, problem: 'Your version could not be copied: No room.' }],
    );
    answers = [Response.json({ id: 'two', revision: 1, changedAt: 8 })];
    await queue.takeTheirs('copy');
    assert.deepEqual([state.document.title, state.saving.state, state.revision], ['Theirs', 'saved', 4]);
    assert.deepEqual(
      sent.map(({ method, body }) => [method, (body.document as { title: string }).title]),
      [
        ['POST', 'Mine (my version)'],
        ['POST', 'Mine (my version)'],
      ],
    );
  });
});

describe('versions that cannot be used together', () => {
  const [a, b] = [section('a', [ask('one')]), section('b', [ask('two')])];
  const both = questionnaire([a, b]);
  const [mine, theirs] = [questionnaire([b], { title: 'Mine' }), questionnaire([a])];
  const versions = { base: both, mine, theirs };
  const inConflict = () => {
    const queue = queueOf({ base: both, document: mine, saving: { state: 'waiting' } });
    queue.absorb({ document: theirs, revision: 4, changedAt: 7 }, null);
    assert.equal(state.saving.state, 'conflict');
    return queue;
  };
  const shown = () => [state.saving.state, state.document.title, state.document.sections.map(({ id }) => id)];

  it('clash in all that is mine, until some of it is chosen', () => {
    const { document, clashes } = together(versions);
    assert.equal(document, theirs);
    assert.deepEqual(
      clashes.map(({ operation, theirs: of, gone }) => [operation.do, operation.part, of, gone]),
      [
        ['set', 'study', undefined, false],
        ['remove', 'item:one', undefined, false],
        ['remove', 'section:a', undefined, false],
      ],
    );
    assert.deepEqual(together({ ...versions, theirs: both }).clashes, []);
  });

  it('come to theirs, to mine, or to what of mine can be used with theirs', () => {
    inConflict().settle(() => false);
    assert.deepEqual(shown(), ['saved', both.title, ['a']]);
    inConflict().settle(() => true);
    assert.deepEqual(shown(), ['waiting', 'Mine', ['b']]);
    inConflict().settle(({ operation }) => operation.part === 'study');
    assert.deepEqual(shown(), ['waiting', 'Mine', ['a']]);
  });

  it('stay where what is chosen cannot be used either, and that is told', () => {
    inConflict().settle(({ operation }) => operation.do === 'remove');
    assert.equal(state.saving.state, 'conflict');
    assert.match(
      'problem' in state.saving ? (state.saving.problem ?? '') : '',
      /^Chosen like this, the questionnaire cannot be used \(.*sections.*\): choose otherwise, or keep one version\.$/,
    );
    assert.equal(state.document, mine);
  });
});

it('two documents are the same by their content, in whatever order it was written', () => {
  const { title, ...rest } = base;
  assert.deepEqual(
    [isSameDocument(base, base), isSameDocument(base, { ...rest, title }), isSameDocument(base, titled('x'))],
    [true, true, false],
  );
});
