/** Links under which real respondents answer: made of a version or of the draft, opened, paused and closed. */
import { createHash, randomBytes, randomInt } from 'node:crypto';
import { and, asc, desc, eq, getTableColumns, isNull, sql } from 'drizzle-orm';
import { writeDocument } from '../core/document/read';
import type { Questionnaire } from '../core/document/types';
import type { TrialSettings, TrialState } from '../core/responding/trial-settings';
import type { Store } from './open';
import { prepared } from './prepared';
import { followUps, studies, trials } from './schema';

/** A link without its questionnaire. */
export type Trial = Omit<typeof trials.$inferSelect, 'document' | 'seed'>;

/** Bytes of chance in a token: 144 bits, in an address short enough for a QR code. */
const CHANCE = 18;
const MOST_SEEDS = 2 ** 31;

const { document: _document, seed: _seed, ...CARD } = getTableColumns(trials);

/** The newest first. */
export function listTrials(db: Store, studyId: string): Trial[] {
  return db
    .select(CARD)
    .from(trials)
    .where(eq(trials.studyId, studyId))
    .orderBy(desc(trials.createdAt), desc(trials.token))
    .all();
}

/** A questionnaire of a link: its own, or one that is handed on to. */
export interface TrialQuestionnaire {
  /** Null of a draft. */
  readonly version: number | null;
  readonly document: Questionnaire;
}

export interface TrialToAdd extends TrialQuestionnaire {
  readonly name: string;
  readonly settings: TrialSettings;
  readonly followUps: readonly (TrialQuestionnaire & {
    /** As endings name it. */
    readonly named: string;
  })[];
}

export type FollowUp = Omit<typeof followUps.$inferSelect, 'token'>;

/** Keeps the questionnaires as they are now: what is edited later changes nothing for those who answer. */
export function addTrial(db: Store, studyId: string, toAdd: TrialToAdd, at: number): Trial {
  const own = asKept(toAdd);
  const trial: Trial = {
    token: randomBytes(CHANCE).toString('base64url'),
    studyId,
    name: toAdd.name,
    version: toAdd.version,
    checksum: own.checksum,
    settings: toAdd.settings,
    state: 'open',
    begun: 0,
    declined: 0,
    removed: 0,
    createdAt: at,
  };
  db.transaction((tx) => {
    tx.insert(trials)
      .values({ ...trial, document: own.document, seed: randomInt(MOST_SEEDS) })
      .run();
    toAdd.followUps.forEach(({ named, ...of }, n) =>
      tx
        .insert(followUps)
        .values({ token: trial.token, number: n + 1, named, begun: 0, ...asKept(of) })
        .run(),
    );
  });
  return trial;
}

function asKept(of: TrialQuestionnaire) {
  const document = writeDocument(of.document);
  return { version: of.version, document, checksum: createHash('sha256').update(document).digest('hex') };
}

/** What those who answer are handed on to, by number. */
export function listFollowUps(db: Store, token: string): FollowUp[] {
  const { token: _token, ...columns } = getTableColumns(followUps);
  return db
    .select(columns)
    .from(followUps)
    .where(eq(followUps.token, token))
    .orderBy(asc(followUps.number))
    .all();
}

/** The questionnaire of a link by its number, 0 for its own; null where it has none of that number. */
export function questionnaireOf(
  db: Store,
  trial: FoundTrial,
  number: number,
): { readonly document: string; readonly checksum: string; readonly version: number | null } | null {
  if (number === 0) return trial;
  return listFollowUps(db, trial.token).find((each) => each.number === number) ?? null;
}

/** False where the study has no such link. */
export function changeTrial(
  db: Store,
  studyId: string,
  token: string,
  change: { readonly state?: TrialState; readonly settings?: TrialSettings; readonly name?: string },
): boolean {
  const found = and(eq(trials.studyId, studyId), eq(trials.token, token));
  return db.update(trials).set(change).where(found).run().changes > 0;
}

/** With what it asks. */
export type FoundTrial = Trial & { readonly document: string; readonly seed: number };

const byToken = prepared((db) =>
  db
    .select(getTableColumns(trials))
    .from(trials)
    .innerJoin(studies, eq(studies.id, trials.studyId))
    .where(and(eq(trials.token, sql.placeholder('token')), isNull(studies.removedAt)))
    .prepare(),
);

/** To a respondent a link that was never made and one to a removed study are one: null. */
export function findTrial(db: Store, token: string): FoundTrial | null {
  return byToken(db).get({ token }) ?? null;
}
