/** Backups of the database: made while it is in use, looked at before they count, and brought back. */
import {
  closeSync,
  copyFileSync,
  existsSync,
  fsyncSync,
  linkSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
} from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { codeOf, DatabaseProblem, databaseIn, examine, makeReady } from './database-file';
import { holdFolder } from './hold';

/** Copies that are made by themselves, one a day. */
const COPIES = 'copies';
const OF_A_DAY = /^jolly-fork-\d{4}-\d{2}-\d{2}\.sqlite$/;

/**
 * Writes all that was saved into a file that is not there yet, by SQLite's own online backup: others may read and write
 * meanwhile. The file appears under its name once it is whole and was read through.
 */
export async function backup(folder: string, to: string): Promise<void> {
  const file = databaseIn(folder);
  if (!existsSync(file))
    throw new DatabaseProblem(`There is no database in ${folder}: say with --data which folder is meant.`);
  if (existsSync(to))
    throw new DatabaseProblem(`${to} is there already: choose another name, so that nothing is lost.`);
  examine(file);
  const part = `${to}.part`;
  mkdirSync(path.dirname(path.resolve(to)), { recursive: true });
  rmSync(part, { force: true });
  const connection = new Database(file, { fileMustExist: true });
  try {
    await connection.backup(part);
  } finally {
    connection.close();
  }
  // One file, with nothing beside it, wherever it is carried.
  const copy = new Database(part);
  copy.pragma('journal_mode = DELETE');
  copy.close();
  examine(part);
  onDisk(part);
  renameSync(part, to);
}

/**
 * Puts a backup in the place of the database, which must not be in use. What was there is kept beside it; gives its path,
 * null where nothing was there.
 */
export function restore(folder: string, from: string, now: number): string | null {
  if (!existsSync(from)) throw new DatabaseProblem(`${from}: there is no such file.`);
  examine(from);
  const hold = holdFolder(folder);
  try {
    const file = databaseIn(folder);
    const part = `${file}.part`;
    copyFileSync(from, part);
    onDisk(part);
    let kept: string | null = null;
    if (existsSync(file)) {
      kept = `${file}.before-restore-${new Date(now).toISOString().replaceAll(/[:.]/g, '-')}`;
      settle(file);
      // At each moment the folder has a database, the one that was there or the backup, however this is interrupted.
      keepAlso(file, kept);
      // Writes that lie beside the file are its own; beside another they would be taken for that one's.
      for (const beside of ['-wal', '-shm'])
        if (existsSync(file + beside)) renameSync(file + beside, kept + beside);
    }
    renameSync(part, file);
    onDisk(folder, 'r');
    makeReady(file);
    return kept;
  } finally {
    hold.release();
  }
}

/** The same file under another name as well; a copy where a disk knows no second names. */
function keepAlso(file: string, name: string): void {
  try {
    linkSync(file, name);
  } catch (error) {
    if (codeOf(error) === 'EEXIST') throw error;
    copyFileSync(file, name);
    onDisk(name);
  }
}

/** Takes the last writes into the file, where it can be read at all. */
function settle(file: string): void {
  try {
    const connection = new Database(file);
    connection.pragma('wal_checkpoint(TRUNCATE)');
    connection.close();
  } catch {
    // What cannot be read is kept as it is.
  }
}

/** Makes the copy of the day if there is none, and takes away the oldest beyond those to be kept. */
export async function copyOfTheDay(folder: string, now: number, keep: number): Promise<void> {
  if (keep < 1) return;
  const copies = path.join(folder, COPIES);
  const to = path.join(copies, `jolly-fork-${new Date(now).toISOString().slice(0, 10)}.sqlite`);
  if (!existsSync(to)) await backup(folder, to);
  const all = readdirSync(copies)
    .filter((name) => OF_A_DAY.test(name))
    .sort();
  for (const name of all.slice(0, -keep)) rmSync(path.join(copies, name));
}

function onDisk(file: string, mode: 'r' | 'r+' = 'r+'): void {
  const handle = openSync(file, mode);
  fsyncSync(handle);
  closeSync(handle);
}
