/** Verdicts on routes, kept by what the route presents, so that edits elsewhere leave them standing. */
import { and, count, eq } from 'drizzle-orm';
import type { Store } from './open';
import { verdicts } from './schema';
import { revisionOf } from './studies';

export type Verdict = Omit<typeof verdicts.$inferSelect, 'id' | 'studyId' | 'link'>;

export function listVerdicts(db: Store, studyId: string): Verdict[] {
  const { route, marks, items, walked, verdict, remark, place, reviewer, at, revision } = verdicts;
  return db
    .select({ route, marks, items, walked, verdict, remark, place, reviewer, at, revision })
    .from(verdicts)
    .where(eq(verdicts.studyId, studyId))
    .all();
}

/** How many routes were passed, by study. */
export function passedByStudy(db: Store): Map<string, number> {
  const { studyId, verdict } = verdicts;
  const rows = db
    .select({ studyId, passed: count() })
    .from(verdicts)
    .where(eq(verdict, 'passed'))
    .groupBy(studyId);
  return new Map(rows.all().map((row) => [row.studyId, row.passed]));
}

/** Records a verdict, on the study as it is now; the route's earlier one is replaced. */
export function putVerdict(
  db: Store,
  studyId: string,
  verdict: Omit<Verdict, 'revision'>,
  link: string | null = null,
): Verdict {
  const given = { ...verdict, revision: revisionOf(db, studyId) };
  const row = { ...given, link };
  db.insert(verdicts)
    .values({ studyId, ...row })
    .onConflictDoUpdate({ target: [verdicts.studyId, verdicts.route], set: row })
    .run();
  return given;
}

/** Takes a verdict back. */
export function removeVerdict(db: Store, studyId: string, route: string): void {
  db.delete(verdicts)
    .where(and(eq(verdicts.studyId, studyId), eq(verdicts.route, route)))
    .run();
}

/** Whose a verdict is: the link under which it was given, null of an author's. Undefined where there is none. */
export function givenBy(db: Store, studyId: string, route: string): string | null | undefined {
  const { link } = verdicts;
  const found = and(eq(verdicts.studyId, studyId), eq(verdicts.route, route));
  return db.select({ link }).from(verdicts).where(found).get()?.link;
}

export function verdictsUnder(db: Store, link: string): number {
  return db.select({ many: count() }).from(verdicts).where(eq(verdicts.link, link)).get()?.many ?? 0;
}
