/** Which routes were drawn at random to be walked. */
import { eq } from 'drizzle-orm';
import type { Store } from './open';
import { draws } from './schema';

export type RandomDraw = Omit<typeof draws.$inferSelect, 'studyId'>;

/** Null where none were drawn. */
export function findDraw(db: Store, studyId: string): RandomDraw | null {
  const { seed, count, at } = draws;
  return db.select({ seed, count, at }).from(draws).where(eq(draws.studyId, studyId)).get() ?? null;
}

/** Draws more with the same seed, or others; takes the place of what was drawn before. */
export function putDraw(db: Store, studyId: string, draw: RandomDraw): void {
  db.insert(draws)
    .values({ studyId, ...draw })
    .onConflictDoUpdate({ target: draws.studyId, set: draw })
    .run();
}
