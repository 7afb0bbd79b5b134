/** Saving a study: as edits made on a revision, or as a whole. */
import * as v from 'valibot';
import { OperationSchema } from '../core/editing/apply-operations';

const MOST_OPERATIONS = 10_000;
const Revision = v.pipe(v.number(), v.integer());

export const EditsToSave = v.strictObject({
  revision: Revision,
  operations: v.pipe(
    v.array(OperationSchema),
    v.maxLength(
      MOST_OPERATIONS,
      `more than ${MOST_OPERATIONS} changes at once: save the whole questionnaire instead`,
    ),
  ),
});
export const StudyToSave = v.strictObject({ revision: Revision, document: v.unknown() });
export const StudySaved = v.object({ revision: v.number(), changedAt: v.number() });

/** Somebody saved another revision in between. The document was checked by the server, and is again where it is taken over. */
export const SaveConflict = v.object({
  study: v.object({ document: v.unknown(), revision: v.number(), changedAt: v.number() }),
});
