/**
 * A lock on the data folder, so that two servers never write one database: whoever comes second is told who has it.
 */
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { codeOf, DatabaseProblem } from './database-file';

export interface Hold {
  release(): void;
}

/**
 * Holds a folder until it is released or the process ends, however it ends: the system gives up the lock of a file with
 * the process that has it. Throws a `DatabaseProblem` where another process holds it.
 */
export function holdFolder(folder: string): Hold {
  mkdirSync(folder, { recursive: true });
  const connection = new Database(path.join(folder, 'in-use.sqlite'), { timeout: 0 });
  try {
    connection.pragma('locking_mode = EXCLUSIVE');
    connection.pragma('journal_mode = MEMORY');
    connection.exec('begin exclusive');
  } catch (error) {
    connection.close();
    if (codeOf(error)?.startsWith('SQLITE_BUSY'))
      throw new DatabaseProblem(
        `Another Jolly Fork uses the folder ${folder}, and two would write over each other. End that one, or set JOLLY_FORK_DATA to another folder.`,
      );
    throw error;
  }
  return { release: () => connection.close() };
}
