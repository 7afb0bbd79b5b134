/** Links under which real respondents answer: made of a version or of the draft, opened, paused and closed. */
import { createHash, randomBytes, randomInt } from 'node:crypto';
import { desc, eq, getTableColumns, and, isNull } from 'drizzle-orm';
import { writeDocument } from '../core/document/read';
import type { Questionnaire } from '../core/document/types';
import type { TrialSettings, TrialState } from '../core/responding/trial-settings';
import type { Store } from './open';
import { studies, trials } from './schema';

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

export interface TrialToAdd {
  readonly name: string;
  /** Null of the draft. */
  readonly version: number | null;
  readonly document: Questionnaire;
  readonly settings: TrialSettings;
}

/** Keeps the questionnaire as it is now: what is edited later changes nothing for those who answer. */
export function addTrial(db: Store, studyId: string, toAdd: TrialToAdd, at: number): Trial {
  const document = writeDocument(toAdd.document);
  const trial: Trial = {
    token: randomBytes(CHANCE).toString('base64url'),
    studyId,
    name: toAdd.name,
    version: toAdd.version,
    checksum: createHash('sha256').update(document).digest('hex'),
    settings: toAdd.settings,
    state: 'open',
    begun: 0,
    declined: 0,
    createdAt: at,
  };
  db.insert(trials)
    .values({ ...trial, document, seed: randomInt(MOST_SEEDS) })
    .run();
  return trial;
}

/** False where the study has no such link. */
export function changeTrial(
  db: Store,
  studyId: string,
  token: string,
  change: { readonly state?: TrialState; readonly settings?: TrialSettings },
): boolean {
  const found = and(eq(trials.studyId, studyId), eq(trials.token, token));
  return db.update(trials).set(change).where(found).run().changes > 0;
}

/** To a respondent a link that was never made and one to a removed study are one: null. */
export function findTrial(
  db: Store,
  token: string,
): (Trial & { readonly document: string; readonly seed: number }) | null {
  const found = db
    .select(getTableColumns(trials))
    .from(trials)
    .innerJoin(studies, eq(studies.id, trials.studyId))
    .where(and(eq(trials.token, token), isNull(studies.removedAt)))
    .get();
  return found ?? null;
}
