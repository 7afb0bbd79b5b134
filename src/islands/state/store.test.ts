/** Saving an open study: one save at a time, nothing lost to a lost answer, a reload or another window. */
import assert from 'node:assert/strict';
import { afterEach, beforeEach, describe, it, mock } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { writeDocument } from '../../core/document/read';
import type { Questionnaire } from '../../core/document/types';
import { applyOperations } from '../../core/editing/apply-operations';
import { applyChange, type Change } from '../../core/editing/change';
import type { Operation } from '../../core/editing/operations';
import { editItem, setTitle } from '../../core/editing/structure';
import { createStudyStore } from './store';
import type { InitialStudy, StudyStore } from './study-state';

/** The server's side: the newest document under a growing revision. */
class Server {
  revision = 1;
  saves: string[] = [];
  /** Replies that are lost on the way back, though the save arrived. */
  loseReplies = 0;
  /** Saves that named another revision than the newest. */
  refusals = 0;
  down = false;

  constructor(public document: Questionnaire) {}

  readonly fetch = async (
    path: string,
    { method, body }: { method: string; body?: string },
  ): Promise<Response> => {
    await Promise.resolve();
    if (this.down) throw new TypeError('no connection');
    const study = { document: this.document, revision: this.revision, changedAt: 5 };
    if (method === 'GET')
      return Response.json(path.endsWith(`after=${this.revision}`) ? { revision: this.revision } : study);
    const sent = JSON.parse(body ?? '') as {
      revision: number;
      document?: Questionnaire;
      operations?: readonly Operation[];
    };
    if (sent.revision !== this.revision) {
      this.refusals += 1;
      return Response.json({ problem: 'changed elsewhere', study }, { status: 409 });
    }
    this.save(sent.document ?? applyOperations(this.document, sent.operations ?? []).document);
    if (this.loseReplies > 0) {
      this.loseReplies -= 1;
      throw new TypeError('the answer was lost');
    }
    return Response.json({ revision: this.revision, changedAt: 5 });
  };

  save(document: Questionnaire): void {
    this.document = document;
    this.revision += 1;
    this.saves.push(document.title);
  }
}

const start = questionnaire([section('a', [ask('one'), ask('two')])], {
  title: 'Start',
});
let server: Server;
let kept: Map<string, string>;
/** What is open in the tab. */
let current: StudyStore | null = null;

function open(): StudyStore {
  const initial: InitialStudy = {
    id: 'one',
    document: server.document,
    revision: server.revision,
    changedAt: 1,
  };
  const store = createStudyStore(initial, []);
  store.getState().saveNow();
  current = store;
  return store;
}

/** Opens the study anew; the page before has kept what it had and is gone, with all that it was waiting for. */
function reload(): StudyStore {
  current?.getState().keepNow();
  mock.timers.reset();
  mock.timers.enable({ apis: ['setTimeout', 'Date'] });
  return open();
}

const title = (store: StudyStore, text: string) => store.getState().commit(setTitle(text));

function wrote(document: Questionnaire, name: string, text: string): Questionnaire {
  return applyChange(document, writing(document, name, text)).document;
}

function writing({ sections }: Questionnaire, name: string, text: string): Change {
  const item = sections[0]?.items.findIndex((each) => each.kind !== 'page_break' && each.name === name) ?? -1;
  return editItem({ section: 0, item }, 'text', `Write ${name}`, (draft) => {
    if (draft.kind !== 'page_break') draft.text = text;
  });
}

const words = (store: StudyStore, name: string, text: string) =>
  store.getState().commit(writing(store.getState().document, name, text));

function wordsOf({ sections }: Questionnaire, name: string): string | undefined {
  const item = sections[0]?.items.find((each) => each.kind !== 'page_break' && each.name === name);
  return item?.kind === 'question' ? item.text : undefined;
}

/** Lets time pass, with all that was waiting for it. */
async function wait(ms: number): Promise<void> {
  for (let passed = 0; passed < ms; passed += 100) {
    mock.timers.tick(100);
    for (let n = 0; n < 10; n += 1) await Promise.resolve();
    await new Promise((resolve) => setImmediate(resolve));
  }
}

describe('an open study', () => {
  beforeEach(() => {
    mock.timers.enable({ apis: ['setTimeout', 'Date'] });
    server = new Server(start);
    kept = new Map();
    Object.assign(globalThis, {
      fetch: (path: string, init: { method: string; body?: string }) => server.fetch(path, init),
      sessionStorage: {
        getItem: (key: string) => kept.get(key) ?? null,
        setItem: (key: string, value: string) => void kept.set(key, value),
      },
    });
  });
  afterEach(() => mock.timers.reset());

  it('is saved a moment after the last change, and again if more was changed meanwhile', async () => {
    const store = open();
    title(store, 'A');
    title(store, 'AB');
    await wait(600);
    assert.deepEqual(server.saves, ['AB']);
    assert.equal(store.getState().saving.state, 'saved');
    title(store, 'ABC');
    await wait(400);
    title(store, 'ABCD');
    await wait(1000);
    assert.equal(server.document.title, 'ABCD');
    assert.equal(store.getState().revision, server.revision);
  });

  it('keeps trying while there is no connection', async () => {
    const store = open();
    server.down = true;
    title(store, 'Offline');
    await wait(1000);
    assert.equal(store.getState().saving.state, 'failed');
    server.down = false;
    await wait(5000);
    assert.deepEqual([server.document.title, store.getState().saving.state], ['Offline', 'saved']);
  });

  it('knows its own save again where only the answer was lost', async () => {
    const store = open();
    server.loseReplies = 1;
    title(store, 'Arrived');
    await wait(1000);
    title(store, 'Arrived, and more');
    await wait(6000);
    assert.deepEqual([server.document.title, store.getState().saving.state], ['Arrived, and more', 'saved']);
  });

  it('brings unsaved work and its history back after a reload, whatever was on its way', async () => {
    title(open(), 'Not sent yet');
    const reloaded = reload();
    assert.equal(reloaded.getState().document.title, 'Not sent yet');
    reloaded.getState().undo();
    assert.equal(reloaded.getState().document.title, 'Start');
    reloaded.getState().redo();
    // Saved, but the page was gone before the answer came.
    server.loseReplies = 1;
    await wait(500);
    title(reloaded, 'Typed after');
    const again = reload();
    assert.equal(again.getState().document.title, 'Typed after');
    await wait(6000);
    assert.deepEqual([server.document.title, again.getState().saving.state], ['Typed after', 'saved']);
  });

  it('takes in once, and before it saves, what others saved while the page was gone', async () => {
    title(open(), 'Mine');
    server.save(wrote(server.document, 'two', 'Theirs'));
    const reloaded = reload();
    await wait(1000);
    assert.deepEqual([server.refusals, server.revision], [0, 3]);
    assert.deepEqual([server.document.title, wordsOf(server.document, 'two')], ['Mine', 'Theirs']);
    title(reloaded, 'Mine again');
    reloaded.getState().saveNow();
    await wait(1000);
    assert.deepEqual([server.refusals, server.revision, server.document.title], [0, 4, 'Mine again']);
    // The same words under another number.
    title(reloaded, 'More');
    server.save(server.document);
    reload();
    await wait(1000);
    assert.deepEqual([server.refusals, server.document.title], [0, 'More']);
  });

  it('puts together what others wrote elsewhere, and takes back only its own', async () => {
    const store = open();
    words(store, 'one', 'Mine');
    server.save(wrote(server.document, 'two', 'Theirs'));
    await wait(1500);
    assert.equal(store.getState().saving.state, 'saved');
    for (const document of [store.getState().document, server.document])
      assert.deepEqual([wordsOf(document, 'one'), wordsOf(document, 'two')], ['Mine', 'Theirs']);
    store.getState().undo();
    assert.deepEqual(
      [wordsOf(store.getState().document, 'one'), wordsOf(store.getState().document, 'two')],
      ['one?', 'Theirs'],
    );
    store.getState().redo();
    await wait(1500);
    assert.equal(wordsOf(server.document, 'one'), 'Mine');
    assert.equal(store.getState().saving.state, 'saved');
  });

  it('takes in what others save while nothing is written here', async () => {
    const store = open();
    server.save(wrote(server.document, 'two', 'Theirs'));
    await store.getState().look();
    assert.equal(wordsOf(store.getState().document, 'two'), 'Theirs');
    assert.equal(store.getState().saving.state, 'saved');
    store.getState().undo();
    assert.equal(wordsOf(store.getState().document, 'two'), 'Theirs', 'nothing of one’s own to take back');
  });

  it('keeps both versions where another wrote in the same place, until one is chosen', async () => {
    const store = open();
    words(store, 'one', 'Mine');
    words(store, 'two', 'Mine as well');
    server.save(wrote(wrote(server.document, 'one', 'Theirs'), 'two', 'Theirs as well'));
    await wait(1000);
    assert.equal(store.getState().saving.state, 'conflict');
    assert.deepEqual(
      [wordsOf(store.getState().document, 'one'), wordsOf(server.document, 'one')],
      ['Mine', 'Theirs'],
    );
    // A reload shows the same choice, not one of the two.
    const reloaded = reload();
    await wait(1000);
    assert.equal(reloaded.getState().saving.state, 'conflict');
    assert.equal(wordsOf(reloaded.getState().document, 'one'), 'Mine');
    reloaded.getState().settle(({ operation }) => operation.part === 'item:one');
    await wait(1000);
    assert.equal(reloaded.getState().saving.state, 'saved');
    for (const document of [reloaded.getState().document, server.document])
      assert.deepEqual([wordsOf(document, 'one'), wordsOf(document, 'two')], ['Mine', 'Theirs as well']);
  });

  it('does not take what never arrived for saved', async () => {
    const store = open();
    server.down = true;
    words(store, 'one', 'Mine');
    await wait(1000);
    server.down = false;
    server.save(wrote(server.document, 'one', 'Theirs'));
    await wait(6000);
    assert.equal(store.getState().saving.state, 'conflict');
  });

  it('shows the other version where the whole of it is taken', async () => {
    const store = open();
    title(store, 'Mine');
    server.save({ ...start, title: 'Theirs' });
    await wait(1000);
    await store.getState().takeTheirs('drop');
    assert.equal(writeDocument(store.getState().document), writeDocument(server.document));
    assert.equal(store.getState().saving.state, 'saved');
  });

  it('refuses a change that would not be a document, and stays as it was', () => {
    const store = open();
    const problem = store
      .getState()
      .commit({ label: 'Break it', apply: (draft) => void (draft.sections = []) });
    assert.match(problem ?? '', /sections/);
    assert.equal(store.getState().document, store.getState().plan.document);
    assert.equal(store.getState().past.length, 0);
  });
});
