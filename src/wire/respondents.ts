/** Test respondents: walks that are kept. */
import * as v from 'valibot';
import { RespondentRecord } from '../core/exchange/work-records';

export const RespondentSchema = v.object(RespondentRecord.entries);
export type KeptRespondent = v.InferOutput<typeof RespondentSchema>;

export const RespondentToKeep = v.omit(RespondentRecord, ['at']);
export const RespondentToRemove = v.pick(RespondentRecord, ['name']);
