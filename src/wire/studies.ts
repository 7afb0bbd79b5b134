/** Studies as wholes: adding one, the list, and what is newer than a page has. */
import * as v from 'valibot';

/** The document is checked apart, since what is wrong with it is told at length. */
export const StudyToAdd = v.strictObject({ document: v.unknown() });
export const StudyAdded = v.object({ id: v.string(), revision: v.number(), changedAt: v.number() });

/** What is known of a questionnaire by its text alone. */
const Examined = v.variant('is', [
  v.object({
    is: v.literal('questionnaire'),
    sections: v.number(),
    items: v.number(),
    skips: v.number(),
    /** As a decimal string; a proven lower bound unless `exact`. */
    routes: v.string(),
    exact: v.boolean(),
    /** Keys of errors and warnings. */
    snags: v.array(v.string()),
  }),
  /** What is wrong with it, as a sentence. */
  v.object({ is: v.literal('unreadable'), problem: v.string() }),
  /** It could not be worked out: by a fault, or in the time that there is. */
  v.object({ is: v.literal('failed'), why: v.picklist(['fault', 'time']) }),
]);
export type Examined = v.InferOutput<typeof Examined>;

/** What the list of studies shows of each. */
export const StudyCardSchema = v.object({
  id: v.string(),
  title: v.string(),
  /** Milliseconds since 1970, UTC. */
  changedAt: v.number(),
  passed: v.number(),
  /** Null while it is being examined. */
  examined: v.nullable(Examined),
  /** Errors and warnings that were not set aside; null where they are not known. */
  snags: v.nullable(v.number()),
});
export type StudyCard = v.InferOutput<typeof StudyCardSchema>;

/** The document is left out where there is none newer. */
export const NewerStudy = v.object({
  revision: v.number(),
  document: v.optional(v.unknown()),
  changedAt: v.optional(v.number()),
});

/** What an ending hands on to. */
export const FollowUpSchema = v.object({ document: v.unknown() });
