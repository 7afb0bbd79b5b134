/** Snags set aside, with the reason, by what they say: one that changes comes back. */
import { and, eq } from 'drizzle-orm';
import type { Store } from './open';
import { asides } from './schema';

export type Aside = Omit<typeof asides.$inferSelect, 'id' | 'studyId'>;

export function listAsides(db: Store, studyId: string): Aside[] {
  const { snag, reason, reviewer, at } = asides;
  return db.select({ snag, reason, reviewer, at }).from(asides).where(eq(asides.studyId, studyId)).all();
}

/** Keys of the snags set aside, by study. */
export function asidesByStudy(db: Store): Map<string, ReadonlySet<string>> {
  const byStudy = new Map<string, Set<string>>();
  for (const { studyId, snag } of db
    .select({ studyId: asides.studyId, snag: asides.snag })
    .from(asides)
    .all())
    byStudy.set(studyId, (byStudy.get(studyId) ?? new Set()).add(snag));
  return byStudy;
}

/** Sets a snag aside; an earlier reason is replaced. */
export function putAside(db: Store, studyId: string, aside: Aside): void {
  db.insert(asides)
    .values({ studyId, ...aside })
    .onConflictDoUpdate({ target: [asides.studyId, asides.snag], set: aside })
    .run();
}

/** Brings a snag back. */
export function removeAside(db: Store, studyId: string, snag: string): void {
  db.delete(asides)
    .where(and(eq(asides.studyId, studyId), eq(asides.snag, snag)))
    .run();
}
