/** One study: read, save (edits, or the whole) on the revision it was read at, remove and bring back. */
import type { APIRoute } from 'astro';
import { problemText, readDocument, readEdited, type ReadResult } from '../../../../core/document/read';
import { applyOperations } from '../../../../core/editing/apply-operations';
import { json, noSuchStudy, refuse } from '../../../../server/respond';
import { withStudy, type StudyCall } from '../../../../server/with-study';
import { store } from '../../../../store/open';
import {
  findStudy,
  removeStudy,
  restoreStudy,
  revisionOf,
  saveStudy,
  type Study,
} from '../../../../store/studies';
import { EditsToSave, StudyToSave } from '../../../../wire/edits';

/** `?after=REVISION`: the document only if there is a newer one. */
export const GET = withStudy(({ db, id, url }) => {
  const revision = revisionOf(db, id);
  // Open tabs ask every few seconds: mostly there is nothing to read.
  if (revision !== null && url.searchParams.get('after') === String(revision)) return { revision };
  return findStudy(db, id) ?? noSuchStudy(id);
});

/** Edits as operations, made on a revision; 409 where that is not the newest, with what is. */
export const PATCH = withStudy(EditsToSave, (call) => {
  const { db, id, body } = call;
  const { revision, operations } = body;
  const study = findStudy(db, id);
  if (study === null) return noSuchStudy(id);
  if (study.revision !== revision) return overtaken(study);
  const { document, clashes } = applyOperations(study.document, operations);
  if (clashes.length > 0)
    return refuse(422, 'Not saved: these edits do not fit the version they were made on.');
  return save(call, revision, readEdited(document));
});

export const PUT = withStudy(StudyToSave, (call) =>
  save(call, call.body.revision, readDocument(call.body.document)),
);

function save(
  { db, id, now }: Pick<StudyCall<unknown>, 'db' | 'id' | 'now'>,
  revision: number,
  result: ReadResult,
): Response {
  if (!result.ok) {
    const problems = result.problems.map(problemText);
    return refuse(422, `Not saved: ${problems[0] ?? ''}`, { problems });
  }
  const saved = saveStudy(db, id, revision, result.document, now);
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
