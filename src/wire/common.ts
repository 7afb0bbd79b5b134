/** Answers that every endpoint shares: the empty one, and the refusal with its sentence. */
import * as v from 'valibot';

export const NothingSchema = v.object({});

/** `problem` is shown to the person as it is. */
export const RefusalSchema = v.object({ problem: v.string() });
