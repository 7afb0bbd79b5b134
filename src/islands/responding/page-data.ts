/** What a page of its own carries along with its program: read and validated before anything is drawn. */
import * as v from 'valibot';
import { readDocument } from '../../core/document/read';
import type { Plan } from '../../core/routing/plan';
import { planOf } from '../../core/routing/planner';

type CarrySchema = v.GenericSchema<unknown, { readonly document: unknown }>;

/** Null where it cannot be read. `schema`: of all that the page carries, the questionnaire among it. */
export function readPageData<Schema extends CarrySchema>(
  schema: Schema,
): { readonly data: v.InferOutput<Schema>; readonly plan: Plan } | null {
  const written = document.getElementById('questionnaire')?.textContent ?? 'null';
  const data = v.safeParse(schema, JSON.parse(written));
  const read = data.success ? readDocument(data.output.document) : null;
  return data.success && read?.ok === true ? { data: data.output, plan: planOf(read.document) } : null;
}
