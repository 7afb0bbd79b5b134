/** Reviewers' links to studies. */
import { randomBytes } from 'node:crypto';
import { and, desc, eq, isNull } from 'drizzle-orm';
import type { Store } from './open';
import { links, studies } from './schema';

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

/** A link that is open, to a study that is there. */
export interface OpenLink {
  readonly token: string;
  readonly studyId: string;
  /** Whom it is for: what is done under it is done in this name. */
  readonly name: string;
}

/** Null where the token is none, has been withdrawn, or its study was removed: to a reviewer all of these are one. */
export function openLink(db: Store, token: string): OpenLink | null {
  const { studyId, name } = links;
  const open = and(eq(links.token, token), isNull(links.withdrawnAt), isNull(studies.removedAt));
  const found = db
    .select({ studyId, name })
    .from(links)
    .innerJoin(studies, eq(studies.id, studyId))
    .where(open)
    .get();
  return found === undefined ? null : { token, ...found };
}
