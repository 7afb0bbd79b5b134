/** Respondents of whom nothing is kept but how many they were in an hour: who declined, and whose answers were removed. */
import { eq, sql } from 'drizzle-orm';
import type { Store } from './open';
import { counted, trials } from './schema';

export type Counted = Omit<typeof counted.$inferSelect, 'token'>;

const HOUR = 3_600_000;

/** To be called within the transaction that removes them. */
export function countOnly(
  tx: Pick<Store, 'insert' | 'update'>,
  token: string,
  what: Counted['what'],
  moments: readonly number[],
): void {
  if (moments.length === 0) return;
  tx.update(trials)
    .set({ [what]: sql`${trials[what]} + ${moments.length}` })
    .where(eq(trials.token, token))
    .run();
  for (const moment of moments)
    tx.insert(counted)
      .values({ token, what, at: moment - (moment % HOUR), count: 1 })
      .onConflictDoUpdate({
        target: [counted.token, counted.what, counted.at],
        set: { count: sql`${counted.count} + 1` },
      })
      .run();
}

export function listCounted(db: Store, token: string): Counted[] {
  return db
    .select({ what: counted.what, at: counted.at, count: counted.count })
    .from(counted)
    .where(eq(counted.token, token))
    .all();
}
