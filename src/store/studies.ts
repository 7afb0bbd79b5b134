/** Studies: a questionnaire each, saved as a whole under a growing revision. */
import { randomUUID } from 'node:crypto';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { readDocumentText, writeDocument } from '../core/document/read';
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

export function listStudies(db: Store): Study[] {
  return db
    .select()
    .from(studies)
    .where(isNull(studies.removedAt))
    .orderBy(desc(studies.changedAt))
    .all()
    .map(toStudy);
}

export function findStudy(db: Store, id: string): Study | null {
  const row = db.select().from(studies).where(present(id)).get();
  return row === undefined ? null : toStudy(row);
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
  return toStudy(row);
}

/** Saves if `revision` is still the newest; null where there is no such study. */
export function saveStudy(
  db: Store,
  id: string,
  revision: number,
  document: Questionnaire,
  now: number,
): SaveResult | null {
  return db.transaction((tx) => {
    const row = tx.select().from(studies).where(present(id)).get();
    if (row === undefined) return null;
    if (row.revision !== revision) return { saved: false, study: toStudy(row) };
    const next: Row = { ...row, document: writeDocument(document), revision: revision + 1, changedAt: now };
    tx.update(studies).set(next).where(eq(studies.id, id)).run();
    renumberStored(tx, id, toStudy(row).document, document);
    return { saved: true, study: toStudy(next) };
  });
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

function toStudy({ id, document, revision, changedAt }: Row): Study {
  const read = readDocumentText(document);
  if (!read.ok)
    throw new Error(`study ${id} holds a document that cannot be read: ${read.problems[0]?.message}`);
  return { id, document: read.document, revision, changedAt };
}
