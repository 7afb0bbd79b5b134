/** What travels between a respondent's page and the server: who begins, what was answered, and where they are led. */
import * as v from 'valibot';
import { PageCaseSchema } from '../core/responding/page-case';
import { DEVICES, STOPPED_DATA, TOLD_APART } from '../core/responding/trial-settings';
import { TurnSchema } from '../core/responding/turn';

const Id = v.pipe(v.string(), v.uuid());
const Key = v.nullable(v.pipe(v.string(), v.maxLength(60)));
const Whole = v.pipe(v.number(), v.integer(), v.minValue(0));

export const ToBeginSchema = v.strictObject({
  ticket: Id,
  device: v.picklist(DEVICES),
  browser: v.nullable(Id),
  key: Key,
});

export const ToResumeSchema = v.union([
  v.strictObject({ id: Id }),
  v.strictObject({ code: v.pipe(v.string(), v.maxLength(40)) }),
]);

export const HumanCheckSolved = v.strictObject({
  id: Id,
  tries: v.pipe(Whole, v.maxValue(1000)),
  written: v.pipe(v.string(), v.maxLength(60)),
});

export const TurnOfSchema = v.strictObject({ id: Id, turn: TurnSchema });

/** Where somebody stands. */
export const SittingSchema = v.strictObject({
  /** By the server's clock, in milliseconds since 1970. */
  now: v.number(),
  /** Of the part in hand. */
  id: Id,
  questionnaire: Whole,
  /** A questionnaire that they were handed on to, as its file has it. */
  document: v.exactOptional(v.unknown()),
  /** To come back with; null where nobody may. */
  code: v.nullable(v.string()),
  /** When the time for the whole is over; null where there is no limit. */
  endsAt: v.nullable(v.number()),
  /** Whether the task is to be solved that shows a person. */
  toCheck: v.boolean(),
  kept: PageCaseSchema,
});
export type Sitting = v.InferOutput<typeof SittingSchema>;

export const WHY_REFUSED = [
  'no-link',
  'closed',
  'answered',
  'elsewhere',
  'stranger',
  'no-response',
  'halted',
  'unchecked',
  'unfinished',
  'not-asked',
  'not-allowed',
  'no-limit',
] as const;

/** A refusal to a respondent's page. `sitting`: where they stand, for the page to show that. */
export const AnswerRefusal = v.object({
  problem: v.string(),
  why: v.exactOptional(v.picklist(WHY_REFUSED)),
  sitting: v.exactOptional(SittingSchema),
});

/** What a respondent's page is told with its program. */
export const AnswerPageSchema = v.strictObject({
  token: v.string(),
  key: v.nullable(v.string()),
  /** Under which a response is begun from this page. */
  ticket: Id,
  /** Why nobody can begin, as a sentence; null where they can. */
  closed: v.nullable(v.string()),
  /** As its file has it; read by `readDocument`. */
  document: v.unknown(),
  title: v.string(),
  isDraft: v.boolean(),
  /** As the first page will be: null where that is known only once the response is begun. */
  first: v.nullable(PageCaseSchema),
  toCheck: v.boolean(),
  settings: v.strictObject({
    toldApart: v.picklist(TOLD_APART),
    attempts: v.number(),
    minutes: v.nullable(v.number()),
    mayGoBack: v.boolean(),
    mayReturn: v.boolean(),
    closing: v.nullable(v.string()),
    stopped: v.picklist(STOPPED_DATA),
    stoppedAfter: v.number(),
    signed: v.boolean(),
  }),
});
export type AnswerPage = v.InferOutput<typeof AnswerPageSchema>;

/** Under which name a browser keeps what it has of a link: each its own. */
export const keptName = (token: string, key: string | null) =>
  `jolly-fork answer ${token}${key === null ? '' : ` ${key}`}`;
