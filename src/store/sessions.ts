/** Who is signed in, and the salt of the installation's passphrase. */
import { randomBytes } from 'node:crypto';
import { eq, lt, or } from 'drizzle-orm';
import type { Store } from './open';
import { installation, sessions } from './schema';

/** In milliseconds, from signing in, and without a request; ASVS 4.0.3, 3.3.2. */
export const SESSION_LASTS = 12 * 3_600_000;
export const SESSION_IDLE = 30 * 60_000;
/** Being seen is written down no more often than this. */
const SEEN_EVERY = 60_000;

/** `checksum`: of the token that the browser has; the token itself is kept nowhere. */
export function openSession(db: Store, checksum: string, author: string, now: number): void {
  const over = or(lt(sessions.createdAt, now - SESSION_LASTS), lt(sessions.seenAt, now - SESSION_IDLE));
  db.delete(sessions).where(over).run();
  db.insert(sessions).values({ checksum, author, createdAt: now, seenAt: now }).run();
}

/** The name of who is signed in; null where there is no such session, or it is over. */
export function sessionAuthor(db: Store, checksum: string, now: number): string | null {
  const found = db.select().from(sessions).where(eq(sessions.checksum, checksum)).get();
  if (found === undefined) return null;
  if (now - found.createdAt > SESSION_LASTS || now - found.seenAt > SESSION_IDLE) {
    endSession(db, checksum);
    return null;
  }
  if (now - found.seenAt > SEEN_EVERY)
    db.update(sessions).set({ seenAt: now }).where(eq(sessions.checksum, checksum)).run();
  return found.author;
}

export function endSession(db: Store, checksum: string): void {
  db.delete(sessions).where(eq(sessions.checksum, checksum)).run();
}

/** Made the first time that it is asked for. */
export function saltOf(db: Store): Buffer {
  const name = 'salt';
  db.insert(installation)
    .values({ name, value: randomBytes(16).toString('hex') })
    .onConflictDoNothing()
    .run();
  const kept = db.select().from(installation).where(eq(installation.name, name)).get();
  if (kept === undefined) throw new Error('the salt of the installation was not kept');
  return Buffer.from(kept.value, 'hex');
}
