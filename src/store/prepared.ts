/** Queries that every turn of a respondent asks: put together once for each database, since that takes longer than asking. */
import type { Store } from './open';

export function prepared<Query>(prepare: (db: Store) => Query): (db: Store) => Query {
  const known = new WeakMap<Store, Query>();
  return (db) => {
    let query = known.get(db);
    if (query === undefined) {
      query = prepare(db);
      known.set(db, query);
    }
    return query;
  };
}
