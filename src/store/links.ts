/** Reviewers' links to studies. */
import { randomBytes } from 'node:crypto';
import { and, desc, eq, isNull } from 'drizzle-orm';
import type { Store } from './open';
import { links } from './schema';

export type ReviewLink = Omit<typeof links.$inferSelect, 'studyId'>;

/** Bytes of chance in a token: 192 bits. */
const CHANCE = 24;

/** The newest first; those withdrawn, too. */
export function listLinks(db: Store, studyId: string): ReviewLink[] {
  const { token, name, createdAt, withdrawnAt } = links;
  return db
    .select({ token, name, createdAt, withdrawnAt })
    .from(links)
    .where(eq(links.studyId, studyId))
    .orderBy(desc(createdAt))
    .all();
}

export function addLink(db: Store, studyId: string, name: string, at: number): ReviewLink {
  const link = { token: randomBytes(CHANCE).toString('base64url'), name, createdAt: at, withdrawnAt: null };
  db.insert(links)
    .values({ studyId, ...link })
    .run();
  return link;
}

/** False where the study has no such link. */
export function withdrawLink(db: Store, studyId: string, token: string, at: number): boolean {
  const found = and(eq(links.studyId, studyId), eq(links.token, token), isNull(links.withdrawnAt));
  return db.update(links).set({ withdrawnAt: at }).where(found).run().changes > 0;
}

/** The study that a link opens; null where it is none, or has been withdrawn. */
export function studyOfLink(db: Store, token: string): string | null {
  const found = and(eq(links.token, token), isNull(links.withdrawnAt));
  return db.select({ id: links.studyId }).from(links).where(found).get()?.id ?? null;
}
