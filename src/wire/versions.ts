/** Versions of a study: kept or frozen, with what stood in the way. */
import * as v from 'valibot';
import type { Questionnaire } from '../core/document/types';
import { Moment, person } from '../core/exchange/work-records';
import { GATE_CHECKS, ROUTES_WANTED } from '../core/release/gate';

const Note = v.pipe(v.string(), v.trim(), v.maxLength(300, 'the note has at most 300 characters'));
const Revision = v.pipe(v.number(), v.integer(), v.minValue(1));

/** A line of the gate as it was when a version was frozen; counts are decimal strings. */
const GateLineRecord = v.object({
  check: v.picklist(GATE_CHECKS),
  count: v.pipe(v.string(), v.regex(/^\d+$/)),
  complete: v.boolean(),
});
export type GateRecord = v.InferOutput<typeof GateLineRecord>;

export const VersionSchema = v.object({
  number: v.number(),
  frozen: v.boolean(),
  /** SHA-256 of the questionnaire's file, in hexadecimal digits. */
  checksum: v.string(),
  revision: Revision,
  note: v.string(),
  author: v.string(),
  at: Moment,
  /** What stood in the way, and why it was frozen all the same; null where it was kept, or nothing did. */
  gate: v.nullable(v.array(GateLineRecord)),
  reason: v.nullable(v.string()),
});
export type Version = v.InferOutput<typeof VersionSchema>;

/** With its questionnaire, which was checked when it was kept. */
export const WholeVersionSchema = v.object({
  ...VersionSchema.entries,
  document: v.custom<Questionnaire>(
    (input) => typeof input === 'object' && input !== null && 'sections' in input,
  ),
});

export const VersionToKeep = v.variant('frozen', [
  v.strictObject({
    frozen: v.literal(false),
    revision: Revision,
    note: Note,
    author: person('say who keeps the version'),
  }),
  v.strictObject({
    frozen: v.literal(true),
    revision: Revision,
    note: Note,
    author: person('say who freezes the version'),
    wanted: v.picklist(ROUTES_WANTED),
    /** Why it is frozen though something stands in the way; empty where nothing is to. */
    reason: v.pipe(v.string(), v.trim(), v.maxLength(500, 'a reason has at most 500 characters')),
  }),
]);
