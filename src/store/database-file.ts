/**
 * The database file of an installation: looked at before anything is done with it, and brought up to date after a copy of
 * it was made. What is wrong with it is named, with what to do; nothing is ever written over.
 */
import { accessSync, constants, existsSync, mkdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { getTableColumns, getTableName, is } from 'drizzle-orm';
import { SQLiteTable } from 'drizzle-orm/sqlite-core';
import * as schema from './schema';

/** The file cannot be used; the message is for the person who keeps the installation. */
export class DatabaseProblem extends Error {}

/** The database in a data folder. */
export const databaseIn = (folder: string) => path.join(folder, 'jolly-fork.sqlite');

const MIGRATIONS = path.join('src', 'store', 'migrations');

/** The folder of the steps of the tables, wherever this file was bundled to. */
function migrationsFolder(): string {
  for (let at = path.dirname(fileURLToPath(import.meta.url)); ; at = path.dirname(at)) {
    if (existsSync(path.join(at, MIGRATIONS))) return path.join(at, MIGRATIONS);
    if (at === path.dirname(at)) throw new Error(`no folder above has ${MIGRATIONS}`);
  }
}

/** When each step of the tables was made, oldest first: by these the steps are told that a file has behind it. */
function stepsKnown(migrations: string): number[] {
  const journal = JSON.parse(readFileSync(path.join(migrations, 'meta', '_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  return journal.entries.map(({ when }) => when);
}

/** Steps that a file has behind it; null where it is no database of ours. */
function stepsOf(connection: Database.Database): number[] | null {
  const tables = connection.prepare("select name from sqlite_master where type = 'table'").pluck().all();
  if (tables.length === 0) return [];
  if (!tables.includes('__drizzle_migrations') || !tables.includes('studies')) return null;
  return connection
    .prepare('select created_at from __drizzle_migrations order by created_at')
    .pluck()
    .all()
    .map(Number);
}

/** Whether the tables are those of the schema: a damaged list of tables passes SQLite's own check. */
function hasAllColumns(connection: Database.Database): boolean {
  return Object.values<unknown>(schema).every((table) => {
    if (!is(table, SQLiteTable)) return true;
    const names = Object.values(getTableColumns(table)).map(({ name }) => `[${name}]`);
    try {
      connection.prepare(`select ${names.join(', ')} from [${getTableName(table)}]`);
      return true;
    } catch {
      return false;
    }
  });
}

/**
 * Looks at a file without changing what is in it (writes that lie beside it may be taken in), and gives the number of steps that its tables are behind. Throws a
 * `DatabaseProblem` where it is empty, damaged, another program's, or of a newer version.
 */
export function examine(file: string, migrations = migrationsFolder()): number {
  const refuse = (what: string, todo: string): never => {
    throw new DatabaseProblem(`${file} ${what}. Nothing was changed. ${todo}`);
  };
  const another =
    'Move it away to begin with an empty one, or bring a backup back: jolly-fork restore BACKUP.';
  if (statSync(file).size === 0) refuse('is empty (0 bytes), which no database is', another);
  let connection: Database.Database | null = null;
  try {
    // Read-only, this may fail for a file whose last writes still lie beside it; then SQLite has to take those in first.
    connection = new Database(file, { fileMustExist: true });
    const found = connection.pragma('quick_check(5)', { simple: true });
    if (found !== 'ok') refuse(`is damaged (${String(found).split('\n')[0]})`, another);
    const steps = stepsOf(connection);
    if (steps === null)
      return refuse(
        'is the database of another program',
        'Start Jolly Fork with JOLLY_FORK_DATA set to a folder of its own.',
      );
    const known = stepsKnown(migrations);
    if (steps.some((step) => !known.includes(step)))
      refuse(
        'was last used by a newer version of Jolly Fork, which this one cannot read',
        'Start that version, or bring back the copy that it made before: jolly-fork restore BACKUP.',
      );
    const behind = known.length - steps.length;
    if (behind === 0 && !hasAllColumns(connection))
      refuse('is damaged (a table is not as it was made)', another);
    return behind;
  } catch (error) {
    if (error instanceof DatabaseProblem) throw error;
    const code = codeOf(error);
    if (code === 'SQLITE_NOTADB') return refuse('is no database', another);
    if (code?.startsWith('SQLITE_CORRUPT')) return refuse('is damaged', another);
    if (code?.startsWith('SQLITE_BUSY'))
      return refuse('is in use by another program', 'End that program first.');
    return refuse(
      `cannot be opened (${code ?? String(error)})`,
      'See that it can be read and written by whoever starts Jolly Fork.',
    );
  } finally {
    connection?.close();
  }
}

/** Throws a `DatabaseProblem` where the folder or the file cannot be written. */
export function mustBeWritable(file: string): void {
  const folder = path.dirname(file);
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
    if (existsSync(file)) accessSync(file, constants.W_OK);
  } catch (error) {
    throw new DatabaseProblem(
      `${existsSync(file) ? file : folder} cannot be written (${codeOf(error) ?? String(error)}), so nothing could be saved. Give whoever starts Jolly Fork the right to write there, or set JOLLY_FORK_DATA to another folder.`,
    );
  }
}

/** Opens a file, `:memory:` for one that is never written, with its tables up to date. */
export function openFile(file: string, migrations = migrationsFolder()): Database.Database {
  const connection = new Database(file);
  connection.pragma('journal_mode = WAL');
  // A save that was acknowledged outlives a loss of power as well.
  connection.pragma('synchronous = FULL');
  connection.pragma('foreign_keys = ON');
  migrate(drizzle(connection), { migrationsFolder: migrations });
  return connection;
}

/**
 * Makes a file ready to be used: looks at it, copies it where its tables are behind, and brings them up to date. Gives
 * the path of the copy; null where none was needed.
 */
export function makeReady(file: string, migrations = migrationsFolder()): string | null {
  mustBeWritable(file);
  let copy: string | null = null;
  if (existsSync(file)) {
    const behind = examine(file, migrations);
    const known = stepsKnown(migrations);
    if (behind > 0 && behind < known.length) {
      copy = `${file}.before-step-${known.length}`;
      if (!existsSync(copy)) copyInto(file, copy);
    }
  }
  openFile(file, migrations).close();
  return copy;
}

/** A copy of all that was saved, wherever it lies. */
function copyInto(file: string, copy: string): void {
  const connection = new Database(file);
  try {
    connection.prepare('vacuum into ?').run(copy);
  } finally {
    connection.close();
  }
}

export function codeOf(error: unknown): string | null {
  const code = (error as { code?: unknown } | null)?.code;
  return typeof code === 'string' ? code : null;
}
