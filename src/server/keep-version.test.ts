/** A version is kept as it is; frozen only where nothing stands in the way, or with a reason that is kept with it. */
import assert from 'node:assert/strict';
import { EventEmitter } from 'node:events';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../tests/support/questionnaire';
import { passedBy } from '../../tests/support/verdicts';
import { contentMarks, routeMarks } from '../core/routing/route-content';
import { openStore, type Store } from '../store/open';
import { addStudy, saveStudy } from '../store/studies';
import { putVerdict } from '../store/verdicts';
import { listVersions } from '../store/versions';
import { judge, type Judged, type JudgeThread } from './judge';
import { judgeHere } from './judge-here';
import { keepVersion } from './keep-version';

const first = questionnaire([
  section('a', [
    ask('fuel', 2, { label: 'Fuel', required: true, skips: [{ if: 'fuel = 2', to: { ending: 'out' } }] }),
    ask('cars', 2, { label: 'Cars', required: true }),
  ]),
]);
const judged = async (asked: Judged) => judgeHere(asked);
const frozen = { frozen: true, revision: 1, note: 'for the pilot', author: 'Ada', at: 9 } as const;

function withStudy(): Store {
  const db = openStore(':memory:');
  addStudy(db, first, 1, 'one');
  return db;
}
function pass(db: Store, items: string[], ending: string): void {
  putVerdict(db, 'one', {
    ...passedBy('Ada', routeMarks(contentMarks(planFor(first)), items, ending)),
    at: 2,
  });
}
async function told(response: Response): Promise<string> {
  const { problem = '' } = (await response.json()) as { problem?: string };
  return `${response.status} ${problem}`;
}

describe('freezing', () => {
  it('is refused with what stands in the way, until that is cleared', async () => {
    const db = withStudy();
    const freeze = () => keepVersion(db, 'one', { ...frozen, wanted: 'cover', reason: '' }, judged);
    assert.match(await told(await freeze()), /^422 Not frozen: 2 routes not passed\. Clear them, or say why/);
    pass(db, ['fuel', 'cars'], 'done');
    assert.match(await told(await freeze()), /^422 Not frozen: 1 route not passed\./);
    assert.deepEqual(listVersions(db, 'one'), []);
    pass(db, ['fuel'], 'out');
    assert.equal((await freeze()).status, 201);
    const [version] = listVersions(db, 'one');
    assert.deepEqual(
      [version?.number, version?.frozen, version?.note, version?.gate, version?.reason],
      [1, true, 'for the pilot', null, null],
    );
  });

  it('all the same, with a reason, keeps both what stood in the way and why', async () => {
    const db = withStudy();
    pass(db, ['fuel'], 'out');
    const reason = 'The pilot begins on Monday.';
    const response = await keepVersion(db, 'one', { ...frozen, wanted: 'all', reason }, judged);
    assert.equal(response.status, 201);
    const [version] = listVersions(db, 'one');
    assert.deepEqual(version?.gate, [{ check: 'routes', count: '1', complete: true }]);
    assert.equal(version.reason, reason);
  });

  it('keeps no reason where nothing stood in the way', async () => {
    const db = withStudy();
    pass(db, ['fuel'], 'out');
    pass(db, ['fuel', 'cars'], 'done');
    await keepVersion(db, 'one', { ...frozen, wanted: 'cover', reason: 'To be sure.' }, judged);
    assert.equal(listVersions(db, 'one')[0]?.reason, null);
  });

  it('is of what was looked at: nothing is kept of a study that changed before, or while it was judged', async () => {
    const db = withStudy();
    const wanted = { ...frozen, wanted: 'cover', reason: 'Now.' } as const;
    const edited = keepVersion(db, 'one', wanted, (asked) => {
      saveStudy(db, 'one', 1, { ...first, title: 'Other' }, 3);
      return judged(asked);
    });
    assert.match(await told(await edited), /^409 Not kept: this study was changed elsewhere/);
    assert.match(await told(await keepVersion(db, 'one', wanted, judged)), /^409 /);
    assert.deepEqual(listVersions(db, 'one'), []);
  });

  it('is refused where it could not be judged, and a version can be kept then', async () => {
    const db = withStudy();
    for (const why of ['time', 'fault'] as const) {
      const response = await keepVersion(
        db,
        'one',
        { ...frozen, wanted: 'cover', reason: 'Now.' },
        async () => why,
      );
      assert.match(await told(response), /^500 Not frozen: .*can be kept without freezing/);
    }
    const { note, author, at, revision } = frozen;
    assert.equal((await keepVersion(db, 'one', { frozen: false, revision, note, author, at })).status, 201);
    assert.deepEqual(
      listVersions(db, 'one').map((each) => each.frozen),
      [false],
    );
  });
});

/** A thread that does what it is told to. */
class Told extends EventEmitter implements JudgeThread {
  ended = false;
  terminate(): void {
    this.ended = true;
  }
}

describe('judging on a thread', () => {
  const asked: Judged = {
    text: '',
    work: { passed: [], asides: [], respondents: [], others: [] },
    wanted: 'cover',
  };

  it('takes what the thread says, one study after the other', async () => {
    const threads: Told[] = [];
    const start = () => {
      const thread = new Told();
      threads.push(thread);
      return thread;
    };
    const lines = [{ check: 'errors', count: 2n, complete: true }];
    const both = [judge(asked, start), judge(asked, start)];
    await new Promise(setImmediate);
    assert.equal(threads.length, 1);
    threads[0]?.emit('message', lines);
    assert.deepEqual(await both[0], lines);
    assert.ok(threads[0]?.ended);
    await new Promise(setImmediate);
    threads[1]?.emit('message', 'nonsense');
    assert.equal(await both[1], 'fault');
  });

  it('gives up on one that takes too long, ends, or fails', async () => {
    const thread = new Told();
    assert.equal(await judge(asked, () => thread, 5), 'time');
    assert.ok(thread.ended);
    const over = (event: string, ...rest: unknown[]) =>
      judge(asked, () => {
        const each = new Told();
        setImmediate(() => each.emit(event, ...rest));
        return each;
      });
    assert.equal(await over('exit', 1), 'fault');
    assert.equal(await over('error', new Error('planted by this test')), 'fault');
  });
});
