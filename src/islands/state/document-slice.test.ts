/** The history of an open study: steps that belong together, taken back and done again, and what is said of each. */
import assert from 'node:assert/strict';
import { beforeEach, describe, it, mock } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { editItem, moveSection, removeItem, removeSection, setTitle } from '../../core/editing/structure';
import { createStudyStore } from './store';
import type { StudyStore } from './study-state';

const start = questionnaire(
  [section('a', [ask('one'), ask('two')]), section('b', [ask('three', 2, { askIf: 'one = 1' })])],
  { title: 'Start' },
);

let store: StudyStore;
const state = () => store.getState();
const title = () => state().document.title;
const say = (text: string) => state().commit(setTitle(text));
const wording = (text: string) =>
  state().commit(
    editItem({ section: 0, item: 0 }, 'text', 'Write one', (draft) => {
      if (draft.kind !== 'page_break') draft.text = text;
    }),
  );

describe('the history', () => {
  beforeEach(() => {
    mock.timers.reset();
    mock.timers.enable({ apis: ['setTimeout', 'Date'], now: 10_000 });
    Object.assign(globalThis, {
      fetch: () => Promise.reject(new TypeError('no server')),
      sessionStorage: { getItem: () => null, setItem: () => undefined },
    });
    store = createStudyStore({ id: 'one', document: start, revision: 1, changedAt: 1 }, []);
  });

  it('takes typing that does not stop for one step, and what comes later for another', () => {
    say('A');
    mock.timers.tick(1400);
    say('AB');
    assert.deepEqual(
      state().past.map(({ label }) => label.length > 0),
      [true],
    );
    mock.timers.tick(1600);
    say('ABC');
    assert.equal(state().past.length, 2);
    mock.timers.tick(1500);
    say('ABCx');
    assert.equal(state().past.length, 3);
    state().undo();
    // Another field begins a step of its own, however quickly it follows.
    wording('New');
    wording('Newer');
    assert.equal(state().past.length, 3);
    say('ABCD');
    assert.equal(state().past.length, 4);
    for (const [text, left] of [
      ['ABC', 3],
      ['ABC', 2],
      ['AB', 1],
      ['Start', 0],
    ] as const) {
      state().undo();
      assert.deepEqual([title(), state().past.length], [text, left]);
    }
    state().undo();
    assert.equal(title(), 'Start');
  });

  it('does again what was taken back, one step at a time, until something else is done', () => {
    for (const text of ['A', 'B', 'C']) {
      say(text);
      mock.timers.tick(2000);
    }
    state().undo();
    state().undo();
    assert.deepEqual([title(), state().future.length], ['A', 2]);
    state().redo();
    assert.deepEqual([title(), state().past.length, state().future.length], ['B', 2, 1]);
    assert.match(state().said?.text ?? '', /^Done again: /);
    assert.equal(state().said?.canTakeBack, false);
    state().redo();
    state().redo();
    assert.deepEqual([title(), state().future.length], ['C', 0]);
    state().undo();
    say('D');
    assert.deepEqual([state().future.length, state().past.length], [0, 3]);
  });

  it('begins a new step after one was taken back, though it is of the same kind', () => {
    say('A');
    state().undo();
    say('B');
    state().redo();
    assert.equal(title(), 'B');
    state().undo();
    assert.equal(title(), 'Start');
  });

  it('tells the errors that taking something away or moving it made, and none that were there', () => {
    state().commit(removeItem(start, { section: 0, item: 0 }));
    assert.deepEqual(
      state().notice?.snags.map(({ rule }) => rule),
      ['unknown-name'],
    );
    state().undo();
    assert.equal(state().notice, null);
    assert.match(state().said?.text ?? '', /^Taken back: /);
    state().commit(moveSection(start, 1, 0));
    const rules = state().notice?.snags.map(({ severity }) => severity);
    assert.ok(rules !== undefined && rules.length > 0);
    state().closeNotice();
    // What was wrong before is no news.
    state().commit(moveSection(state().document, 0, 1));
    state().commit(removeItem(state().document, { section: 0, item: 0 }));
    state().commit(removeItem(state().document, { section: 0, item: 0 }));
    assert.equal(state().notice, null);
    state().undo();
    state().undo();
    assert.equal(state().notice, null);
    // Words make no errors: nothing is told of them.
    say('Still');
    assert.equal(state().notice, null);
  });

  it('looks for snags once what was typed is seen, once for all that was typed by then', () => {
    const rules = () => state().snags.map(({ rule }) => rule);
    const before = state().snags;
    state().commit(removeItem(state().document, { section: 0, item: 0 }));
    say('Still');
    assert.equal(state().snags, before);
    mock.timers.tick(0);
    assert.ok(rules().includes('unknown-name'));
    const found = state().snags;
    mock.timers.tick(1000);
    assert.equal(state().snags, found);
    state().undo();
    state().undo();
    mock.timers.tick(0);
    assert.ok(!rules().includes('unknown-name'));
  });

  it('says what was deleted, one by its words and several by their number', () => {
    const said = (place: { section: number; item: number }) => {
      state().commit(removeItem(state().document, place));
      return state().said?.text;
    };
    assert.equal(said({ section: 0, item: 1 }), 'two (“two?”) is deleted.');
    assert.equal(state().said?.canTakeBack, true);
    state().closeSaid();
    assert.equal(state().said, null);
    wording('x'.repeat(70));
    assert.equal(said({ section: 0, item: 0 }), `one (“${'x'.repeat(59)}…”) is deleted.`);
    state().undo();
    wording('  ');
    assert.equal(said({ section: 0, item: 0 }), undefined);
    state().undo();
    state().undo();
    state().undo();
    state().undo();
    state().commit(removeSection(state().document, 0));
    assert.equal(state().said?.text, '2 items are deleted.');
  });

  it('refuses what is no questionnaire with its place, and changes that change nothing count as none', () => {
    const refused = state().commit({
      label: 'Break it',
      apply: (draft) => void ((draft as { language: unknown }).language = 7),
    });
    assert.match(refused ?? '', /language/);
    assert.equal(say('Start'), null);
    assert.deepEqual([state().past.length, state().saving.state], [0, 'saved']);
  });

  it('lets nobody change a study that is open for review', () => {
    store = createStudyStore({ id: 'one', document: start, revision: 1, changedAt: 1 }, [], [], [], {
      name: 'Board',
      reviewing: true,
    });
    assert.match(say('Mine') ?? '', /for reading/);
    assert.equal(title(), 'Start');
    assert.equal(state().api, '/api/review/one');
  });

  it('lets nobody change a version, which is opened at an address of its own', () => {
    const version = {
      number: 2,
      frozen: true,
      checksum: '',
      revision: 1,
      note: '',
      author: 'Ada',
      at: 1,
      gate: null,
      reason: null,
    };
    store = createStudyStore({ id: 'one', document: start, revision: 1, changedAt: 1 }, [], [], [], {
      name: null,
      reviewing: false,
      version,
    });
    assert.match(say('Mine') ?? '', /version 2, which never changes/);
    assert.equal(title(), 'Start');
    assert.deepEqual([state().api, state().home], ['/api/studies/one', '/studies/one/versions/2']);
  });
});
