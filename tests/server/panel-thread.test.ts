/**
 * The thread of a made-up panel as the server holds it: a stand-in in the place of the built one answers what it is told to,
 * and writes down what it was given.
 */
import assert from 'node:assert/strict';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { after, before, beforeEach, describe, it, mock } from 'node:test';
import { DAY, HOUR, panelEnds } from '../../src/core/panel/panel-settings';
import { askStudy } from '../support/doors';
import { MONDAY, panelOf, settings, STUDY } from '../support/made-up-panel';

process.env.JOLLY_FORK_DATA = ':memory:';
const { store } = await import('../../src/store/open');
const { findPanel, lettersSent, pilesOf } = await import('../../src/store/panels');
const { isRunning, panelCard, panelMark } = await import('../../src/server/panels');

/** Does what `plays.json` says for each run or pause in turn: messages to be posted, or a fault. */
const STAND_IN = `import { parentPort, workerData } from 'node:worker_threads';
import { appendFileSync, readFileSync, writeFileSync } from 'node:fs';
const note = (what) => appendFileSync('told.jsonl', JSON.stringify(what) + '\\n');
note({ is: 'start', ...workerData });
parentPort.on('message', (message) => {
  note(message);
  if (message.is === 'posted') return;
  const [play, ...rest] = JSON.parse(readFileSync('plays.json', 'utf8'));
  writeFileSync('plays.json', JSON.stringify(rest));
  for (const each of play) {
    if (each === 'fault') throw new Error('out of order');
    parentPort.postMessage(each);
  }
});`;

interface Told {
  readonly is: string;
  readonly [name: string]: unknown;
}

describe('the thread of a panel', () => {
  const home = process.cwd();
  let folder = '';
  before(() => {
    folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-thread-'));
    mkdirSync(path.join(folder, 'dist', 'door'), { recursive: true });
    writeFileSync(path.join(folder, 'dist', 'door', 'panel.worker.mjs'), STAND_IN);
    mkdirSync(path.join(folder, ':memory:'));
    writeFileSync(path.join(folder, ':memory:', 'token'), 'opens doors\n');
    store();
    process.chdir(folder);
  });
  after(() => {
    process.chdir(home);
    rmSync(folder, { recursive: true });
  });
  beforeEach(() => {
    process.env.JOLLY_FORK_OWN_ADDRESS = 'http://127.0.0.1:1';
    writeFileSync('told.jsonl', '');
  });

  const plays = (...list: readonly (readonly (Told | 'fault')[])[]) =>
    writeFileSync('plays.json', JSON.stringify(list));
  const told = () =>
    readFileSync('told.jsonl', 'utf8')
      .split('\n')
      .filter((line) => line !== '')
      .map((line) => JSON.parse(line) as Told);
  const words = () => told().map(({ is }) => is);

  async function until(is: () => boolean): Promise<void> {
    for (let n = 0; n < 1000 && !is(); n += 1) await new Promise((resolve) => setTimeout(resolve, 5));
    assert.ok(is(), words().join(' '));
  }

  async function panel(count = 3) {
    const { id, token } = await panelOf(STUDY, settings(), count);
    const change = async (body: object) => {
      const reply = await askStudy(id, 'trials/[token]/panel', 'PATCH', { params: { token }, body });
      const said = (await reply.json()) as { problem?: string | null; isRunning?: boolean };
      return { status: reply.status, ...said };
    };
    return {
      token,
      change,
      run: (to: number) => change({ do: 'run', until: to, speed: null }),
      rested: () => until(() => !isRunning(token)),
      card: () => panelCard(store(), token),
    };
  }

  it('is not begun where the server does not know its own address', async () => {
    delete process.env.JOLLY_FORK_OWN_ADDRESS;
    const { run, card } = await panel();
    const refused = await run(MONDAY + DAY);
    assert.equal(refused.status, 409);
    assert.match(refused.problem ?? '', /^A panel runs where Jolly Fork was started by “npm start”/);
    assert.equal(card()?.isRunning, false);
  });

  it('is told all it needs, has its letters sent and its clock kept, and rests', async () => {
    const { token, change, run, rested, card } = await panel();
    const nine = MONDAY + 9 * HOUR;
    const to = MONDAY + DAY;
    plays(
      [
        { is: 'clock', at: MONDAY + HOUR },
        { is: 'post', at: nine },
      ],
      [{ is: 'rests', at: MONDAY + 2 * HOUR, problem: null }],
    );
    const begun = await run(to);
    assert.deepEqual([begun.status, begun.isRunning, begun.problem], [200, true, null]);
    assert.deepEqual(
      [(await run(to)).problem, (await change({ do: 'settle', settings: settings() })).problem],
      ['The panel is running already: pause it first.', 'Nothing was changed: pause the panel first.'],
    );
    await until(() => words().includes('posted'));
    const [start, asked, posted] = told();
    const { address, programToken, link, clock, members, documents } = start as Told;
    assert.deepEqual(
      [address, programToken, link, clock, ...[members, documents].map((list) => (list as []).length)],
      ['http://127.0.0.1:1', 'opens doors', token, MONDAY, 3, 1],
    );
    assert.deepEqual(asked, { is: 'run', until: to, speed: null });
    assert.deepEqual(
      posted?.to,
      [0, 1, 2].map((place) => ({ place, kind: 'invitation' })),
    );
    assert.equal(findPanel(store(), token)?.clock, MONDAY + HOUR);
    assert.equal(lettersSent(store(), token).length, 3);
    assert.deepEqual(card()?.piles, pilesOf(store(), token));
    assert.equal((await change({ do: 'rest' })).isRunning, true);
    await rested();
    assert.equal(words().at(-1), 'pause');
    assert.equal(card()?.clock, MONDAY + 2 * HOUR);
  });

  it('is known of a link that has one, and of no other', () => {
    assert.deepEqual(
      [panelMark(store(), 'nobody'), panelCard(store(), 'nobody'), isRunning('nobody')],
      [null, null, false],
    );
  });

  it('goes on in one thread after a rest, and says why it stopped where a door did not answer', async () => {
    const { token, run, rested, card } = await panel();
    plays(
      [{ is: 'rests', at: MONDAY + HOUR, problem: null }],
      [{ is: 'rests', at: MONDAY + 2 * HOUR, problem: 'page: 500' }],
      [{ is: 'rests', at: MONDAY + 3 * HOUR, problem: null }],
    );
    const stands: unknown[] = [];
    for (let n = 0; n < 3; n += 1) {
      const before = panelMark(store(), token);
      await run(MONDAY + DAY);
      assert.notEqual(panelMark(store(), token), before);
      await rested();
      const { isRunning: runs, problem, clock } = card() ?? {};
      stands.push([runs, problem, ((clock ?? 0) - MONDAY) / HOUR]);
    }
    assert.deepEqual(stands, [
      [false, null, 1],
      [
        false,
        'The panel stopped, because the server did not answer one of its members (page: 500). Let it go on.',
        2,
      ],
      [false, null, 3],
    ]);
    assert.deepEqual(words(), ['start', 'run', 'run', 'run']);
  });

  it('is begun anew after a fault, after its end, and once it is settled otherwise', async () => {
    const errors = mock.method(console, 'error', () => undefined);
    const { run, rested, card, change } = await panel();
    const end = panelEnds(settings());
    plays(
      [{ is: 'nonsense' }],
      ['fault'],
      [{ is: 'rests', at: MONDAY + HOUR, problem: null }],
      [{ is: 'rests', at: end, problem: 'begin: 500' }],
      [{ is: 'rests', at: end, problem: null }],
      [{ is: 'rests', at: end, problem: null }],
    );
    const broken = 'The panel stopped by a fault of its own; the log of the server says more. Let it go on.';
    const problems: unknown[] = [];
    const next = async () => {
      await run(end);
      await rested();
      problems.push(card()?.problem);
    };
    await next();
    await next();
    await next();
    assert.deepEqual(problems, [broken, broken, null]);
    assert.equal(errors.mock.callCount(), 2);
    assert.deepEqual(words(), ['start', 'run', 'start', 'run', 'start', 'run']);
    const usual = settings();
    const sooner = { ...usual, days: usual.days - 1 };
    const refused = await change({ do: 'settle', settings: sooner });
    assert.deepEqual(
      [refused.status, refused.problem],
      [422, 'Nothing was changed: once the panel has begun, its first day, its length and its seed stay.'],
    );
    const other = { ...usual, behaviour: { ...usual.behaviour, careless: 7 } };
    assert.equal((await change({ do: 'settle', settings: other })).status, 200);
    await next();
    assert.deepEqual(words().slice(6), ['start', 'run']);
    // It stands at its end, but with something to be made good: the thread is kept.
    await next();
    assert.deepEqual(words().slice(8), ['run']);
    await next();
    assert.deepEqual(words().slice(9), ['start', 'run']);
    errors.mock.restore();
  });
});
