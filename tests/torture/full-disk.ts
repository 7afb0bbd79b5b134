/** A disk that fills up: told in words, nothing that was acknowledged is lost, and work goes on once there is room. */
import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Questionnaire } from '../../src/core/document/types';
import { FEATURED } from '../agree/featured';
import { BuiltServer } from '../support/server';
import { CannotRunHere, intOf, type TimedPart } from './part';

const SIZE = '6m';

export const fullDisk: TimedPart = {
  name: 'full-disk',
  words: 'a disk that fills up, on a small one in memory',
  async run(seconds, seed) {
    const disk = mkdtempSync(path.join(tmpdir(), 'jolly-fork-disk-'));
    const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${SIZE}`, 'tmpfs', disk]);
    if (mounted.status !== 0)
      throw new CannotRunHere(`no disk can be mounted (${mounted.stderr?.toString().trim() || 'no mount'})`);
    const server = new BuiltServer(path.join(disk, 'data'));
    try {
      mkdirSync(path.join(disk, 'data'));
      await server.start();
      return await fillAgainAndAgain(server, disk, seconds, seed);
    } finally {
      await server.end();
      spawnSync('umount', ['-l', disk]);
    }
  },
};

async function fillAgainAndAgain(
  server: BuiltServer,
  disk: string,
  seconds: number,
  seed: number,
): Promise<string> {
  const int = intOf(seed);
  const added = await server.call('POST', '/api/studies', { document: FEATURED[0] });
  const api = `/api/studies/${(added.body as { id: string }).id}`;
  const until = Date.now() + seconds * 1000;
  let [fills, saves, refused, revision] = [0, 0, 0, 1];
  let document = FEATURED[0] as Questionnaire;
  const ballast = path.join(disk, 'ballast');
  while (Date.now() < until) {
    const { bavail, bsize } = statfsSync(disk);
    // Some of it is left, so that what is written fills the rest itself.
    writeFileSync(ballast, Buffer.alloc(Math.max(0, bavail * bsize - int(8, 400) * 1024)));
    let isFull = false;
    for (let n = 0; n < 400 && !isFull; n += 1) {
      const next = {
        ...document,
        title: `Title ${revision}, ${'words '.repeat(int(1, 900))}`.slice(0, 900),
        intro: 'x',
      };
      const { intro: _intro, ...title } = next;
      const reply = await server.call('PUT', api, { revision, document: title });
      if (reply.status === 200) {
        document = title;
        revision += 1;
        saves += 1;
        continue;
      }
      assert.equal(reply.status, 507, JSON.stringify(reply));
      assert.match((reply.body as { problem: string }).problem, /disk of the server is full.*Make room/);
      refused += 1;
      isFull = true;
      const comment = await server.call('POST', `${api}/comments`, {
        place: 'study',
        text: 'x'.repeat(4000),
        author: 'A',
      });
      assert.ok([201, 507].includes(comment.status), JSON.stringify(comment));
    }
    // Reading goes on, and shows what was acknowledged.
    const read = await server.call('GET', api);
    assert.equal((read.body as { document: Questionnaire }).document.title, document.title);
    assert.equal((await server.call('GET', '/')).status, 200);
    if (int(0, 2) === 0) {
      await server.end();
      rmSync(ballast, { force: true });
      await server.start();
    } else rmSync(ballast, { force: true });
    const after = await server.call('PUT', api, { revision, document: { ...document, title: 'Room again' } });
    assert.equal(after.status, 200, JSON.stringify(after));
    document = { ...document, title: 'Room again' };
    revision += 1;
    fills += 1;
  }
  return `filled ${fills} times, ${saves} saves before, ${refused} refused in words, none acknowledged was lost`;
}
