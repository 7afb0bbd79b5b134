/** Comments on places of a questionnaire, open until somebody settles them. */
import { and, asc, count, eq } from 'drizzle-orm';
import type { Address } from '../core/document/addresses';
import type { Store } from './open';
import { comments } from './schema';
import { revisionOf } from './studies';

export type Comment = Omit<typeof comments.$inferSelect, 'studyId' | 'link'>;

const { id, place, text, author, at, settledBy, settledAt, revision } = comments;
const SHOWN = { id, place, text, author, at, settledBy, settledAt, revision };

/** In the order in which they were made. */
export function listComments(db: Store, studyId: string): Comment[] {
  return db.select(SHOWN).from(comments).where(eq(comments.studyId, studyId)).orderBy(asc(id)).all();
}

export function addComment(
  db: Store,
  studyId: string,
  comment: Pick<Comment, 'place' | 'text' | 'author' | 'at'>,
  link: string | null = null,
): Comment {
  return db
    .insert(comments)
    .values({ studyId, link, revision: revisionOf(db, studyId), ...comment })
    .returning(SHOWN)
    .get();
}

/** Settles a comment, or opens it again with null; null where there is none. */
export function settleComment(
  db: Store,
  studyId: string,
  comment: number,
  settled: { readonly by: string; readonly at: number } | null,
): Comment | null {
  return (
    db
      .update(comments)
      .set({ settledBy: settled?.by ?? null, settledAt: settled?.at ?? null })
      .where(and(eq(comments.studyId, studyId), eq(id, comment)))
      .returning(SHOWN)
      .get() ?? null
  );
}

/** What was commented on has another name now. */
export function moveComments(db: Store, studyId: string, from: Address, to: Address): void {
  db.update(comments)
    .set({ place: to })
    .where(and(eq(comments.studyId, studyId), eq(place, from)))
    .run();
}

/** Takes away a comment that was made under a link; false where there is no such comment of that link. */
export function removeOwnComment(db: Store, studyId: string, comment: number, link: string): boolean {
  const own = and(eq(comments.studyId, studyId), eq(id, comment), eq(comments.link, link));
  return db.delete(comments).where(own).run().changes > 0;
}

export function commentsUnder(db: Store, link: string): number {
  return db.select({ many: count() }).from(comments).where(eq(comments.link, link)).get()?.many ?? 0;
}
