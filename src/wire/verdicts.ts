/** Verdicts on a study's routes. */
import * as v from 'valibot';
import { WalkedSchema } from '../core/document/walked';
import { VerdictRecord } from '../core/exchange/work-records';
import { MadeOn } from './common';

export const VerdictSchema = v.object({ ...VerdictRecord.entries, ...MadeOn.entries });
export type Verdict = v.InferOutput<typeof VerdictSchema>;

export const VerdictToGive = v.strictObject({
  ...v.omit(VerdictRecord, ['at', 'walked']).entries,
  walked: WalkedSchema,
});
export const VerdictToTakeBack = v.pick(VerdictRecord, ['route']);
