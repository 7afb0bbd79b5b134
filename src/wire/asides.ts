/** Snags that were set aside. */
import * as v from 'valibot';
import { AsideRecord } from '../core/exchange/work-records';

export const AsideSchema = v.object(AsideRecord.entries);
export type Aside = v.InferOutput<typeof AsideSchema>;

export const AsideToPut = v.omit(AsideRecord, ['at']);
export const AsideToTakeBack = v.pick(AsideRecord, ['snag']);
