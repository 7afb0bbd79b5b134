/** Saving an open study: one save at a time, nothing lost to a lost answer, a reload or another window. */
import assert from 'node:assert/strict';
import { afterEach, beforeEach, describe, it, mock } from 'node:test';
import { questionnaire, section } from '../../../tests/support/questionnaire';
import { writeDocument } from '../../core/document/read';
import type { Questionnaire } from '../../core/document/types';
import { setTitle } from '../../core/editing/structure';
import { createStudyStore, type InitialStudy, type StudyStore } from './store';

/** The server's side: the newest document under a growing revision. */
class Server {
  revision = 1;
  saves: string[] = [];
  /** Replies that are lost on the way back, though the save arrived. */
  loseReplies = 0;
  down = false;

  constructor(public document: Questionnaire) {}

  readonly fetch = async (_path: string, { body }: { body: string }): Promise<Response> => {
    await Promise.resolve();
    if (this.down) throw new TypeError('no connection');
    const { revision, document } = JSON.parse(body) as { revision: number; document: Questionnaire };
    if (revision !== this.revision) {
      const study = { document: this.document, revision: this.revision, changedAt: 5 };
      return Response.json({ problem: 'changed in another window', study }, { status: 409 });
    }
    this.document = document;
    this.revision += 1;
    this.saves.push(document.title);
    if (this.loseReplies > 0) {
      this.loseReplies -= 1;
      throw new TypeError('the answer was lost');
    }
    return Response.json({ revision: this.revision, changedAt: 5 });
  };
}

const start = questionnaire([section('a', [])], { title: 'Start' });
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
      fetch: (path: string, init: { body: string }) => server.fetch(path, init),
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

  it('keeps both versions where another window saved in between', async () => {
    const store = open();
    server.document = { ...start, title: 'Theirs' };
    server.revision = 7;
    title(store, 'Mine');
    await wait(1000);
    assert.equal(store.getState().saving.state, 'conflict');
    assert.deepEqual([store.getState().document.title, server.document.title], ['Mine', 'Theirs']);
    // A reload shows the same choice, not one of the two.
    const reloaded = reload();
    assert.equal(reloaded.getState().saving.state, 'conflict');
    assert.equal(reloaded.getState().document.title, 'Mine');
    await reloaded.getState().takeTheirs('drop');
    assert.equal(writeDocument(reloaded.getState().document), writeDocument(server.document));
    assert.equal(reloaded.getState().saving.state, 'saved');
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
