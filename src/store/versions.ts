/** Versions of a study: numbered, each with a checksum of its questionnaire, and never changed once they are there. */
import { createHash } from 'node:crypto';
import { and, desc, eq, max } from 'drizzle-orm';
import { readDocumentText, writeDocument } from '../core/document/read';
import type { Questionnaire } from '../core/document/types';
import type { Store } from './open';
import { versions } from './schema';
import { findStudy, type Study } from './studies';

type Row = typeof versions.$inferSelect;

/** A version without its questionnaire. */
export type VersionCard = Omit<Row, 'id' | 'studyId' | 'document'>;

/** What is said of a version when it is kept, and the revision of the study that it is to be. */
export type VersionToAdd = Pick<
  VersionCard,
  'frozen' | 'revision' | 'note' | 'author' | 'at' | 'gate' | 'reason'
>;

export type AddedVersion =
  | { readonly added: true; readonly version: VersionCard }
  /** Somebody saved another revision in between; `study` is theirs. */
  | { readonly added: false; readonly study: Study };

const { number, frozen, checksum, revision, note, author, at, gate, reason } = versions;
const CARD = { number, frozen, checksum, revision, note, author, at, gate, reason };

/** The newest first. */
export function listVersions(db: Store, studyId: string): VersionCard[] {
  return db
    .select(CARD)
    .from(versions)
    .where(eq(versions.studyId, studyId))
    .orderBy(desc(versions.number))
    .all();
}

/** Null where there is no version of this number, or its text is no questionnaire. */
export function findVersion(
  db: Store,
  studyId: string,
  wanted: number,
): (VersionCard & { readonly document: Questionnaire }) | null {
  const row = db
    .select({ ...CARD, document: versions.document })
    .from(versions)
    .where(and(eq(versions.studyId, studyId), eq(versions.number, wanted)))
    .get();
  const read = row === undefined ? null : readDocumentText(row.document);
  return row === undefined || !read?.ok ? null : { ...row, document: read.document };
}

/** Keeps the study as it is, under the next number; null where there is no such study. */
export function addVersion(db: Store, studyId: string, toAdd: VersionToAdd): AddedVersion | null {
  return db.transaction((tx): AddedVersion | null => {
    const study = findStudy(db, studyId);
    if (study === null) return null;
    if (study.revision !== toAdd.revision) return { added: false, study };
    const document = writeDocument(study.document);
    const last = tx
      .select({ number: max(versions.number) })
      .from(versions)
      .where(eq(versions.studyId, studyId))
      .get();
    const version: VersionCard = {
      ...toAdd,
      number: (last?.number ?? 0) + 1,
      checksum: createHash('sha256').update(document).digest('hex'),
    };
    tx.insert(versions)
      .values({ ...version, studyId, document })
      .run();
    return { added: true, version };
  });
}
