/** The database file over its life: looked at before it is used, copied, brought back, and held by one server at a time. */
import assert from 'node:assert/strict';
import fs, {
  copyFileSync,
  cpSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, it, mock } from 'node:test';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { emptyQuestionnaire } from '../core/editing/structure';
import { backup, copyOfTheDay, restore } from './backup';
import { databaseIn, DatabaseProblem, examine, makeReady, openFile } from './database-file';
import { holdFolder } from './hold';
import * as schema from './schema';
import { addStudy, listStudies } from './studies';

const MORNING = Date.UTC(2026, 10, 27, 9);
const DAY = 86_400_000;
const STEPS = path.join(path.dirname(fileURLToPath(import.meta.url)), 'migrations');

describe('the database file', () => {
  let folder = '';
  let file = '';
  beforeEach(() => {
    folder = mkdtempSync(path.join(tmpdir(), 'jolly-fork-file-'));
    file = databaseIn(folder);
  });
  afterEach(() => {
    rmSync(folder, { recursive: true });
  });

  function titled(...titles: string[]): Database.Database {
    const connection = openFile(file);
    for (const title of titles) addStudy(drizzle(connection, { schema }), emptyQuestionnaire(title), 1);
    return connection;
  }
  const titlesIn = (of: string) => {
    const connection = openFile(of);
    const titles = listStudies(drizzle(connection, { schema })).map(({ document }) => document.title);
    connection.close();
    return titles.sort();
  };
  const problem = (work: () => unknown, says: RegExp) =>
    assert.throws(work, (error) => error instanceof DatabaseProblem && says.test(error.message));

  it('is backed up while it is written, with all that was saved, and brought back beside what was there', async () => {
    const connection = titled('One', 'Two');
    const to = path.join(folder, 'backup.sqlite');
    await backup(folder, to);
    addStudy(drizzle(connection, { schema }), emptyQuestionnaire('Three'), 2);
    connection.close();
    assert.deepEqual(titlesIn(to), ['One', 'Two']);
    await assert.rejects(backup(folder, to), /is there already/);

    const kept = restore(folder, to, MORNING);
    assert.deepEqual(titlesIn(file), ['One', 'Two']);
    assert.deepEqual(titlesIn(kept ?? ''), ['One', 'Three', 'Two']);
  });

  it('is whole by itself once it was closed', () => {
    titled('One').close();
    const elsewhere = path.join(folder, 'elsewhere.sqlite');
    copyFileSync(file, elsewhere);
    assert.deepEqual(titlesIn(elsewhere), ['One']);
  });

  it('is not written over by what is no backup, nor while a server uses it', async () => {
    titled('One').close();
    const to = path.join(folder, 'backup.sqlite');
    await backup(folder, to);
    const none = path.join(folder, 'none.sqlite');
    writeFileSync(
      none,
      'not a database at all, though long enough to be read as the head of one '.repeat(50),
    );
    problem(() => restore(folder, none, MORNING), /is no database/);
    const hold = holdFolder(folder);
    problem(() => restore(folder, to, MORNING), /Another Jolly Fork uses the folder/);
    hold.release();
    restore(folder, to, MORNING);
    assert.deepEqual(titlesIn(file), ['One']);
  });

  it('is there at each moment, the one before or the backup, where bringing it back is interrupted', async () => {
    titled('One').close();
    const to = path.join(folder, 'backup.sqlite');
    await backup(folder, to);
    rmSync(file);
    titled('One', 'Two').close();
    const lost = mock.method(fs, 'renameSync', () => {
      throw new Error('the power is gone');
    });
    syncBuiltinESMExports();
    assert.throws(() => restore(folder, to, MORNING), /power is gone/);
    lost.mock.restore();
    syncBuiltinESMExports();
    assert.deepEqual(titlesIn(file), ['One', 'Two']);
    const kept = restore(folder, to, MORNING + 1);
    assert.deepEqual(titlesIn(file), ['One']);
    assert.deepEqual(titlesIn(kept ?? ''), ['One', 'Two']);
  });

  it('is copied once a day, and as many days are kept as are wanted', async () => {
    titled('One').close();
    for (let day = 0; day < 5; day += 1) {
      await copyOfTheDay(folder, MORNING + day * DAY, 3);
      await copyOfTheDay(folder, MORNING + day * DAY + 1000, 3);
    }
    const copy = (day: number) =>
      path.join(folder, 'copies', `jolly-fork-2026-${day === 27 ? '11-27' : `12-0${day}`}.sqlite`);
    assert.deepEqual(
      [27, 1].map((day) => existsSync(copy(day))),
      [false, true],
    );
    assert.deepEqual(titlesIn(copy(1)), ['One']);
  });

  it('is refused in words where it is empty, damaged, foreign or newer, and stays as it is', () => {
    titled('One', 'Two').close();
    const sound = readFileSync(file);
    const damaged = Buffer.from(sound);
    damaged.fill(0xaa, 4096, 12_288);
    const foreign = path.join(folder, 'foreign.sqlite');
    new Database(foreign).exec('create table birds (name text)').close();
    const newer = path.join(folder, 'newer.sqlite');
    writeFileSync(newer, sound);
    new Database(newer)
      .exec("insert into __drizzle_migrations (hash, created_at) values ('x', 9999999999999)")
      .close();
    const cases: [Buffer, RegExp][] = [
      [Buffer.alloc(0), /is empty \(0 bytes\)/],
      [damaged, /is damaged/],
      [Buffer.alloc(8192, 'x'), /is no database/],
      [readFileSync(foreign), /another program/],
      [readFileSync(newer), /newer version/],
    ];
    for (const [bytes, says] of cases) {
      writeFileSync(file, bytes);
      problem(() => makeReady(file), says);
      assert.deepEqual(readFileSync(file), bytes, String(says));
    }
  });

  /** As a version left it that did not know a step yet, nor any after it; null: the last. */
  function older(before: string | null) {
    const steps = path.join(folder, 'steps');
    cpSync(STEPS, steps, { recursive: true });
    const journal = path.join(steps, 'meta', '_journal.json');
    const known = JSON.parse(readFileSync(journal, 'utf8')) as { entries: { tag: string }[] };
    const until = before === null ? -1 : known.entries.findIndex(({ tag }) => tag === before);
    writeFileSync(journal, JSON.stringify({ ...known, entries: known.entries.slice(0, until) }));
    return openFile(file, steps);
  }

  it('is copied before its tables are brought up to date', () => {
    const database = older(null);
    addStudy(drizzle(database, { schema }), emptyQuestionnaire('One'), 1);
    database.close();
    assert.equal(examine(file), 1);
    const copy = makeReady(file);
    assert.equal(examine(file), 0);
    assert.equal(examine(copy ?? ''), 1);
    assert.deepEqual(titlesIn(file), ['One']);
  });

  it('keeps to the former draws where responses were begun with them', () => {
    const database = older('0015_former_chance');
    database.pragma('foreign_keys = off');
    const add = database.prepare(
      "insert into responses (id, token, number, code, kept, device, changed_at) values (?, 'link', ?, ?, ?, 'desktop', 1)",
    );
    for (const seed of [0, 7, 2 ** 31 - 1])
      add.run(`${seed}`, seed, `${seed}`, JSON.stringify({ at: 3, seed, answers: { seed } }));
    database.close();
    makeReady(file);
    const now = new Database(file);
    const kept = now.prepare('select kept from responses order by number').pluck().all() as string[];
    now.close();
    assert.deepEqual(
      kept.map((text) => JSON.parse(text) as unknown),
      [0, 7, 2 ** 31 - 1].map((seed) => ({ at: 3, seed: -1 - seed, answers: { seed } })),
    );
  });
});
