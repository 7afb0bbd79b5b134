/** Comments on places of a study. */
import * as v from 'valibot';
import { AddressSchema } from '../core/document/addresses';
import { CommentRecord, person } from '../core/exchange/work-records';
import { MadeOn } from './common';

export const CommentSchema = v.object({ id: v.number(), ...CommentRecord.entries, ...MadeOn.entries });
export type Comment = v.InferOutput<typeof CommentSchema>;

export const CommentToAdd = v.omit(CommentRecord, ['at', 'settledBy', 'settledAt']);
export const CommentChange = v.variant('what', [
  v.strictObject({ what: v.literal('settle'), id: v.number(), by: v.nullable(person('a name is needed')) }),
  v.strictObject({ what: v.literal('move'), from: AddressSchema, to: AddressSchema }),
]);
export const CommentToRemove = v.strictObject({ id: v.number() });
