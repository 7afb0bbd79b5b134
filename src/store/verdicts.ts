/** Verdicts on routes, kept by what the route presents, so that edits elsewhere leave them standing. */
import { and, count, eq } from 'drizzle-orm';
import type { Store } from './open';
import { verdicts } from './schema';

export type Verdict = Omit<typeof verdicts.$inferSelect, 'id' | 'studyId'>;

export function listVerdicts(db: Store, studyId: string): Verdict[] {
  const { route, marks, items, walked, verdict, remark, place, reviewer, at } = verdicts;
  return db
    .select({ route, marks, items, walked, verdict, remark, place, reviewer, at })
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

/** Records a verdict; the route's earlier one is replaced. */
export function putVerdict(db: Store, studyId: string, verdict: Verdict): void {
  db.insert(verdicts)
    .values({ studyId, ...verdict })
    .onConflictDoUpdate({ target: [verdicts.studyId, verdicts.route], set: verdict })
    .run();
}

/** Takes a verdict back. */
export function removeVerdict(db: Store, studyId: string, route: string): void {
  db.delete(verdicts)
    .where(and(eq(verdicts.studyId, studyId), eq(verdicts.route, route)))
    .run();
}
