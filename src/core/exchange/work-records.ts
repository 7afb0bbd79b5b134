/** What is done on a study, as it is kept, sent and written into files: comments, verdicts, snags set aside, test respondents, draws. */
import * as v from 'valibot';
import { AddressSchema } from '../document/addresses';
import { VERDICTS } from '../document/vocabularies';
import { WalkedSchema } from '../document/walked';

/** The name of somebody; `missing` says what it is needed for. */
export const person = (missing: string) =>
  v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, missing),
    v.maxLength(100, 'the name has at most 100 characters'),
  );

/** Milliseconds since 1970, UTC. */
export const Moment = v.pipe(v.number(), v.integer(), v.minValue(0));

/** Names or marks along a route. */
const Words = v.pipe(v.array(v.pipe(v.string(), v.maxLength(1000))), v.maxLength(25_000));

export const Fingerprint = v.pipe(
  v.string(),
  v.regex(/^[0-9a-f]{64}$/, 'a route is named by its fingerprint'),
);

export const CommentRecord = v.strictObject({
  place: AddressSchema,
  text: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'a comment has words'),
    v.maxLength(4000, 'a comment has at most 4,000 characters'),
  ),
  author: person('a name is needed'),
  at: Moment,
  /** Who settled it and when; null while it is open. */
  settledBy: v.nullable(person('a name is needed')),
  settledAt: v.nullable(Moment),
});

export const VerdictRecord = v.strictObject({
  route: Fingerprint,
  marks: Words,
  items: Words,
  /** Null in old verdicts. */
  walked: v.nullable(WalkedSchema),
  verdict: v.picklist(VERDICTS),
  remark: v.pipe(v.string(), v.maxLength(2000, 'a remark has at most 2,000 characters')),
  /** Item the remark is about; empty for the whole route. */
  place: v.pipe(v.string(), v.maxLength(100)),
  reviewer: person('a verdict needs the name of who gives it'),
  at: Moment,
});

/** `snag`: what a snag is told by. */
export const AsideRecord = v.strictObject({
  snag: v.pipe(v.string(), v.minLength(1), v.maxLength(2000)),
  reason: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'a reason is needed'),
    v.maxLength(500, 'a reason has at most 500 characters'),
  ),
  reviewer: person('a name is needed'),
  at: Moment,
});

export const RespondentRecord = v.strictObject({
  name: person('a test respondent has a name'),
  walked: WalkedSchema,
  items: v.array(v.string()),
  marks: v.array(v.string()),
  /** The coded row, by column. */
  row: v.record(v.string(), v.union([v.number(), v.string()])),
  at: Moment,
});

/** Respondents made up with a seed, whose routes are walked. */
export const DrawRecord = v.strictObject({
  seed: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1_000_000)),
  count: v.pipe(
    v.number(),
    v.integer(),
    v.minValue(1, 'draw at least one'),
    v.maxValue(500, 'draw at most 500'),
  ),
  at: Moment,
});
