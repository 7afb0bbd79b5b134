/**
 * One turn of a respondent whose page is somewhere else: what a page sent, held against the walk of the answers that are kept
 * here, and taken whole or refused whole. A page is never believed: which questions it may answer, which answers they allow,
 * and where it goes from there follows from what is kept.
 */
import * as v from 'valibot';
import { holds } from '../condition/evaluate';
import { passKey, readPassKey } from '../document/addresses';
import { AnswersSchema } from '../document/walked';
import { isBlank } from '../routing/answers';
import type { Plan } from '../routing/plan';
import type { Walk } from '../routing/walk';
import {
  caseAfter,
  caseStopped,
  clockOf,
  inputsOf,
  KeptCaseSchema,
  pagesOfCase,
  sessionOfCase,
  settled,
  type KeptCase,
} from './kept-case';
import { followed, type SessionAction } from './session';

const MOST_ANSWERS = 2000;
const Whole = v.pipe(v.number(), v.integer(), v.minValue(0));

/** What a page sends. */
export const TurnSchema = v.strictObject({
  /** One more than that of the turn before; the same where it is sent again. */
  turn: v.pipe(Whole, v.minValue(1)),
  /** Made up by the page for this turn: tells one that is sent again from that of another tab. */
  key: v.pipe(v.string(), v.uuid()),
  /** Key of the page that was answered. */
  page: v.pipe(v.string(), v.maxLength(100)),
  answers: v.pipe(
    AnswersSchema,
    v.check((answers) => Object.keys(answers).length <= MOST_ANSWERS, 'too many answers for a page'),
  ),
  /** `time-out`: of the section; `over`: the time for the whole. */
  go: v.picklist(['next', 'back', 'time-out', 'over']),
});
export type Turn = v.InferOutput<typeof TurnSchema>;

/** A case that is answered by turns. */
export const TurnedCaseSchema = v.strictObject({
  ...KeptCaseSchema.entries,
  /** How many turns were taken, and the key of the last. */
  turns: Whole,
  lastTurn: v.nullable(v.string()),
  /** Of the quotas that were looked at: those that took this respondent in. The others that were are in `full`. */
  held: v.array(v.string()),
});
export type TurnedCase = v.InferOutput<typeof TurnedCaseSchema>;

export type TurnTaken =
  | { readonly ok: true; readonly kept: TurnedCase; readonly again: boolean }
  | { readonly ok: false; readonly why: RefusedTurn; readonly message: string };

/**
 * `elsewhere`: of a page that is not the one in hand, as of a second tab; what is kept is to be shown anew. `closed`: nothing can
 * be changed any more. `unfinished`: something keeps the respondent on the page. The others no page of ours sends.
 */
export type RefusedTurn = 'elsewhere' | 'closed' | 'unfinished' | 'not-asked' | 'not-allowed' | 'no-limit';

export interface TurnMeans {
  /** Milliseconds since 1970. */
  readonly now: number;
  /** Whether a quota is full for one more; asked once a respondent for each, when they first come to it. */
  readonly isFull: (quota: string) => boolean;
  readonly mayGoBack: boolean;
  /** When the time for the whole is over; null where there is no limit. */
  readonly endsAt: number | null;
}

export function turnedCase(kept: KeptCase): TurnedCase {
  return { ...kept, turns: 0, lastTurn: null, held: [] };
}

/** Takes a turn, or says why not; `again`: it had been taken before, and nothing is other than it was. */
export function turnTaken(plan: Plan, kept: TurnedCase, turn: Turn, means: TurnMeans): TurnTaken {
  const refuse = (why: RefusedTurn, message: string) => ({ ok: false, why, message }) as const;
  if (turn.turn === kept.turns && turn.key === kept.lastTurn) return { ok: true, kept, again: true };
  if (kept.closed !== null)
    return refuse('closed', 'The questionnaire is over: nothing is changed any more.');
  const page = pagesOfCase(plan, kept)[kept.at];
  if (turn.turn !== kept.turns + 1 || page === undefined || page.key !== turn.page)
    return refuse(
      'elsewhere',
      'This questionnaire was gone on with in another place: here is where it stands.',
    );
  const { endsAt } = means;
  // Much too late: what was on the page is not taken any more.
  if (endsAt !== null && means.now >= endsAt + LATE)
    return { ok: true, kept: { ...timeOver(plan, kept, means.now), ...counted(turn) }, again: false };
  if (turn.go === 'over' && (endsAt === null || means.now < endsAt - GRACE))
    return refuse('no-limit', 'The time for this questionnaire is not over.');
  if (turn.go === 'back' && (!means.mayGoBack || kept.at === 0))
    return refuse('not-allowed', 'There is no way back from this page.');

  const answered = withAnswers(plan, kept, turn, means.now);
  const { result, pages } = followed(plan, { answers: answered.answers, inputs: inputsOf(answered) });
  const now = pages[answered.at];
  if (!result.ok || now?.key !== turn.page)
    return refuse('not-asked', 'The answers lead away from the page that they were given on.');
  const asked = new Set(now.steps.flatMap((step) => step.parts.map(({ name }) => passKey(name, step.pass))));
  const shown = new Set(now.steps.map(({ key }) => key));
  const stray = Object.entries(turn.answers).find(
    ([key, value]) => !isBlank(value) && !isAskedFor(key, asked, shown),
  );
  if (stray !== undefined)
    return refuse('not-asked', `Nothing on this page asks for “${stray[0].slice(0, 60)}”.`);
  const faults = now.steps.flatMap((step) => step.faults);
  const wrong = faults.find(({ kind }) => kind === 'not-allowed');
  if (wrong !== undefined) return refuse('not-allowed', wrong.message);
  if (turn.go === 'time-out' && !timeIsOver(plan, answered, now.section, now.pass, means.now))
    return refuse('no-limit', 'The time for this section is not over.');
  const keeps = turn.go === 'next' ? faults.find(({ kind }) => kind !== 'soft') : undefined;
  if (keeps !== undefined) return refuse('unfinished', keeps.message);

  // Whatever was pressed: the page in hand is the last.
  if (turn.go === 'over' || (endsAt !== null && means.now >= endsAt + GRACE))
    return { ok: true, kept: { ...timeOver(plan, answered, means.now), ...counted(turn) }, again: false };
  const gone = went(plan, answered, turn.go, result.walk, means);
  // Whoever has gone out of a quota gives the place back, and asks for one anew if they come again.
  return { ok: true, kept: { ...gone, ...counted(turn), held: placesTaken(plan, gone) }, again: false };
}

const counted = ({ turn, key }: Turn) => ({ turns: turn, lastTurn: key });

/** With the answers of a turn; nothing moves. */
function withAnswers(plan: Plan, kept: TurnedCase, turn: Turn, now: number): TurnedCase {
  const before = kept.answers;
  const actions = Object.entries(turn.answers)
    .filter(([key, value]) => JSON.stringify(before[key] ?? null) !== JSON.stringify(value))
    .map(([key, value]): SessionAction => ({ do: 'answer', key, value }));
  let session = sessionOfCase(kept);
  let after: KeptCase = kept;
  for (const action of actions) ({ kept: after, session } = caseAfter(plan, after, session, action, now));
  return { ...kept, ...after };
}

/** A variable of the page, the text beside an option of one, or the remark on one. */
function isAskedFor(key: string, asked: ReadonlySet<string>, shown: ReadonlySet<string>): boolean {
  if (asked.has(key)) return true;
  const { name, pass } = readPassKey(key);
  const owner = name.replace(/_(comment|-?\d+_text)$/, '');
  return owner !== name && (asked.has(passKey(owner, pass)) || shown.has(passKey(owner, pass)));
}

/** A clock that runs on a phone is never quite that of a server. */
const GRACE = 3000;
/** For so long after the end the page in hand may still be on its way, in milliseconds. */
const LATE = 60_000;

/** Closed where it stands; places in quotas stay until they count as given up. */
const timeOver = (plan: Plan, kept: TurnedCase, now: number): TurnedCase => ({
  ...kept,
  ...caseStopped(plan, kept, now, 'time'),
});

function timeIsOver(plan: Plan, kept: KeptCase, section: number, pass: number | null, now: number): boolean {
  const limit = plan.sections[section]?.section.timeLimit;
  const begun = kept.clocks[clockOf({ section, pass })];
  return limit !== undefined && begun !== undefined && now >= begun + limit * 1000 - GRACE;
}

/** On, back, or to the end of the section; quotas that are met on the way on are looked at. */
function went(
  plan: Plan,
  kept: TurnedCase,
  go: Exclude<Turn['go'], 'over'>,
  walked: Walk,
  means: TurnMeans,
): TurnedCase {
  const page = pagesOfCase(plan, kept)[kept.at];
  const decided = go === 'next' ? quotasMet(plan, kept, walked, means) : kept;
  const session = sessionOfCase(decided);
  const { offRoute } = followed(plan, { answers: decided.answers, inputs: inputsOf(decided) });
  // Of a page in random order, the one that stands last in the questionnaire.
  const last = walked.steps.findLast(({ key }) => page?.steps.some((step) => step.key === key));
  const action: SessionAction =
    go === 'time-out'
      ? { do: 'time-out', key: last?.key ?? '' }
      : go === 'next'
        ? { do: 'go', to: decided.at + 1, drop: offRoute }
        : { do: 'go', to: decided.at - 1, drop: [] };
  return { ...decided, ...caseAfter(plan, decided, session, action, means.now).kept };
}

/**
 * Looks at every quota that the respondent has come to and was not held or turned away by yet, one after the other: where one is
 * full they go elsewhere, and come to others.
 */
function quotasMet(plan: Plan, kept: TurnedCase, walked: Walk, means: TurnMeans): TurnedCase {
  let now = kept;
  let along = walked;
  for (;;) {
    const seen = new Set(
      pagesOfCase(plan, now)
        .slice(0, now.at + 1)
        .flatMap(({ steps }) => steps.map(({ key }) => key)),
    );
    const met = along.steps
      .filter(({ key }) => seen.has(key))
      .flatMap((step) => quotasAt(along, step))
      .find((id) => !now.full.includes(id) && !now.held.includes(id));
    if (met === undefined) return now;
    now = means.isFull(met) ? { ...now, full: [...now.full, met] } : { ...now, held: [...now.held, met] };
    const again = followed(plan, { answers: now.answers, inputs: inputsOf(now) }).result;
    if (!again.ok) return now;
    along = again.walk;
  }
}

/** Ids of the quotas at an item that the respondent comes to: up to the one that turns them away, if one does. */
function quotasAt({ environment }: Walk, { planItem, pass, departure }: Walk['steps'][number]): string[] {
  if (departure?.by === 'time-out') return [];
  const there = environment(planItem.section, pass);
  const met = planItem.quotas.filter((quota) => holds(quota.if, there)).map(({ id }) => id);
  return departure?.by === 'quota' ? met.slice(0, met.indexOf(departure.quota.id) + 1) : met;
}

/**
 * The quotas that a respondent takes a place in: those that have let them in and still hold for them on their route.
 */
export function placesTaken(plan: Plan, kept: TurnedCase): string[] {
  const walked = followed(plan, { answers: kept.answers, inputs: inputsOf(kept) }).result;
  if (!walked.ok) return [];
  const met = new Set(walked.walk.steps.flatMap((step) => quotasAt(walked.walk, step)));
  return kept.held.filter((id) => met.has(id));
}

/**
 * After places in quotas went to others, as of somebody who was away for long: those quotas are full to them, and they go on
 * from there, perhaps at once to their ending.
 */
export function withoutPlaces(
  plan: Plan,
  kept: TurnedCase,
  lost: readonly string[],
  now: number,
): TurnedCase {
  if (lost.length === 0 || kept.closed !== null) return kept;
  const without: TurnedCase = {
    ...kept,
    held: kept.held.filter((id) => !lost.includes(id)),
    full: [...kept.full, ...lost],
  };
  return settled(plan, without, now);
}
