/** What an author settles about a link under which real respondents answer. */
import * as v from 'valibot';

export const TRIAL_STATES = ['open', 'paused', 'closed'] as const;
export type TrialState = (typeof TRIAL_STATES)[number];

/** As much as is kept of the device somebody answers on: whether its screen is narrow. */
export const DEVICES = ['narrow', 'wide'] as const;
export type Device = (typeof DEVICES)[number];

const At = v.pipe(v.number(), v.integer(), v.minValue(0));

export const TrialSettingsSchema = v.strictObject({
  /** Milliseconds since 1970; left out: at once, or until it is closed. */
  opensAt: v.optional(At),
  closesAt: v.optional(At),
  /** Responses that are begun, at most. */
  mostResponses: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1_000_000))),
  mayGoBack: v.boolean(),
  /** From another browser, by the code they are given. */
  mayReturn: v.boolean(),
});
export type TrialSettings = v.InferOutput<typeof TrialSettingsSchema>;

/** What a link asks for, before the author has said otherwise. */
export const USUAL_TRIAL: TrialSettings = { mayGoBack: true, mayReturn: true };

export interface TrialAt {
  readonly settings: TrialSettings;
  readonly state: TrialState;
  /** Responses begun. */
  readonly begun: number;
}

/** Why nobody can begin under a link at a moment, as a sentence to them; null where they can. */
export function closedWords({ settings, state, begun }: TrialAt, now: number): string | null {
  const { opensAt, closesAt, mostResponses } = settings;
  if (state === 'closed' || (closesAt !== undefined && now >= closesAt))
    return 'This questionnaire is closed. Thank you for your interest.';
  if (state === 'paused') return 'This questionnaire is paused. Please come back later.';
  if (opensAt !== undefined && now < opensAt)
    return `This questionnaire opens on ${new Date(opensAt).toISOString().slice(0, 16).replace('T', ' at ')} UTC.`;
  if (mostResponses !== undefined && begun >= mostResponses)
    return 'As many people as were asked for have answered this questionnaire. Thank you for your interest.';
  return null;
}

/** Why somebody under way cannot go on: what was begun in time may be finished until the link closes. */
export function haltedWords(trial: TrialAt, now: number): string | null {
  const { settings, state } = trial;
  const { closesAt } = settings;
  if (state === 'open' && (closesAt === undefined || now < closesAt)) return null;
  return closedWords(trial, now);
}
