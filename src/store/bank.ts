/** The bank: questions, answer lists and sections that all studies share. */
import { desc, eq } from 'drizzle-orm';
import type { Store } from './open';
import { bank } from './schema';

export type BankRow = typeof bank.$inferSelect;

/** The newest first. */
export function listBank(db: Store): BankRow[] {
  return db.select().from(bank).orderBy(desc(bank.id)).all();
}

export function addToBank(db: Store, entry: Omit<BankRow, 'id'>): BankRow {
  return db.insert(bank).values(entry).returning().get();
}

/** Gives what was taken out, so that it can be put back; null where there was nothing. */
export function removeFromBank(db: Store, id: number): BankRow | null {
  return db.delete(bank).where(eq(bank.id, id)).returning().get() ?? null;
}
