/** Opens the database of this installation, once for the process, with its tables up to date. */
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import * as schema from './schema';

export type Store = BetterSQLite3Database<typeof schema>;

let opened: Store | null = null;

/** The store in the folder JOLLY_FORK_DATA (default `./data`). */
export function store(): Store {
  opened ??= openStore(path.join(process.env.JOLLY_FORK_DATA ?? 'data', 'jolly-fork.sqlite'));
  return opened;
}

/** Opens a database file, `:memory:` for one that is never written. Migrations are read from the project's folder. */
export function openStore(file: string): Store {
  if (file !== ':memory:') mkdirSync(path.dirname(file), { recursive: true });
  const connection = new Database(file);
  connection.pragma('journal_mode = WAL');
  connection.pragma('foreign_keys = ON');
  const db = drizzle(connection, { schema });
  migrate(db, { migrationsFolder: path.join(process.cwd(), 'src', 'store', 'migrations') });
  return db;
}
