/** Coded rows that are kept with a study. */
import * as v from 'valibot';
import { MadeOn } from './common';

export const DatasetSchema = v.object({
  id: v.string(),
  name: v.string(),
  rows: v.number(),
  at: v.number(),
  ...MadeOn.entries,
});
export type Dataset = v.InferOutput<typeof DatasetSchema>;

/** Stands in the address: the body is CSV packed by gzip. What is left out is refused as what is empty. */
export const DatasetToKeep = v.object({
  name: v.optional(
    v.pipe(
      v.string(),
      v.trim(),
      v.minLength(1, 'rows that are kept have a name'),
      v.maxLength(200, 'the name has at most 200 characters'),
    ),
    '',
  ),
  rows: v.optional(
    v.pipe(v.string(), v.regex(/^\d{1,9}$/, 'the number of rows is needed'), v.transform(Number)),
    '',
  ),
});
export const DatasetToRemove = v.strictObject({ id: v.string() });
