/** One study: read, save on the revision it was read at, remove and bring back. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { problemText, readDocument } from '../../../../core/document/read';
import { json, noSuchStudy, readBody, refuse } from '../../../../server/respond';
import { store } from '../../../../store/open';
import { findStudy, removeStudy, restoreStudy, saveStudy } from '../../../../store/studies';

const SaveSchema = v.strictObject({ revision: v.pipe(v.number(), v.integer()), document: v.unknown() });

export const GET: APIRoute = ({ params }) => {
  const study = findStudy(store(), params.id ?? '');
  return study === null ? noSuchStudy(params.id) : json(study);
};

export const PUT: APIRoute = async ({ params, request }) => {
  const read = await readBody(request, SaveSchema);
  if (!read.ok) return read.response;
  const result = readDocument(read.body.document);
  if (!result.ok) {
    const problems = result.problems.map(problemText);
    return refuse(422, `Not saved: ${problems[0] ?? ''}`, { problems });
  }
  const saved = saveStudy(store(), params.id ?? '', read.body.revision, result.document, Date.now());
  if (saved === null) return noSuchStudy(params.id);
  if (!saved.saved) {
    return refuse(409, 'Not saved: this study was changed in another window since it was opened here.', {
      study: saved.study,
    });
  }
  return json({ revision: saved.study.revision, changedAt: saved.study.changedAt });
};

export const DELETE: APIRoute = ({ params }) =>
  removeStudy(store(), params.id ?? '', Date.now()) ? json({}) : noSuchStudy(params.id);

/** Brings a removed study back. */
export const POST: APIRoute = ({ params }) =>
  restoreStudy(store(), params.id ?? '') ? json({}) : noSuchStudy(params.id);
