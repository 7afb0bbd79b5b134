/** Studies: a questionnaire each, saved as a whole under a growing revision. */
import { randomUUID } from 'node:crypto';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { problemText, readDocumentText, writeDocument } from '../core/document/read';
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

/** A study whose document cannot be read: damaged, or written by something else. */
export interface UnreadableStudy {
  readonly id: string;
  /** What is wrong with it, as a sentence. */
  readonly problem: string;
  readonly changedAt: number;
}

type Row = typeof studies.$inferSelect;

/** Those that can be read, the one changed last first. */
export function listStudies(db: Store): Study[] {
  return rowsOf(db).flatMap((row) => readable(row) ?? []);
}

/** The others: nothing works on them but to be saved as a file as they are, and to be removed. */
export function unreadableStudies(db: Store): UnreadableStudy[] {
  return rowsOf(db).flatMap(({ id, document, changedAt }) => {
    const read = readDocumentText(document);
    if (read.ok) return [];
    const [problem] = read.problems;
    return [{ id, problem: problem === undefined ? 'It is empty.' : problemText(problem), changedAt }];
  });
}

/** Null where there is none, or it cannot be read. */
export function findStudy(db: Store, id: string): Study | null {
  const row = db.select().from(studies).where(present(id)).get();
  return row === undefined ? null : readable(row);
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
  return db.transaction((tx) => {
    const row = tx.select().from(studies).where(present(id)).get();
    const before = row === undefined ? null : readable(row);
    if (row === undefined || before === null) return null;
    if (row.revision !== revision) return { saved: false, study: before };
    const next: Row = { ...row, document: writeDocument(document), revision: revision + 1, changedAt: now };
    tx.update(studies).set(next).where(eq(studies.id, id)).run();
    renumberStored(tx, id, before.document, document);
    return { saved: true, study: { ...next, document } };
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

function readable({ id, document, revision, changedAt }: Row): Study | null {
  const read = readDocumentText(document);
  return read.ok ? { id, document: read.document, revision, changedAt } : null;
}
