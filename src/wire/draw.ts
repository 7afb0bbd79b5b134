/** The routes that were drawn at random to be walked; null before any were. */
import * as v from 'valibot';
import { DrawRecord } from '../core/exchange/work-records';

export const DrawSchema = v.object(DrawRecord.entries);
export type Draw = v.InferOutput<typeof DrawSchema>;

export const DrawToMake = v.omit(DrawRecord, ['at']);
