/** People who are each sent a link of their own. */
import { randomBytes } from 'node:crypto';
import { and, asc, count, eq } from 'drizzle-orm';
import type { PersonAsked } from '../core/responding/people';
import type { Store } from './open';
import { people } from './schema';

export type Person = typeof people.$inferSelect;

/** Bytes of chance in a key: 96 bits, in an address that is to be read out or typed now and then. */
const CHANCE = 12;

/** Adds people under a link; gives the names of those who have one already, and then adds nobody. */
export function addPeople(
  db: Store,
  token: string,
  toAdd: readonly PersonAsked[],
  at: number,
): readonly string[] {
  return db.transaction((tx) => {
    const known = new Set(listPeople(db, token).map(({ name }) => name));
    const twice = toAdd.filter(({ name }) => known.has(name)).map(({ name }) => name);
    if (twice.length > 0) return twice;
    for (const { name, given } of toAdd)
      tx.insert(people)
        .values({
          key: randomBytes(CHANCE).toString('base64url'),
          token,
          name,
          given: { ...given },
          addedAt: at,
        })
        .run();
    return [];
  });
}

/** In the order in which they were added. */
export function listPeople(db: Store, token: string): Person[] {
  return db
    .select()
    .from(people)
    .where(eq(people.token, token))
    .orderBy(asc(people.addedAt), asc(people.name))
    .all();
}

export function countPeople(db: Store, token: string): number {
  return db.select({ count: count() }).from(people).where(eq(people.token, token)).get()?.count ?? 0;
}

/** Null where nobody under this link has the key. */
export function findPerson(db: Store, token: string, key: string): Person | null {
  return (
    db
      .select()
      .from(people)
      .where(and(eq(people.token, token), eq(people.key, key)))
      .get() ?? null
  );
}

/** Nobody writes to them again, nor can they begin anew: they came to an ending, or declined, and only the fact is kept. */
export function settlePerson(db: Pick<Store, 'update'>, key: string): void {
  db.update(people).set({ isSettled: true }).where(eq(people.key, key)).run();
}
