/** What every door answers with where it has nothing to say, or refuses. */
import * as v from 'valibot';

export const NothingSchema = v.object({});

/** `problem` is shown to the person as it is. */
export const RefusalSchema = v.object({ problem: v.string() });
