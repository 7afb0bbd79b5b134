/**
 * Responses under a link, by sittings: a sitting has a part for each questionnaire that somebody was led through. Who may begin, and
 * what is found again; turns are taken in `turns.ts`.
 */
import { createHash, randomInt, randomUUID } from 'node:crypto';
import { and, asc, count, desc, eq, isNotNull, isNull, lt, sql } from 'drizzle-orm';
import type { Answers } from '../core/document/types';
import { allotted } from '../core/responding/blocks';
import { walkOfCase } from '../core/responding/case-data';
import { caseBegun, type KeptCase } from '../core/responding/kept-case';
import { AWAY, closedWords, type Device, type TrialSettings } from '../core/responding/trial-settings';
import { turnedCase } from '../core/responding/turn';
import type { Plan } from '../core/routing/plan';
import { countOnly } from './counted';
import type { Store } from './open';
import { timeUnder } from './panels';
import { findPerson } from './people';
import { prepared } from './prepared';
import { responses, trials } from './schema';
import { trialPlan } from './trial-plans';
import { findTrial, type FoundTrial } from './trials';

export type StoredResponse = typeof responses.$inferSelect;

export interface ToBegin {
  /** Chosen by the page: begun with it again, it is the same response. */
  readonly ticket: string;
  readonly device: Device;
  /** A number that the browser keeps for this link; null where it keeps none. */
  readonly browser: string | null;
  /** Of somebody's own link; null under the link for all. */
  readonly key: string | null;
}

export type Begun =
  | { readonly ok: true; readonly response: StoredResponse }
  | {
      readonly ok: false;
      /** `answered`: as often as one may. `elsewhere`: begun in another browser. `stranger`: without a link of their own. */
      readonly why: 'no-link' | 'closed' | 'answered' | 'elsewhere' | 'stranger';
      /** A sentence to the respondent. */
      readonly problem: string;
    };

/** Letters and digits that nobody takes for each other, spoken or written. */
const CODE_LETTERS = 'abcdefghkmnpqrstuvwxyz23456789';
const CODE_LENGTH = 8;
const SEEDS = 2 ** 31;

export const STRANGER =
  'This questionnaire is answered by those who were sent a link of their own: open that one, as it was sent.';
export const NO_SUCH_LINK = 'There is no questionnaire at this address: it may have been mistyped.';

/** Begins a response, with the arms that are its turn; or goes on with one that the same person has begun. */
export function beginResponse(db: Store, token: string, toBegin: ToBegin, now: number): Begun {
  return db.transaction(
    (tx): Begun => {
      const refuse = (why: Exclude<Begun, { ok: true }>['why'], problem: string): Begun => ({
        ok: false,
        why,
        problem,
      });
      const trial = findTrial(db, token);
      if (trial === null) return refuse('no-link', NO_SUCH_LINK);
      const again = findSitting(db, token, { id: toBegin.ticket });
      if (again !== null) return { ok: true, response: again };
      const invited = toBegin.key === null ? null : findPerson(db, token, toBegin.key);
      if (trial.settings.toldApart === 'personal' && invited === null) return refuse('stranger', STRANGER);
      removeStopped(db, trial, now);
      const person = personOf(trial.settings, toBegin, invited?.key ?? null);
      const before = person === null ? [] : sittingsOf(db, token, person);
      const open = before.find(({ closedBy }) => closedBy === null);
      if (open !== undefined)
        return trial.settings.toldApart === 'browser' || trial.settings.mayReturn
          ? { ok: true, response: cameBack(db, open, now) }
          : refuse('elsewhere', 'You have begun this questionnaire in another browser: please go on there.');
      const closed = closedWords(trial, now);
      if (closed !== null) return refuse('closed', closed);
      // Of whoever has declined nothing else is known.
      const declined = invited?.isSettled === true && before.length === 0 ? 1 : 0;
      if (person !== null && before.length + declined >= trial.settings.attempts)
        return refuse(
          'answered',
          trial.settings.attempts === 1
            ? 'You have answered this questionnaire already. Thank you: there is nothing more to do.'
            : 'You have answered this questionnaire as often as it can be answered. Thank you: there is nothing more to do.',
        );
      const plan = trialPlan(trial);
      const number = trial.begun + 1;
      const response = firstPart(db, { trial, plan, toBegin, number, person }, invited?.given ?? {}, now);
      tx.insert(responses).values(response).run();
      tx.update(trials).set({ begun: number }).where(eq(trials.token, token)).run();
      return { ok: true, response };
    },
    { behavior: 'immediate' },
  );
}

interface Beginning {
  readonly trial: FoundTrial;
  readonly plan: Plan;
  readonly toBegin: ToBegin;
  readonly number: number;
  readonly person: string | null;
}

function firstPart(
  db: Store,
  { trial, plan, toBegin, number, person }: Beginning,
  given: Answers,
  now: number,
): StoredResponse {
  const { ticket, device } = toBegin;
  const begun = {
    key: ticket,
    id: String(number),
    seed: seedFrom(trial.seed, ticket),
    given: { ...given, ...armsFor(plan, trial.begun, trial.seed) },
  };
  const kept = turnedCase(caseBegun(plan, begun, now));
  return {
    ...{ id: ticket, token: trial.token, number, part: 0, questionnaire: 0, person, device },
    ...{ code: freeCode(db, trial.token), kept, changedAt: now },
    ...closingOf(plan, kept),
  };
}

/** By the ticket, so that a page can be drawn before the response is begun; who knows the one cannot tell the other. */
export function seedFrom(secret: number, ticket: string): number {
  return createHash('sha256').update(`${secret} ${ticket}`).digest().readUInt32BE(0) % SEEDS;
}

/** The arms of the `n`-th respondent, from 0. */
export function armsFor(plan: Plan, n: number, seed: number): Answers {
  const random = (plan.document.given ?? []).filter((given) => given.random);
  return Object.fromEntries(random.map((given) => [given.name, allotted(given, n, seed)]));
}

/** As it stands in its row: how it was closed, and at which ending. */
export function closingOf(plan: Plan, kept: KeptCase): Pick<StoredResponse, 'closedBy' | 'ending'> {
  const ending = kept.closed?.by === 'ending' ? walkOfCase(plan, kept)?.ending : null;
  return {
    closedBy: kept.closed?.by ?? null,
    ending: ending == null ? null : (plan.endings[ending]?.ending.id ?? null),
  };
}

/** As whom somebody is kept who has a link of their own, by its key. */
export const ownLink = (key: string) => `link ${key}`;

/** The key of the link that a response came by; null where it was the link for all. */
export const keyOf = ({ person }: Pick<StoredResponse, 'person'>): string | null =>
  person?.startsWith(ownLink('')) === true ? person.slice(ownLink('').length) : null;

export const hasOwnLink = ({ person }: StoredResponse) => person?.startsWith(ownLink('')) ?? false;

function personOf({ toldApart }: TrialSettings, { browser }: ToBegin, key: string | null): string | null {
  // Whoever comes by a link of their own is known by it, also where others need none.
  if (key !== null) return ownLink(key);
  return toldApart === 'browser' && browser !== null ? `browser ${browser}` : null;
}

/** Each sitting of a person by its last part, the newest first. */
function sittingsOf(db: Store, token: string, person: string): StoredResponse[] {
  const parts = db
    .select()
    .from(responses)
    .where(and(eq(responses.token, token), eq(responses.person, person)))
    .orderBy(desc(responses.number), desc(responses.part))
    .all();
  return parts.filter(({ number }, n) => parts[n - 1]?.number !== number);
}

/** Of each sitting the part that it has come to; `parts` as `listResponses` gives them. */
export function lastParts(parts: readonly StoredResponse[]): StoredResponse[] {
  return parts.filter(({ number }, n) => parts[n + 1]?.number !== number);
}

/** Whether somebody with a link of their own has begun. */
export function hasBegun(db: Store, token: string, key: string): boolean {
  return sittingsOf(db, token, ownLink(key)).length > 0;
}

const byId = prepared((db) =>
  db
    .select()
    .from(responses)
    .where(and(eq(responses.token, sql.placeholder('token')), eq(responses.id, sql.placeholder('id'))))
    .prepare(),
);

/** Null where there is none under this link. */
export function findResponse(db: Store, token: string, id: string): StoredResponse | null {
  return byId(db).get({ token, id }) ?? null;
}

/** The part that a sitting has come to; by the id of any of its parts, or by the code that somebody was given. */
export function findSitting(
  db: Store,
  token: string,
  by: { readonly id: string } | { readonly code: string },
): StoredResponse | null {
  const number =
    'id' in by
      ? findResponse(db, token, by.id)?.number
      : db
          .select({ number: responses.number })
          .from(responses)
          .where(and(eq(responses.token, token), eq(responses.code, plainCode(by.code))))
          .get()?.number;
  if (number === undefined) return null;
  return (
    db
      .select()
      .from(responses)
      .where(and(eq(responses.token, token), eq(responses.number, number)))
      .orderBy(desc(responses.part))
      .get() ?? null
  );
}

/** Somebody comes back to the page that they had in hand: it begins anew, so that the days between are no time spent on it. */
export function cameBack(db: Store, response: StoredResponse, now: number): StoredResponse {
  const { id, kept, changedAt } = response;
  if (kept.closed !== null || now - Math.max(changedAt, kept.cameAt) <= AWAY) return response;
  const back = { ...kept, cameAt: now };
  db.update(responses).set({ kept: back }).where(eq(responses.id, id)).run();
  return { ...response, kept: back };
}

/** When a sitting began; milliseconds since 1970. */
export function sittingBegan(db: Store, { token, number, kept, part }: StoredResponse): number {
  if (part === 0) return kept.startedAt;
  const first = db
    .select({ kept: responses.kept })
    .from(responses)
    .where(and(eq(responses.token, token), eq(responses.number, number)))
    .orderBy(asc(responses.part))
    .get();
  return first?.kept.startedAt ?? kept.startedAt;
}

/** In the order in which they were begun, the parts of each together. */
export function listResponses(db: Store, token: string): StoredResponse[] {
  return db
    .select()
    .from(responses)
    .where(eq(responses.token, token))
    .orderBy(asc(responses.number), asc(responses.part))
    .all();
}

/** As little of each response to one questionnaire of a link as tells whether it has changed; read from an index alone. */
export function responseMarks(
  db: Store,
  token: string,
  questionnaire: number,
): { readonly id: string; readonly mark: string }[] {
  return db
    .select({ id: responses.id, changedAt: responses.changedAt, closedBy: responses.closedBy })
    .from(responses)
    .where(and(eq(responses.token, token), eq(responses.questionnaire, questionnaire)))
    .orderBy(asc(responses.number), asc(responses.part))
    .all()
    .map(({ id, changedAt, closedBy }) => ({ id, mark: `${changedAt} ${closedBy}` }));
}

/** Of the questionnaire of the link: how many came to each ending; null for those that were closed without one. */
export function countByEnding(db: Store, token: string): { ending: string | null; count: number }[] {
  return db
    .select({ ending: responses.ending, count: count() })
    .from(responses)
    .where(and(eq(responses.token, token), eq(responses.part, 0), isNotNull(responses.closedBy)))
    .groupBy(responses.ending)
    .all();
}

/** Where the answers of those who stop are not kept: takes away those that were left for so long as the link says. */
export function removeStopped(
  db: Store,
  { token, settings }: Pick<FoundTrial, 'token' | 'settings'>,
  now: number,
): number {
  if (settings.stopped !== 'remove') return 0;
  const before = now - settings.stoppedAfter * 3_600_000;
  const left = and(eq(responses.token, token), isNull(responses.closedBy), lt(responses.changedAt, before));
  return db.transaction((tx) => {
    // Whoever stopped in a follow-up has answered before, and is counted there.
    const counted = tx
      .select({ at: responses.changedAt })
      .from(responses)
      .where(and(left, eq(responses.part, 0)))
      .all();
    const { changes } = tx.delete(responses).where(left).run();
    countOnly(
      tx,
      token,
      'removed',
      counted.map(({ at }) => at),
    );
    return changes;
  });
}

/** The same under every link. */
export function removeAllStopped(db: Store, now: number): void {
  const links = db.select({ token: trials.token, settings: trials.settings }).from(trials).all();
  for (const link of links) removeStopped(db, link, timeUnder(db, link.token, now));
}

/** A part that follows another in the same sitting. */
export function nextPart(
  { id: _id, ...before }: StoredResponse,
  of: { readonly plan: Plan; readonly questionnaire: number; readonly given: Answers },
  now: number,
): StoredResponse {
  const id = randomUUID();
  const begun = { key: id, id: String(before.number), seed: randomInt(SEEDS), given: of.given };
  const kept = { ...turnedCase(caseBegun(of.plan, begun, now)), isPerson: true };
  return {
    ...before,
    id,
    part: before.part + 1,
    questionnaire: of.questionnaire,
    kept,
    changedAt: now,
    ...closingOf(of.plan, kept),
  };
}

const plainCode = (written: string) => written.toLowerCase().replace(/[^a-z0-9]/g, '');

function freeCode(db: Store, token: string): string {
  for (;;) {
    const letters = Array.from({ length: CODE_LENGTH }, () => CODE_LETTERS[randomInt(CODE_LETTERS.length)]);
    const code = letters.join('');
    if (findSitting(db, token, { code }) === null) return code;
  }
}
