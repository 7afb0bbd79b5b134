/** Coded rows of a study that are kept to be tabulated. */
import { randomUUID } from 'node:crypto';
import { and, desc, eq } from 'drizzle-orm';
import type { Store } from './open';
import { datasets } from './schema';
import { revisionOf } from './studies';

export type DatasetCard = Omit<typeof datasets.$inferSelect, 'studyId' | 'body'>;

export function listDatasets(db: Store, studyId: string): DatasetCard[] {
  const { id, name, rows, at, revision } = datasets;
  return db
    .select({ id, name, rows, at, revision })
    .from(datasets)
    .where(eq(datasets.studyId, studyId))
    .orderBy(desc(datasets.at))
    .all();
}

/** The packed rows; null where there are none of that id. */
export function findDataset(db: Store, studyId: string, id: string): Buffer | null {
  const row = db
    .select({ body: datasets.body })
    .from(datasets)
    .where(and(eq(datasets.studyId, studyId), eq(datasets.id, id)))
    .get();
  return row?.body ?? null;
}

/** Keeps rows under a name; others of that name are replaced. */
export function putDataset(
  db: Store,
  studyId: string,
  dataset: { readonly name: string; readonly rows: number; readonly body: Buffer; readonly at: number },
): void {
  const row = { ...dataset, revision: revisionOf(db, studyId) };
  db.insert(datasets)
    .values({ id: randomUUID(), studyId, ...row })
    .onConflictDoUpdate({ target: [datasets.studyId, datasets.name], set: row })
    .run();
}

export function removeDataset(db: Store, studyId: string, id: string): void {
  db.delete(datasets)
    .where(and(eq(datasets.studyId, studyId), eq(datasets.id, id)))
    .run();
}
