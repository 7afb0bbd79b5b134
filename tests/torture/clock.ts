/** A clock that is put back and forth under the server: writes go on, in order, and sessions end no later than they may. */
import assert from 'node:assert/strict';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { FEATURED } from '../agree/featured';
import { BuiltServer } from '../support/server';
import { intOf, type TimedPart } from './part';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

export const clock: TimedPart = {
  name: 'clock',
  words: 'the clock put back and forth',
  async run(seconds, seed) {
    const int = intOf(seed);
    const folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-clock-'));
    const file = path.join(folder, 'off-by');
    const set = async (off: number) => {
      writeFileSync(file, String(off));
      await pause(60);
    };
    await set(0);
    const server = new BuiltServer(
      path.join(folder, 'data'),
      { CLOCK_OFF_BY: file, JOLLY_FORK_COPIES: '3', JOLLY_FORK_PASSPHRASE: 'clear water, old bridge' },
      ['--import', path.resolve('tests', 'torture', 'clock-of-the-server.mjs')],
    );
    await server.start();
    try {
      const added = await server.call('POST', '/api/studies', { document: FEATURED[0] });
      const api = `/api/studies/${(added.body as { id: string }).id}`;
      const token = (await server.call('POST', `${api}/links`, { name: 'Board' })).body as { token: string };
      const until = Date.now() + seconds * 1000;
      let [jumps, writes, revision] = [0, 0, 1];
      while (Date.now() < until) {
        await set(
          [0, HOUR, -HOUR, DAY, -DAY, 400 * DAY, -400 * DAY, 3650 * DAY, -int(1, 90_000)][int(0, 8)] ?? 0,
        );
        jumps += 1;
        for (let n = 0; n < 5; n += 1) {
          const saved = await server.call('PUT', api, {
            revision,
            document: { ...FEATURED[0], title: `Title ${revision}` },
          });
          assert.equal(saved.status, 200, JSON.stringify(saved));
          revision += 1;
          assert.equal((saved.body as { revision: number }).revision, revision);
          const comment = { place: 'study', text: `${revision}`, author: 'A' };
          assert.equal((await server.call('POST', `${api}/comments`, comment)).status, 201);
          writes += 2;
        }
        const comments = (await server.call('GET', `${api}/comments`)).body as { text: string }[];
        const order = comments.map(({ text }) => Number(text));
        assert.deepEqual(
          order,
          [...order].sort((a, b) => a - b),
        );
        assert.equal((await server.call('GET', '/')).status, 200);
        // A reviewer is held up for a minute at most by what a clock that was ahead has written down.
        const review = await server.call('POST', `/api/review/${token.token}/comments`, {
          place: 'study',
          text: 'Hm',
          author: 'x',
        });
        assert.equal(review.status, 201, JSON.stringify(review));
      }
      return `${jumps} jumps, ${writes} writes in order`;
    } finally {
      await server.end();
    }
  },
};
