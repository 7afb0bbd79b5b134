/** Reviewers' links. */
import * as v from 'valibot';
import { person } from '../core/exchange/work-records';

export const LinkSchema = v.object({
  token: v.string(),
  name: v.string(),
  createdAt: v.number(),
  withdrawnAt: v.nullable(v.number()),
});
export type Link = v.InferOutput<typeof LinkSchema>;

export const LinkToMake = v.strictObject({ name: person('say whom the link is for') });
export const LinkToWithdraw = v.strictObject({ token: v.string() });
