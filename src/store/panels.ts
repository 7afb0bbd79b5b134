/** Made-up panels under links: their settings and clocks, and the letters that went out. */
import { and, asc, count, eq, isNull, sql } from 'drizzle-orm';
import type { LetterKind, LetterText } from '../core/panel/letters';
import type { PanelSettings } from '../core/panel/panel-settings';
import type { Store } from './open';
import { prepared } from './prepared';
import { letters, panels, people } from './schema';

export type Panel = typeof panels.$inferSelect;
export type Letter = typeof letters.$inferSelect;

export function addPanel(db: Store, panel: Panel): void {
  db.insert(panels).values(panel).run();
}

const byToken = prepared((db) =>
  db
    .select()
    .from(panels)
    .where(eq(panels.token, sql.placeholder('token')))
    .prepare(),
);

/** Null where nobody under the link is made up. */
export function findPanel(db: Store, token: string): Panel | null {
  return byToken(db).get({ token }) ?? null;
}

export function changePanel(db: Store, token: string, settings: PanelSettings): void {
  db.update(panels).set({ settings }).where(eq(panels.token, token)).run();
}

/** It never goes back. */
export function moveClock(db: Store, token: string, to: number): void {
  db.update(panels)
    .set({ clock: sql`max(${panels.clock}, ${to})` })
    .where(eq(panels.token, token))
    .run();
}

/** How late it is under a link: by the clock of its panel, where it has one. */
export function timeUnder(db: Store, token: string, now: number): number {
  return findPanel(db, token)?.clock ?? now;
}

export interface LetterToSend extends LetterText {
  readonly person: string;
}

/** Sends letters of a kind; whoever has had theirs gets no second one. Gives how many went out. */
export function sendLetters(
  db: Store,
  token: string,
  { kind, at }: { readonly kind: LetterKind; readonly at: number },
  toSend: readonly LetterToSend[],
): number {
  return db.transaction((tx) => {
    let sent = 0;
    for (const { person, subject, text } of toSend)
      sent += tx
        .insert(letters)
        .values({ token, person, kind, at, subject, text })
        .onConflictDoNothing()
        .run().changes;
    return sent;
  });
}

/** Keys of people who have had no letter of a kind yet. */
export function withoutLetter(db: Store, token: string, kind: LetterKind): ReadonlySet<string> {
  const found = db
    .select({ key: people.key })
    .from(people)
    .leftJoin(letters, and(eq(letters.person, people.key), eq(letters.kind, kind)))
    .where(and(eq(people.token, token), isNull(letters.id)))
    .all();
  return new Set(found.map(({ key }) => key));
}

/** Who had which letter when. */
export function lettersSent(db: Store, token: string): { person: string; kind: LetterKind; at: number }[] {
  return db
    .select({ person: letters.person, kind: letters.kind, at: letters.at })
    .from(letters)
    .where(eq(letters.token, token))
    .orderBy(asc(letters.at))
    .all();
}

export interface Pile {
  readonly kind: LetterKind;
  readonly at: number;
  readonly count: number;
}

/** Letters of a kind that went out together, the first first. */
export function pilesOf(db: Store, token: string): Pile[] {
  return db
    .select({ kind: letters.kind, at: letters.at, count: count() })
    .from(letters)
    .where(eq(letters.token, token))
    .groupBy(letters.at, letters.kind)
    .orderBy(asc(letters.at), asc(letters.kind))
    .all();
}

/** One letter of a pile by its place in it, from 0, in the order of names; or that to somebody, by their name. Null: none. */
export function letterOf(
  db: Store,
  token: string,
  { kind, at }: Pick<Pile, 'kind' | 'at'>,
  wanted: { readonly place: number } | { readonly name: string },
): (Letter & { readonly name: string; readonly place: number }) | null {
  const pile = and(eq(letters.token, token), eq(letters.kind, kind), eq(letters.at, at));
  const named = db
    .select({ letter: letters, name: people.name })
    .from(letters)
    .innerJoin(people, eq(people.key, letters.person));
  if ('place' in wanted) {
    const found = named.where(pile).orderBy(asc(people.name)).limit(1).offset(wanted.place).get();
    return found === undefined ? null : { ...found.letter, name: found.name, place: wanted.place };
  }
  const isNamed = sql`lower(${people.name}) = lower(${wanted.name})`;
  const found = named.where(and(pile, isNamed)).get();
  if (found === undefined) return null;
  const before = db
    .select({ count: count() })
    .from(letters)
    .innerJoin(people, eq(people.key, letters.person))
    .where(and(pile, sql`${people.name} < ${found.name}`))
    .get();
  return { ...found.letter, name: found.name, place: before?.count ?? 0 };
}
