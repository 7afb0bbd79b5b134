/** What an author settles about a link under which real respondents answer. */
import * as v from 'valibot';

export const TRIAL_STATES = ['open', 'paused', 'closed'] as const;
export type TrialState = (typeof TRIAL_STATES)[number];

/** As much as is kept of the device somebody answers on: whether its screen is narrow. */
export const DEVICES = ['narrow', 'wide'] as const;
export type Device = (typeof DEVICES)[number];

/**
 * By what a person is told from others. `anyone`: not at all. `browser`: by a number that the page keeps in their browser.
 * `personal`: by a link of their own; nobody else can answer.
 */
export const TOLD_APART = ['anyone', 'browser', 'personal'] as const;
export type ToldApart = (typeof TOLD_APART)[number];

/** What becomes of what somebody answered who does not go on. */
export const STOPPED_DATA = ['keep', 'remove'] as const;

/** Whoever sent their last page longer ago than this is not at it any more, in milliseconds. */
export const AWAY = 30 * 60_000;

const At = v.pipe(v.number(), v.integer(), v.minValue(0));
const between = (least: number, most: number, problem: string) =>
  v.pipe(v.number(problem), v.integer(problem), v.minValue(least, problem), v.maxValue(most, problem));
const Message = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1),
  v.maxLength(2000, 'a message has at most 2,000 characters'),
);

export const TrialSettingsSchema = v.pipe(
  v.strictObject({
    /** Milliseconds since 1970; left out: at once, or until it is closed. */
    opensAt: v.exactOptional(At),
    closesAt: v.exactOptional(At),
    /** Responses that are begun, at most. */
    mostResponses: v.exactOptional(
      between(1, 1_000_000, 'the number of responses is a whole number from 1 to 1,000,000'),
    ),
    toldApart: v.picklist(TOLD_APART),
    /** How often one person may answer, where they are told apart. */
    attempts: between(1, 100, 'attempts are a whole number from 1 to 100'),
    /** Whole minutes for all of it, from the first page on; left out: as long as it takes. */
    minutes: v.exactOptional(between(1, 1440, 'the time for the whole is from 1 to 1,440 minutes')),
    mayGoBack: v.boolean(),
    /** From another browser, by the code they are given or their own link. */
    mayReturn: v.boolean(),
    /** Left out: as the questionnaire says. */
    humanCheck: v.exactOptional(v.boolean()),
    /** Of the page (BCP 47); left out: that of the questionnaire. */
    language: v.exactOptional(
      v.pipe(v.string(), v.maxLength(60), v.check(isLanguageTag, 'a language is a tag like en-GB or cy')),
    ),
    /** Shown at the end, under the message of the ending. */
    closing: v.exactOptional(Message),
    /** Shown to whoever comes when it is closed, in the place of a sentence of ours. */
    whenClosed: v.exactOptional(Message),
    stopped: v.picklist(STOPPED_DATA),
    /** Hours without a page after which somebody counts as having stopped. */
    stoppedAfter: between(1, 2160, 'somebody counts as stopped after 1 to 2,160 hours'),
    /** Of the one site that may show it inside of a page of its own. */
    embeddedIn: v.exactOptional(
      v.pipe(
        v.string(),
        v.check((text) => siteOf(text) === text, 'a site is written like https://example.org'),
      ),
    ),
    /** Whether a line at the foot names what the page was made with. */
    signed: v.boolean(),
    /** Id of a section: whoever leaves after coming to it counts as a partial interview; left out: nobody does. */
    partialFrom: v.exactOptional(v.pipe(v.string(), v.maxLength(200))),
  }),
  v.check(
    ({ opensAt, closesAt }) => opensAt === undefined || closesAt === undefined || opensAt < closesAt,
    'a link opens before it closes',
  ),
);
export type TrialSettings = v.InferOutput<typeof TrialSettingsSchema>;

/** What a link asks for, before the author has said otherwise. */
export const USUAL_TRIAL: TrialSettings = {
  toldApart: 'anyone',
  attempts: 1,
  mayGoBack: true,
  mayReturn: true,
  stopped: 'keep',
  stoppedAfter: 24,
  signed: true,
};

function isLanguageTag(text: string): boolean {
  try {
    return Intl.getCanonicalLocales(text).length === 1;
  } catch {
    return false;
  }
}

/** The site of an address as a browser names it, `https://example.org`; null where it is none. */
export function siteOf(written: string): string | null {
  const text = written.trim();
  if (!URL.canParse(text)) return null;
  const { origin, protocol } = new URL(text);
  return protocol === 'https:' || protocol === 'http:' ? origin : null;
}

export interface TrialAt {
  readonly settings: TrialSettings;
  readonly state: TrialState;
  /** Responses begun. */
  readonly begun: number;
}

/** Why nobody can begin under a link at a moment, as a sentence to them; null where they can. */
export function closedWords({ settings, state, begun }: TrialAt, now: number): string | null {
  const { opensAt, closesAt, mostResponses, whenClosed } = settings;
  if (state === 'closed' || (closesAt !== undefined && now >= closesAt))
    return whenClosed ?? 'This questionnaire is closed. Thank you for your interest.';
  if (state === 'paused') return 'This questionnaire is paused. Please come back later.';
  if (opensAt !== undefined && now < opensAt)
    return `This questionnaire opens on ${new Date(opensAt).toISOString().slice(0, 16).replace('T', ' at ')} UTC.`;
  if (mostResponses !== undefined && begun >= mostResponses)
    return (
      whenClosed ??
      'As many people as were asked for have answered this questionnaire. Thank you for your interest.'
    );
  return null;
}

/** Why somebody under way cannot go on: what was begun in time may be finished until the link closes. */
export function haltedWords(trial: TrialAt, now: number): string | null {
  const { settings, state } = trial;
  const { closesAt } = settings;
  if (state === 'open' && (closesAt === undefined || now < closesAt)) return null;
  return closedWords(trial, now);
}

/** When the time for the whole is over, for a sitting that began at a moment; null where there is no limit. */
export function endOfTime({ minutes }: TrialSettings, startedAt: number): number | null {
  return minutes === undefined ? null : startedAt + minutes * 60_000;
}

/** Whether somebody who sent their last page at a moment counts as having stopped. */
export function hasStopped({ stoppedAfter }: TrialSettings, changedAt: number, now: number): boolean {
  return now - changedAt > stoppedAfter * 3_600_000;
}
