/** Test respondents of a study. */
import { and, eq } from 'drizzle-orm';
import type { Store } from './open';
import { respondents } from './schema';

export type TestRespondent = Omit<typeof respondents.$inferSelect, 'studyId' | 'id'>;

export function listRespondents(db: Store, studyId: string): TestRespondent[] {
  const { name, walked, items, marks, row, at } = respondents;
  return db
    .select({ name, walked, items, marks, row, at })
    .from(respondents)
    .where(eq(respondents.studyId, studyId))
    .all();
}

/** Keeps one; another of the same name is replaced. */
export function putRespondent(db: Store, studyId: string, respondent: TestRespondent): void {
  db.insert(respondents)
    .values({ studyId, ...respondent })
    .onConflictDoUpdate({ target: [respondents.studyId, respondents.name], set: respondent })
    .run();
}

export function removeRespondent(db: Store, studyId: string, name: string): void {
  db.delete(respondents)
    .where(and(eq(respondents.studyId, studyId), eq(respondents.name, name)))
    .run();
}
