/** The list of studies stands at once, whatever is on it. */
import assert from 'node:assert/strict';
import { EventEmitter } from 'node:events';
import { readFileSync } from 'node:fs';
import { describe, it } from 'node:test';
import { emptyQuestionnaire } from '../core/editing/structure';
import { openStore } from '../store/open';
import { studies } from '../store/schema';
import { addStudy } from '../store/studies';
import type { Examined } from '../wire/studies';
import { examine } from './examine';
import { Examiner, type Thread } from './examiner';
import { studyCards } from './study-cards';

/** A thread that answers when it is told to. */
class Slow extends EventEmitter implements Thread {
  asked: { checksum: string; text: string }[] = [];
  ended = false;
  postMessage(asked: { checksum: string; text: string }): void {
    this.asked.push(asked);
  }
  answer(): void {
    const asked = this.asked.pop();
    if (asked !== undefined)
      this.emit('message', { checksum: asked.checksum, found: examine(asked.text) } satisfies {
        checksum: string;
        found: Examined;
      });
  }
  unref(): void {
    // Nothing holds the process here.
  }
  terminate(): void {
    this.ended = true;
  }
}

function threads(): { all: Slow[]; start: () => Slow } {
  const all: Slow[] = [];
  return {
    all,
    start() {
      const thread = new Slow();
      all.push(thread);
      return thread;
    },
  };
}

describe('the list of studies', () => {
  it('is there before anything on it was examined, and is filled in one by one', () => {
    const db = openStore(':memory:');
    addStudy(db, emptyQuestionnaire('Sound'), 5, 'sound');
    addStudy(db, emptyQuestionnaire('Newer'), 6, 'newer');
    db.insert(studies)
      .values({ id: 'cut', document: '{"format', revision: 1, createdAt: 1, changedAt: 1, removedAt: null })
      .run();
    const { all, start } = threads();
    const examiner = new Examiner(start);
    const state = () => studyCards(db, examiner).map(({ title, examined }) => [title, examined?.is ?? null]);
    assert.deepEqual(state(), [
      ['Newer', null],
      ['Sound', null],
      ['', null],
    ]);
    all[0]?.answer();
    assert.deepEqual(state(), [
      ['Newer', 'questionnaire'],
      ['Sound', null],
      ['', null],
    ]);
    all[0]?.answer();
    all[0]?.answer();
    assert.deepEqual(state(), [
      ['Newer', 'questionnaire'],
      ['Sound', 'questionnaire'],
      ['', 'unreadable'],
    ]);
    assert.equal(all.length, 1);
    examiner.close();
  });

  it('goes on where one takes too long or ends the thread, and does not ask again', async (test) => {
    test.mock.method(console, 'error', () => undefined);
    const { all, start } = threads();
    const examiner = new Examiner(start, 20);
    const [hard, fatal, sound] = ['hard', 'fatal', 'sound'].map((title) =>
      JSON.stringify(emptyQuestionnaire(title)),
    );
    for (const text of [hard, fatal, sound]) assert.equal(examiner.of(text ?? ''), null);
    await new Promise((resolve) => setTimeout(resolve, 60));
    assert.deepEqual(examiner.of(hard ?? ''), { is: 'failed', why: 'time' });
    assert.ok(all[0]?.ended);
    assert.ok(all.length > 1);
    examiner.close();

    const again = threads();
    const other = new Examiner(again.start);
    for (const text of [fatal, sound]) other.of(text ?? '');
    again.all[0]?.emit('error', new Error('out of memory'));
    assert.deepEqual(other.of(fatal ?? ''), { is: 'failed', why: 'fault' });
    again.all[1]?.answer();
    assert.equal(other.of(sound ?? '')?.is, 'questionnaire');
    other.close();
  });

  it('tells of a questionnaire how large it is, its routes and its snags', () => {
    const found = examine(readFileSync('demo/tern-valley-home-heating.fork.json', 'utf8'));
    assert.ok(found.is === 'questionnaire');
    const { routes, exact, snags } = found;
    assert.deepEqual({ routes, exact, snags }, { routes: '2048263', exact: true, snags: [] });
  });
});
