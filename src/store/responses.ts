/**
 * Responses under a link. Each change is one transaction: a turn is kept whole or not at all, and no two respondents take the last
 * place of a quota.
 */
import { randomInt, randomUUID } from 'node:crypto';
import { and, asc, count, eq, gt, ne, or, isNotNull } from 'drizzle-orm';
import { readDocumentText } from '../core/document/read';
import type { Answers } from '../core/document/types';
import { ENDINGS } from '../core/document/vocabularies';
import { allotted } from '../core/responding/blocks';
import { walkOfCase } from '../core/responding/case-data';
import { caseBegun } from '../core/responding/kept-case';
import { closedWords, haltedWords, type Device } from '../core/responding/trial-settings';
import {
  turnedCase,
  turnTaken,
  withoutPlaces,
  type Turn,
  type TurnedCase,
  type TurnTaken,
} from '../core/responding/turn';
import type { Plan } from '../core/routing/plan';
import { planOf } from '../core/routing/planner';
import type { Store } from './open';
import { places, responses, trials } from './schema';
import { findTrial } from './trials';

export type StoredResponse = typeof responses.$inferSelect;

export type Begun =
  | { readonly ok: true; readonly response: StoredResponse }
  /** A sentence to the respondent. */
  | { readonly ok: false; readonly problem: string };

/** Letters and digits that nobody takes for each other, spoken or written. */
const CODE_LETTERS = 'abcdefghkmnpqrstuvwxyz23456789';
const CODE_LENGTH = 8;
/** Somebody who was away for so long, in milliseconds, may lose their place in a quota to others. */
const AWAY = 30 * 60_000;

const NO_SUCH_LINK = 'There is no questionnaire at this address: it may have been mistyped.';

/** Begins a response, with the arms that are its turn. */
export function beginResponse(db: Store, token: string, device: Device, now: number): Begun {
  return db.transaction(
    (tx): Begun => {
      const trial = findTrial(db, token);
      if (trial === null) return { ok: false, problem: NO_SUCH_LINK };
      const closed = closedWords(trial, now);
      if (closed !== null) return { ok: false, problem: closed };
      const plan = planFor(trial.checksum, trial.document);
      const arms = (plan.document.given ?? [])
        .filter(({ random }) => random)
        .map((given) => [given.name, allotted(given, trial.begun, trial.seed)]);
      const number = trial.begun + 1;
      const begun = {
        key: randomUUID(),
        id: String(number),
        seed: randomInt(2 ** 31),
        given: Object.fromEntries(arms) as Answers,
      };
      const response: StoredResponse = {
        id: begun.key,
        token,
        number,
        code: freeCode(db, token),
        kept: turnedCase(caseBegun(plan, begun, now)),
        ending: null,
        device,
        changedAt: now,
      };
      tx.insert(responses).values(response).run();
      tx.update(trials).set({ begun: number }).where(eq(trials.token, token)).run();
      return { ok: true, response };
    },
    { behavior: 'immediate' },
  );
}

/** Null where there is none under this link: with the key of the case, or the code that somebody was given. */
export function findResponse(
  db: Store,
  token: string,
  by: { readonly id: string } | { readonly code: string },
): StoredResponse | null {
  const which = 'id' in by ? eq(responses.id, by.id) : eq(responses.code, by.code.trim().toLowerCase());
  return (
    db
      .select()
      .from(responses)
      .where(and(eq(responses.token, token), which))
      .get() ?? null
  );
}

/** In the order in which they were begun. */
export function listResponses(db: Store, token: string): StoredResponse[] {
  return db.select().from(responses).where(eq(responses.token, token)).orderBy(asc(responses.number)).all();
}

export type TurnStored =
  TurnTaken | { readonly ok: false; readonly why: 'no-response' | 'halted'; readonly message: string };

/**
 * Takes a turn of a respondent. Where it ends as declined, nothing stays of them but the count. Throws where a link's
 * questionnaire cannot be read.
 */
export function storeTurn(db: Store, token: string, id: string, turn: Turn, now: number): TurnStored {
  return db.transaction(
    (tx): TurnStored => {
      const trial = findTrial(db, token);
      const stored = trial === null ? null : findResponse(db, token, { id });
      if (trial === null || stored === null)
        return { ok: false, why: 'no-response', message: 'These answers are not known here: begin anew.' };
      const halted = haltedWords(trial, now);
      if (halted !== null && stored.kept.closed === null)
        return { ok: false, why: 'halted', message: halted };
      const plan = planFor(trial.checksum, trial.document);
      const isFull = (quota: string) => othersIn(db, token, quota, id, now) >= targetOf(plan, quota);
      const wasAway = now - stored.changedAt > AWAY;
      const lost = wasAway ? stored.kept.held.filter(isFull) : [];
      const kept = withoutPlaces(plan, stored.kept, lost, now);
      const taken = turnTaken(plan, kept, turn, { now, isFull, mayGoBack: trial.settings.mayGoBack });
      const after = taken.ok ? taken.kept : kept;
      if (after === stored.kept) return taken;
      const kind = endingOf(plan, after);
      if (kind !== null && ENDINGS[kind.kind].keepsNothing) {
        tx.delete(responses).where(eq(responses.id, id)).run();
        tx.update(trials)
          .set({ declined: trial.declined + 1 })
          .where(eq(trials.token, token))
          .run();
        return taken;
      }
      tx.update(responses)
        .set({ kept: after, ending: kind?.id ?? null, changedAt: now })
        .where(eq(responses.id, id))
        .run();
      tx.delete(places).where(eq(places.responseId, id)).run();
      const holds = kind === null || ENDINGS[kind.kind].counts ? after.held : [];
      if (holds.length > 0)
        tx.insert(places)
          .values(holds.map((quota) => ({ responseId: id, token, quota })))
          .run();
      return taken;
    },
    { behavior: 'immediate' },
  );
}

/** Others who take a place in a quota: complete, or under way and not long away. */
function othersIn(db: Store, token: string, quota: string, id: string, now: number): number {
  const found = db
    .select({ count: count() })
    .from(places)
    .innerJoin(responses, eq(responses.id, places.responseId))
    .where(
      and(
        eq(places.token, token),
        eq(places.quota, quota),
        ne(places.responseId, id),
        or(isNotNull(responses.ending), gt(responses.changedAt, now - AWAY)),
      ),
    )
    .get();
  return found?.count ?? 0;
}

const targetOf = (plan: Plan, quota: string) =>
  plan.document.quotas?.find(({ id }) => id === quota)?.target ?? Infinity;

function endingOf(plan: Plan, kept: TurnedCase) {
  if (kept.closed === null) return null;
  const ending = walkOfCase(plan, kept)?.ending;
  return ending == null ? null : (plan.endings[ending]?.ending ?? null);
}

function freeCode(db: Store, token: string): string {
  for (;;) {
    const letters = Array.from({ length: CODE_LENGTH }, () => CODE_LETTERS[randomInt(CODE_LETTERS.length)]);
    const code = letters.join('');
    if (findResponse(db, token, { code }) === null) return code;
  }
}

/** Of the questionnaires that were asked for last: making one ready takes longer than a turn. */
const plans = new Map<string, Plan>();
const MOST_PLANS = 20;

function planFor(checksum: string, document: string): Plan {
  let plan = plans.get(checksum);
  if (plan === undefined) {
    const read = readDocumentText(document);
    if (!read.ok) throw new Error(`the questionnaire of a link cannot be read: ${read.problems[0]?.message}`);
    plan = planOf(read.document);
    const [oldest] = plans.keys();
    if (plans.size >= MOST_PLANS && oldest !== undefined) plans.delete(oldest);
    plans.set(checksum, plan);
  }
  return plan;
}
