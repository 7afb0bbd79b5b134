/** Answers that every endpoint shares: the empty one, and the refusal with its sentence. */
import * as v from 'valibot';

export const NothingSchema = v.object({});

/** `problem` is shown to the person as it is. */
export const RefusalSchema = v.object({ problem: v.string() });

/** The revision of the study that something was made on; null of what is older than versions. */
export const MadeOn = v.object({ revision: v.nullable(v.number()) });
