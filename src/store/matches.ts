/** How the columns of collected files are matched, as somebody said for the last one. */
import { eq } from 'drizzle-orm';
import type { Store } from './open';
import { matches } from './schema';

export type SaidMatches = typeof matches.$inferSelect.said;

export function findMatches(db: Store, studyId: string): SaidMatches {
  return db.select().from(matches).where(eq(matches.studyId, studyId)).get()?.said ?? {};
}

export function putMatches(db: Store, studyId: string, said: SaidMatches): void {
  db.insert(matches)
    .values({ studyId, said })
    .onConflictDoUpdate({ target: matches.studyId, set: { said } })
    .run();
}
