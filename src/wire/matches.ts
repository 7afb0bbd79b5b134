/** How the columns of collected files were matched last: of each, what somebody said it is; null for none of the study's. */
import * as v from 'valibot';

export const SaidMatchesSchema = v.strictObject({ said: v.record(v.string(), v.nullable(v.string())) });
