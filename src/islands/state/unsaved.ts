/**
 * Work that is not on the server yet, kept in the browser's own database: it outlives the page and the browser, and is
 * offered on the next visit. The tab keeps more, and for a shorter time (`kept.ts`).
 */
import { openDB, type IDBPDatabase } from 'idb';
import * as v from 'valibot';
import { readDocument } from '../../core/document/read';
import type { Questionnaire } from '../../core/document/types';

/** What is kept of one page in which a study was open. */
export interface Unsaved {
  readonly page: string;
  readonly study: string;
  /** The last version known to be saved, and its revision. */
  readonly base: Questionnaire;
  readonly revision: number;
  readonly document: Questionnaire;
  /** Milliseconds since 1970, UTC. */
  readonly at: number;
}

const EntrySchema = v.object({
  page: v.string(),
  study: v.string(),
  base: v.unknown(),
  revision: v.number(),
  document: v.unknown(),
  at: v.number(),
});

const STORE = 'unsaved';
let opened: Promise<IDBPDatabase> | null = null;

function database(): Promise<IDBPDatabase> {
  opened ??= openDB('jolly-fork', 1, {
    upgrade(db) {
      db.createObjectStore(STORE, { keyPath: 'page' }).createIndex('study', 'study');
    },
  });
  return opened;
}

/** False where the browser has no room, or none to give: then it is not kept. */
export async function keepUnsaved(entry: Unsaved): Promise<boolean> {
  try {
    const transaction = (await database()).transaction(STORE, 'readwrite');
    await transaction.store.put(entry);
    // Said at once, so that it counts although the page goes.
    transaction.commit();
    await transaction.done;
    return true;
  } catch {
    return false;
  }
}

export async function dropUnsaved(page: string): Promise<void> {
  try {
    await (await database()).delete(STORE, page);
  } catch {
    // Without a database nothing was kept in it.
  }
}

/** What pages left behind that are not open any more, the newest first. */
export async function unsavedOf(study: string): Promise<Unsaved[]> {
  try {
    const entries: unknown[] = await (await database()).getAllFromIndex(STORE, 'study', study);
    const open = await pagesOpen();
    return entries
      .flatMap((entry) => read(entry) ?? [])
      .filter(({ page, at }) => (open === null ? at < Date.now() - A_WHILE : !open.has(lockOf(page))))
      .sort((a, b) => b.at - a.at);
  } catch {
    return [];
  }
}

function read(entry: unknown): Unsaved | null {
  const parsed = v.safeParse(EntrySchema, entry);
  if (!parsed.success) return null;
  const [base, document] = [readDocument(parsed.output.base), readDocument(parsed.output.document)];
  return base.ok && document.ok
    ? { ...parsed.output, base: base.document, document: document.document }
    : null;
}

const lockOf = (page: string) => `jolly-fork/page/${page}`;

let named: string | null = null;

/** Where a browser does not tell which pages are open, one that has kept nothing for as long is taken to be gone. */
const A_WHILE = 60_000;

/** Locks that pages hold; null where the browser has none: over plain HTTP from another machine. */
async function pagesOpen(): Promise<ReadonlySet<string | undefined> | null> {
  const locks = locksHere();
  if (locks === undefined) return null;
  const { held = [] } = await locks.query();
  return new Set(held.map(({ name }) => name));
}

function locksHere(): LockManager | undefined {
  return (globalThis.navigator as Navigator | undefined)?.locks as LockManager | undefined;
}

/** The name of this page: held as long as it is open, so that others see that what it keeps is in good hands. */
export function thisPage(): string {
  if (named === null) {
    named = `${Date.now()}-${Math.random()}`;
    void locksHere()?.request(lockOf(named), () => new Promise(() => undefined));
  }
  return named;
}
