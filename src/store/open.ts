/** Opens the database of this installation, once for the process, with its tables up to date. */
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { databaseIn, openFile } from './database-file';
import * as schema from './schema';

export type Store = BetterSQLite3Database<typeof schema>;

let opened: Store | null = null;

/** The store in the folder JOLLY_FORK_DATA (default `./data`; `:memory:` keeps nothing); the server has looked at it before (`door.ts`). */
export function store(): Store {
  if (opened !== null) return opened;
  const of = process.env.JOLLY_FORK_DATA ?? 'data';
  const connection = openFile(of === ':memory:' ? of : databaseIn(of));
  // The last to close a database takes all writes into its file, so that the file by itself is whole.
  process.once('exit', () => connection.close());
  opened = drizzle(connection, { schema });
  return opened;
}

/** Opens a database file, `:memory:` for one that is never written. Migrations are read from the project's folder. */
export function openStore(file: string): Store {
  return drizzle(openFile(file), { schema });
}
