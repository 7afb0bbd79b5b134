/** Links under which respondents answer, as their authors make and watch them. */
import * as v from 'valibot';
import { AssumeSchema } from '../core/document/schema';
import { person } from '../core/exchange/work-records';
import { TRIAL_STATES, TrialSettingsSchema } from '../core/responding/trial-settings';

const Name = person('say what the link is for');

export const TrialSchema = v.object({
  token: v.string(),
  name: v.string(),
  /** Number of the version; null of a draft. */
  version: v.nullable(v.number()),
  settings: TrialSettingsSchema,
  state: v.picklist(TRIAL_STATES),
  /** Whether the moment has passed at which it closes by itself. */
  isOver: v.boolean(),
  /** Whether its people are made up: it has a clock of its own. */
  isPanel: v.boolean(),
  createdAt: v.number(),
  /** How many have begun; of them those who declined, and those who stopped and were not kept, are in `declined` and `removed`. */
  begun: v.number(),
  declined: v.number(),
  removed: v.number(),
  complete: v.number(),
  /** Who came to another ending than a complete one, or whose time was over. */
  elsewhere: v.number(),
  /** People with a link of their own. */
  people: v.number(),
  /** Titles of the questionnaires that are handed on to, and how many were. */
  followUps: v.array(v.object({ number: v.number(), title: v.string(), begun: v.number() })),
});
export type Trial = v.InferOutput<typeof TrialSchema>;

export const TrialToMake = v.strictObject({
  name: Name,
  version: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1))),
  settings: TrialSettingsSchema,
});

export const TrialToChange = v.strictObject({
  token: v.string(),
  state: v.exactOptional(v.picklist(TRIAL_STATES)),
  settings: v.exactOptional(TrialSettingsSchema),
});

/** The text of a CSV file. */
export const PeopleToAdd = v.strictObject({ csv: v.pipe(v.string(), v.maxLength(5_000_000)) });

export const PeopleAdded = v.object({
  added: v.number(),
  /** Headings of columns that were not used. */
  unused: v.array(v.string()),
});

export const PeopleListed = v.array(v.object({ name: v.string(), key: v.string() }));

/** Shares that were seen under a link, by the name of the question, with how often it was asked. */
export const SeenSharesSchema = v.object({
  responses: v.number(),
  shares: v.record(v.string(), v.object({ base: v.number(), assume: AssumeSchema })),
});
