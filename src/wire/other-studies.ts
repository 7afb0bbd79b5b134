/** The studies that one can hand on to, with what each takes of others. */
import * as v from 'valibot';
import type { Given } from '../core/document/types';
import type { OtherStudy } from '../core/snags';

/** What a value is answered with was checked by the server, as a part of the study that takes it. */
const GivenSchema = v.custom<Given>(
  (input) => typeof input === 'object' && input !== null && 'name' in input,
);
export const OtherStudiesSchema: v.GenericSchema<unknown, OtherStudy[]> = v.array(
  v.object({ id: v.string(), title: v.string(), given: v.array(GivenSchema) }),
);

/** Has another study take a value more; the value is checked as a part of it. */
export const GivenToTake = v.strictObject({ study: v.string(), given: v.unknown() });
