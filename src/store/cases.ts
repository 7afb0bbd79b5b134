/** Keyed cases of a study. */
import { and, asc, eq } from 'drizzle-orm';
import type { Store } from './open';
import { cases } from './schema';
import { revisionOf } from './studies';

export type KeyedCase = Omit<typeof cases.$inferSelect, 'studyId' | 'id'>;

export function listCases(db: Store, studyId: string): KeyedCase[] {
  const { caseId, entry, keyedBy, answers, settledBy, at, revision } = cases;
  return db
    .select({ caseId, entry, keyedBy, answers, settledBy, at, revision })
    .from(cases)
    .where(eq(cases.studyId, studyId))
    .orderBy(asc(cases.id))
    .all();
}

export function findCase(
  db: Store,
  studyId: string,
  caseId: string,
  entry: number,
): Pick<KeyedCase, 'keyedBy' | 'settledBy'> | null {
  const { keyedBy, settledBy } = cases;
  return (
    db
      .select({ keyedBy, settledBy })
      .from(cases)
      .where(one(studyId, caseId, entry))
      .get() ?? null
  );
}

/** Keeps one; the same entry of the same case is replaced. */
export function putCase(db: Store, studyId: string, keyed: Omit<KeyedCase, 'revision'>): void {
  const row = { ...keyed, revision: revisionOf(db, studyId) };
  db.insert(cases)
    .values({ studyId, ...row })
    .onConflictDoUpdate({ target: [cases.studyId, cases.caseId, cases.entry], set: row })
    .run();
}

export function removeCase(db: Store, studyId: string, caseId: string, entry: number): void {
  db.delete(cases)
    .where(one(studyId, caseId, entry))
    .run();
}

const one = (studyId: string, caseId: string, entry: number) =>
  and(eq(cases.studyId, studyId), eq(cases.caseId, caseId), eq(cases.entry, entry));
