/** Studies: a questionnaire each, saved as a whole under a growing revision. */
import { randomUUID } from 'node:crypto';
import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { readDocumentText, writeDocument, writeEdited } from '../core/document/read';
import type { Questionnaire } from '../core/document/types';
import type { Store } from './open';
import { renumberStored } from './renumber';
import { studies } from './schema';

export interface Study {
  readonly id: string;
  readonly document: Questionnaire;
  readonly revision: number;
  /** Milliseconds since 1970, UTC. */
  readonly changedAt: number;
}

export type SaveResult =
  | { readonly saved: true; readonly study: Study }
  /** Somebody saved another revision in between; `study` is theirs. */
  | { readonly saved: false; readonly study: Study };

type Row = typeof studies.$inferSelect;

/** Those that can be read, the one changed last first. */
export function listStudies(db: Store): Study[] {
  return rowsOf(db).flatMap((row) => readable(row) ?? []);
}

/** A study as it is stored, whatever its text is. */
export interface StoredStudy {
  readonly id: string;
  /** Empty where the text is no questionnaire. */
  readonly title: string;
  readonly text: string;
  readonly changedAt: number;
}

/** All of them, the one changed last first, without reading one. */
export function storedStudies(db: Store): StoredStudy[] {
  const { id, document, changedAt } = studies;
  const title = sql<unknown>`case when json_valid(${document}) then json_extract(${document}, '$.title') end`;
  return db
    .select({ id, text: document, changedAt, title })
    .from(studies)
    .where(isNull(studies.removedAt))
    .orderBy(desc(changedAt))
    .all()
    .map((row) => ({ ...row, title: typeof row.title === 'string' ? row.title : '' }));
}

/** Null where there is none, or it cannot be read. */
export function findStudy(db: Store, id: string): Study | null {
  const { revision, changedAt } = studies;
  const row = db.select({ revision, changedAt }).from(studies).where(present(id)).get();
  if (row === undefined) return null;
  const read = readBefore.of(db, id, row.revision);
  if (read !== null) return { id, document: read, ...row };
  const text = storedText(db, id);
  const study = text === null ? null : readable({ id, document: text, ...row });
  if (study !== null) readBefore.keep(db, study);
  return study;
}

/** The document as the text that is stored, whatever it is; null where there is no such study. */
export function storedText(db: Store, id: string): string | null {
  return db.select({ document: studies.document }).from(studies).where(present(id)).get()?.document ?? null;
}

function rowsOf(db: Store): Row[] {
  return db.select().from(studies).where(isNull(studies.removedAt)).orderBy(desc(studies.changedAt)).all();
}

/** The newest revision, without reading the document; null where there is no such study. */
export function revisionOf(db: Store, id: string): number | null {
  const row = db.select({ revision: studies.revision }).from(studies).where(present(id)).get();
  return row?.revision ?? null;
}

/** Adds a study; with an `id` already there, that study is replaced. */
export function addStudy(db: Store, document: Questionnaire, now: number, id: string = randomUUID()): Study {
  const row: Row = {
    id,
    document: writeDocument(document),
    revision: 1,
    createdAt: now,
    changedAt: now,
    removedAt: null,
  };
  db.transaction((tx) => {
    tx.delete(studies).where(eq(studies.id, id)).run();
    tx.insert(studies).values(row).run();
  });
  readBefore.forget(db, id);
  return { id, document, revision: 1, changedAt: now };
}

/** Saves if `revision` is still the newest; null where there is no such study. */
export function saveStudy(
  db: Store,
  id: string,
  revision: number,
  document: Questionnaire,
  now: number,
): SaveResult | null {
  const result = db.transaction((tx): SaveResult | null => {
    const before = findStudy(db, id);
    if (before === null) return null;
    if (before.revision !== revision) return { saved: false, study: before };
    const next = { revision: revision + 1, changedAt: now };
    tx.update(studies)
      .set({ ...next, document: writeEdited(document) })
      .where(eq(studies.id, id))
      .run();
    renumberStored(tx, id, before.document, document);
    return { saved: true, study: { id, document, ...next } };
  });
  if (result?.saved === true) readBefore.keep(db, result.study);
  return result;
}

/** Takes a study off the list; `restoreStudy` brings it back with its verdicts. False where there is none. */
export function removeStudy(db: Store, id: string, now: number): boolean {
  return db.update(studies).set({ removedAt: now }).where(present(id)).run().changes > 0;
}

export function restoreStudy(db: Store, id: string): boolean {
  return db.update(studies).set({ removedAt: null }).where(eq(studies.id, id)).run().changes > 0;
}

function present(id: string) {
  return and(eq(studies.id, id), isNull(studies.removedAt));
}

/** Studies as they were read last, so that a save does not read what was written a moment before. */
class ReadBefore {
  /** A study by its id, the one used last at the end; of a text that is stored under a revision there is just one. */
  private readonly byStore = new WeakMap<Store, Map<string, Pick<Study, 'document' | 'revision'>>>();

  of(db: Store, id: string, revision: number): Questionnaire | null {
    const known = this.byStore.get(db)?.get(id);
    return known?.revision === revision ? known.document : null;
  }

  keep(db: Store, { id, document, revision }: Study): void {
    const kept = this.byStore.get(db) ?? new Map<string, Pick<Study, 'document' | 'revision'>>();
    this.byStore.set(db, kept);
    kept.delete(id);
    kept.set(id, { document, revision });
    const [oldest] = kept.keys();
    if (kept.size > MOST_READ && oldest !== undefined) kept.delete(oldest);
  }

  forget(db: Store, id: string): void {
    this.byStore.get(db)?.delete(id);
  }
}

const MOST_READ = 20;
const readBefore = new ReadBefore();

function readable({
  id,
  document,
  revision,
  changedAt,
}: Pick<Row, 'id' | 'document' | 'revision' | 'changedAt'>): Study | null {
  const read = readDocumentText(document);
  return read.ok ? { id, document: read.document, revision, changedAt } : null;
}
