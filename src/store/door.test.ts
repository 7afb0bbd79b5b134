/** What the server does before it says that it is ready: one at a time, with a database it can use, and a copy of the day. */
import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, it } from 'node:test';
import { databaseIn, DatabaseProblem } from './database-file';
import { openDoor } from './door';

let folder = '';
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-door-'));
});
afterEach(() => {
  rmSync(folder, { recursive: true });
});

it('holds the folder until it is closed, and says where the copy of the day could not be made', async () => {
  let said: (text: string) => void = () => undefined;
  const heard = new Promise<string>((resolve) => (said = resolve));
  // What makes the copy lies beside the server once that is built, not beside this test.
  const door = openDoor(folder, 7, said);
  assert.equal(door.copied, null);
  assert.throws(() => openDoor(folder, 7, () => undefined), /Another Jolly Fork uses the folder/);
  // The thread of the copy keeps no process alive.
  const waiting = setInterval(() => undefined, 1000);
  assert.match(await heard, /^The copy of the day could not be made: .*copy\.worker\.mjs/);
  clearInterval(waiting);
  door.close();
  openDoor(folder, 7, () => undefined).close();
});

it('gives the folder back where the database cannot be used', () => {
  writeFileSync(databaseIn(folder), '');
  const open = () => openDoor(folder, 7, () => undefined);
  for (let n = 0; n < 2; n += 1)
    assert.throws(open, (error) => error instanceof DatabaseProblem && error.message.includes('is empty'));
  rmSync(databaseIn(folder));
  open().close();
});
