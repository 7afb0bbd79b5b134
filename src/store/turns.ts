/**
 * Turns of respondents, taken one at a time: each is one transaction, kept whole or not at all, so that no two respondents take the
 * last place of a quota.
 */
import { and, count, eq, gt, isNotNull, ne, or } from 'drizzle-orm';
import { ENDINGS } from '../core/document/vocabularies';
import { handedOn } from '../core/responding/hand-on';
import { canBegin } from '../core/responding/people';
import { AWAY, endOfTime, haltedWords } from '../core/responding/trial-settings';
import {
  turnTaken,
  withoutPlaces,
  type Turn,
  type TurnedCase,
  type TurnTaken,
} from '../core/responding/turn';
import type { Plan } from '../core/routing/plan';
import { humanCheckOf } from '../core/wording/human-check';
import { countOnly } from './counted';
import type { Store } from './open';
import { settlePerson } from './people';
import {
  armsFor,
  closingOf,
  findResponse,
  findSitting,
  keyOf,
  nextPart,
  sittingBegan,
  type StoredResponse,
} from './responses';
import { followUps, places, responses } from './schema';
import { trialPlan } from './trial-plans';
import { findTrial, listFollowUps, questionnaireOf, type FoundTrial } from './trials';

type Transaction = Parameters<Parameters<Store['transaction']>[0]>[0];

export type TurnStored =
  | (TurnTaken & {
      /** Where the sitting stands after it; of whoever has declined, what was taken last and is kept no more. */
      readonly response: StoredResponse;
    })
  | {
      readonly ok: false;
      readonly response: StoredResponse | null;
      /** `unchecked`: nobody has shown yet that a person answers. */
      readonly why: 'no-response' | 'halted' | 'unchecked';
      readonly message: string;
    };

/** Questionnaires that hand on to each other in a ring end after so many. */
const MOST_PARTS = 10;

export const NOT_KNOWN = 'These answers are not known here: begin anew.';

/**
 * Takes a turn of a respondent. Where it ends as declined, nothing stays of them but the count; where it hands on, the next part
 * is begun. Throws where a link's questionnaire cannot be read.
 */
export function storeTurn(db: Store, token: string, id: string, turn: Turn, now: number): TurnStored {
  return db.transaction(
    (tx): TurnStored => {
      const asked = askedOf(db, token, id);
      if (asked === null) return { ok: false, why: 'no-response', message: NOT_KNOWN, response: null };
      const { trial, stored, plan } = asked;
      const halted = haltedWords(trial, now);
      if (halted !== null && stored.kept.closed === null)
        return { ok: false, why: 'halted', message: halted, response: stored };
      if (isChecked(trial, plan) && !stored.kept.isPerson)
        return {
          ...{ ok: false, why: 'unchecked', message: 'Please solve the small task first.' },
          response: stored,
        };
      const isFull = (quota: string) => othersIn(db, stored, quota, now) >= targetOf(plan, quota);
      // Whoever was away for so long may lose their place in a quota to others.
      const wasAway = now - stored.changedAt > AWAY;
      const lost = wasAway ? stored.kept.held.filter(isFull) : [];
      const kept = withoutPlaces(plan, stored.kept, lost, now);
      const taken = turnTaken(plan, kept, turn, {
        now,
        isFull,
        mayGoBack: trial.settings.mayGoBack,
        endsAt: endOfTime(trial.settings, sittingBegan(db, stored)),
      });
      const after = taken.ok ? taken.kept : kept;
      if (after !== stored.kept)
        return { ...taken, response: keep(db, tx, { trial, stored, plan }, after, now) };
      // Asked for again after it had handed on: they stand further on by now.
      const isLast = stored.kept.closed === null;
      return { ...taken, response: isLast ? stored : (findSitting(db, token, { id }) ?? stored) };
    },
    { behavior: 'immediate' },
  );
}

/** Notes that somebody has solved the task that shows a person; false where they have not, or are not known. */
export function passHumanCheck(
  db: Store,
  token: string,
  id: string,
  { tries, written }: { readonly tries: number; readonly written: string },
): boolean {
  const stored = findResponse(db, token, id);
  if (stored === null || !humanCheckOf(stored.kept.seed + tries).solves(written)) return false;
  const kept: TurnedCase = { ...stored.kept, isPerson: true };
  return db.update(responses).set({ kept }).where(eq(responses.id, id)).run().changes > 0;
}

/** Whether a link asks respondents to show that a person answers. */
export function isChecked({ settings }: Pick<FoundTrial, 'settings'>, plan: Plan): boolean {
  return settings.humanCheck ?? plan.document.settings?.humanCheck ?? false;
}

interface Asked {
  readonly trial: FoundTrial;
  readonly stored: StoredResponse;
  readonly plan: Plan;
}

function askedOf(db: Store, token: string, id: string): Asked | null {
  const trial = findTrial(db, token);
  const stored = trial === null ? null : findResponse(db, token, id);
  const questionnaire = trial && stored && questionnaireOf(db, trial, stored.questionnaire);
  return trial && stored && questionnaire ? { trial, stored, plan: trialPlan(questionnaire) } : null;
}

function keep(
  db: Store,
  tx: Transaction,
  { trial, stored, plan }: Asked,
  after: TurnedCase,
  now: number,
): StoredResponse {
  const { id, token } = stored;
  const closing = closingOf(plan, after);
  const key = keyOf(stored);
  if (key !== null && stored.part === 0 && closing.closedBy !== null) settlePerson(tx, key);
  const kind = plan.endings.find(({ ending }) => ending.id === closing.ending)?.ending.kind ?? null;
  if (kind !== null && ENDINGS[kind].keepsNothing) {
    tx.delete(responses).where(eq(responses.id, id)).run();
    // Of those who have begun: whoever declines a follow-up only has answered before.
    if (stored.part === 0) countOnly(tx, token, 'declined', [now]);
    return { ...stored, kept: after };
  }
  tx.update(responses)
    .set({ kept: after, changedAt: now, ...closing })
    .where(eq(responses.id, id))
    .run();
  if (stored.kept.held.length > 0) tx.delete(places).where(eq(places.responseId, id)).run();
  const holds = kind === null || ENDINGS[kind].counts ? after.held : [];
  if (holds.length > 0)
    tx.insert(places)
      .values(holds.map((quota) => ({ responseId: id, token, quota })))
      .run();
  const changed = { ...stored, kept: after, changedAt: now, ...closing };
  return stored.kept.closed === null && closing.closedBy === 'ending'
    ? (handOn(db, tx, { trial, stored, plan }, after, now) ?? changed)
    : changed;
}

/** Begins the questionnaire that an ending hands on to; null where it hands on to none that can be begun with what is carried. */
function handOn(
  db: Store,
  tx: Transaction,
  { trial, stored, plan }: Asked,
  after: TurnedCase,
  now: number,
): StoredResponse | null {
  const handed = handedOn(plan, after);
  if (handed === null || stored.part + 1 >= MOST_PARTS) return null;
  const to = listFollowUps(db, trial.token).find(({ named }) => named === handed.to);
  if (to === undefined) return null;
  const next = trialPlan(to);
  const taken = new Set((next.document.given ?? []).map(({ name }) => name));
  const carried = Object.entries(handed.carried).filter(([name]) => taken.has(name));
  const given = { ...armsFor(next, to.begun, trial.seed + to.number), ...Object.fromEntries(carried) };
  if (!canBegin(next, given)) return null;
  const begun = nextPart(stored, { plan: next, questionnaire: to.number, given }, now);
  tx.insert(responses).values(begun).run();
  tx.update(followUps)
    .set({ begun: to.begun + 1 })
    .where(and(eq(followUps.token, trial.token), eq(followUps.number, to.number)))
    .run();
  return begun;
}

/** Others who take a place in a quota: complete, or under way and not long away. */
function othersIn(
  db: Store,
  { id, token, questionnaire }: StoredResponse,
  quota: string,
  now: number,
): number {
  const found = db
    .select({ count: count() })
    .from(places)
    .innerJoin(responses, eq(responses.id, places.responseId))
    .where(
      and(
        eq(places.token, token),
        eq(places.quota, quota),
        eq(responses.questionnaire, questionnaire),
        ne(places.responseId, id),
        or(isNotNull(responses.ending), gt(responses.changedAt, now - AWAY)),
      ),
    )
    .get();
  return found?.count ?? 0;
}

const targetOf = (plan: Plan, quota: string) =>
  plan.document.quotas?.find(({ id }) => id === quota)?.target ?? Infinity;
