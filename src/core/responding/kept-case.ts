/**
 * One case that is answered away from the preview, and all that is kept of it: a value that outlives the tab it is answered in.
 * Every change goes through `caseAfter`, which notes the times; nothing in here reads a clock or draws by chance.
 */
import * as v from 'valibot';
import type { Answers } from '../document/types';
import { AnswersSchema, ValueSchema } from '../document/walked';
import type { Plan } from '../routing/plan';
import { followed, NO_SESSION, sessionAfter, type SessionAction, type SessionState } from './session';
import { NOT_SENT, SendingSchema } from './sending';

const Whole = v.pipe(v.number(), v.integer(), v.minValue(0));

const Visit = v.strictObject({
  /** Key of the page (`pagesOf`). */
  page: v.string(),
  /** Key of the first item on it. */
  first: v.string(),
  seconds: v.pipe(v.number(), v.minValue(0)),
});

/** What a browser keeps; times in milliseconds since 1970. */
export const KeptCaseSchema = v.strictObject({
  /** Names it for good: whoever receives it twice takes it once. */
  key: v.pipe(v.string(), v.uuid()),
  /** What it is called by whoever asks. */
  id: v.pipe(v.string(), v.minLength(1), v.maxLength(60)),
  startedAt: Whole,
  /** Null while it is answered. */
  closed: v.nullable(v.strictObject({ at: Whole, by: v.picklist(['ending', 'stop', 'time']) })),
  given: AnswersSchema,
  /** Of what is drawn; below 0 where that is drawn as it was formerly (`routing/chance.ts`). */
  seed: v.pipe(v.number(), v.integer()),
  answers: AnswersSchema,
  /** Items at which the time of their section ran out. */
  timedOut: v.array(v.string()),
  /** Ids of the quotas that were full when this respondent came to them. */
  full: v.array(v.string()),
  at: Whole,
  reached: Whole,
  dropped: v.array(v.strictObject({ key: v.string(), value: ValueSchema })),
  changed: v.array(v.strictObject({ key: v.string(), from: ValueSchema })),
  /** Pages left, in the order in which they were; the one in hand came at `cameAt`. */
  visits: v.array(Visit),
  cameAt: Whole,
  /** When the time of a section with a limit began, by its pass. */
  clocks: v.record(v.string(), Whole),
  isPerson: v.boolean(),
  sending: SendingSchema,
});
export type KeptCase = v.InferOutput<typeof KeptCaseSchema>;

export interface Begun {
  readonly key: string;
  readonly id: string;
  readonly seed: number;
  readonly given: Answers;
}

export function caseBegun(plan: Plan, { key, id, seed, given }: Begun, now: number): KeptCase {
  const begun: KeptCase = {
    key,
    id,
    startedAt: now,
    closed: null,
    given: { ...given },
    seed,
    answers: {},
    timedOut: [],
    full: [],
    at: 0,
    reached: 0,
    dropped: [],
    changed: [],
    visits: [],
    cameAt: now,
    clocks: {},
    isPerson: false,
    sending: NOT_SENT,
  };
  return settled(plan, begun, now);
}

/** The session as it was left: what was tried on a page is forgotten with the tab. */
export function sessionOfCase(kept: KeptCase): SessionState {
  const { answers, at, reached, dropped, changed } = kept;
  return { ...NO_SESSION, walks: 1, answers, at, reached, dropped, changed, inputs: inputsOf(kept) };
}

/** What its walk is given besides answers. */
export function inputsOf({
  seed,
  given,
  timedOut,
  full,
}: Pick<KeptCase, 'seed' | 'given' | 'timedOut' | 'full'>): SessionState['inputs'] {
  return { seed, given, timedOut, full };
}

/**
 * The case and its session after something was done on the page. One that comes to its ending is closed: nothing is changed
 * any more.
 */
export function caseAfter(
  plan: Plan,
  kept: KeptCase,
  session: SessionState,
  action: SessionAction,
  now: number,
): { readonly kept: KeptCase; readonly session: SessionState } {
  if (kept.closed !== null) return { kept, session };
  const after = sessionAfter(session, action);
  const { answers, at, reached, dropped, changed, inputs } = after;
  const moved: KeptCase = {
    ...kept,
    // The very same where nothing was answered: what follows from them is known.
    answers: answers as KeptCase['answers'],
    at,
    reached,
    dropped: [...dropped],
    changed: [...changed],
    timedOut: inputs.timedOut === kept.timedOut ? kept.timedOut : [...(inputs.timedOut ?? [])],
  };
  if (at === kept.at) return { kept: moved, session: after };
  const left = visitOf(plan, kept, now);
  const visited = { ...moved, visits: left === null ? kept.visits : [...kept.visits, left], cameAt: now };
  return { kept: settled(plan, visited, now), session: after };
}

/** Closed though it has come to no ending: whoever answered will not go on, or their time is over. */
export function caseStopped(plan: Plan, kept: KeptCase, now: number, by: 'stop' | 'time' = 'stop'): KeptCase {
  if (kept.closed !== null) return kept;
  const left = visitOf(plan, kept, now);
  return {
    ...kept,
    visits: left === null ? kept.visits : [...kept.visits, left],
    cameAt: now,
    closed: { at: now, by },
  };
}

/** For how long the page in hand was there. Time with the tab closed is not told apart. */
function visitOf(plan: Plan, kept: KeptCase, now: number): v.InferOutput<typeof Visit> | null {
  const page = pagesOfCase(plan, kept)[kept.at];
  if (page === undefined) return null;
  const [first] = page.steps;
  const seconds = Math.max(0, Math.round((now - kept.cameAt) / 100) / 10);
  return { page: page.key, first: first?.key ?? '', seconds };
}

/** Closed where it has come to its ending; the clock of its section begun where it has one. */
export function settled<Kept extends KeptCase>(plan: Plan, kept: Kept, now: number): Kept {
  const { result, pages } = followed(plan, { answers: kept.answers, inputs: inputsOf(kept) });
  const page = pages[kept.at];
  if (page === undefined)
    return result.ok ? { ...kept, at: pages.length, closed: { at: now, by: 'ending' } } : kept;
  const limited = plan.sections[page.section]?.section.timeLimit !== undefined;
  const clock = clockOf(page);
  return limited && kept.clocks[clock] === undefined
    ? { ...kept, clocks: { ...kept.clocks, [clock]: now } }
    : kept;
}

/** Names the clock of a page's section, each pass its own. */
export function clockOf({
  section,
  pass,
}: {
  readonly section: number;
  readonly pass: number | null;
}): string {
  return `${section} ${pass ?? ''}`;
}

export function pagesOfCase(plan: Plan, kept: KeptCase) {
  return followed(plan, { answers: kept.answers, inputs: inputsOf(kept) }).pages;
}
