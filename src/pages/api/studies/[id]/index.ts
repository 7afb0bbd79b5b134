/** One study: read, save (edits, or the whole) on the revision it was read at, remove and bring back. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { applyOperations, OperationSchema } from '../../../../core/editing/apply-operations';
import { problemText, readDocument, readEdited, type ReadResult } from '../../../../core/document/read';
import { json, noSuchStudy, readBody, refuse } from '../../../../server/respond';
import { store } from '../../../../store/open';
import {
  findStudy,
  removeStudy,
  restoreStudy,
  revisionOf,
  saveStudy,
  type Study,
} from '../../../../store/studies';

const SaveSchema = v.strictObject({ revision: v.pipe(v.number(), v.integer()), document: v.unknown() });

const MOST_OPERATIONS = 10_000;

const EditSchema = v.strictObject({
  revision: v.pipe(v.number(), v.integer()),
  operations: v.pipe(
    v.array(OperationSchema),
    v.maxLength(
      MOST_OPERATIONS,
      `more than ${MOST_OPERATIONS} changes at once: save the whole questionnaire instead`,
    ),
  ),
});

/** `?after=REVISION`: the document only if there is a newer one. */
export const GET: APIRoute = ({ params, url }) => {
  const id = params.id ?? '';
  const revision = revisionOf(store(), id);
  // Open tabs ask every few seconds: mostly there is nothing to read.
  if (revision !== null && url.searchParams.get('after') === String(revision)) return json({ revision });
  const study = findStudy(store(), id);
  return study === null ? noSuchStudy(id) : json(study);
};

/** Edits as operations, made on a revision; 409 where that is not the newest, with what is. */
export const PATCH: APIRoute = async ({ params, request }) => {
  const read = await readBody(request, EditSchema);
  if (!read.ok) return read.response;
  const study = findStudy(store(), params.id ?? '');
  if (study === null) return noSuchStudy(params.id);
  if (study.revision !== read.body.revision) return overtaken(study);
  const { document, clashes } = applyOperations(study.document, read.body.operations);
  if (clashes.length > 0)
    return refuse(422, 'Not saved: these edits do not fit the version they were made on.');
  return save(params.id ?? '', read.body.revision, readEdited(document));
};

export const PUT: APIRoute = async ({ params, request }) => {
  const read = await readBody(request, SaveSchema);
  if (!read.ok) return read.response;
  return save(params.id ?? '', read.body.revision, readDocument(read.body.document));
};

function save(id: string, revision: number, result: ReadResult): Response {
  if (!result.ok) {
    const problems = result.problems.map(problemText);
    return refuse(422, `Not saved: ${problems[0] ?? ''}`, { problems });
  }
  const saved = saveStudy(store(), id, revision, result.document, Date.now());
  if (saved === null) return noSuchStudy(id);
  if (!saved.saved) return overtaken(saved.study);
  return json({ revision: saved.study.revision, changedAt: saved.study.changedAt });
}

function overtaken(study: Study): Response {
  return refuse(409, 'Not saved: this study was changed elsewhere since it was opened here.', { study });
}

export const DELETE: APIRoute = ({ params }) =>
  removeStudy(store(), params.id ?? '', Date.now()) ? json({}) : noSuchStudy(params.id);

/** Brings a removed study back. */
export const POST: APIRoute = ({ params }) =>
  restoreStudy(store(), params.id ?? '') ? json({}) : noSuchStudy(params.id);
