/** The list of studies, and adding one. */
import type { APIRoute } from 'astro';
import * as v from 'valibot';
import { problemText, readDocument } from '../../../core/document/read';
import { json, readBody, refuse } from '../../../server/respond';
import { store } from '../../../store/open';
import { addStudy, listStudies } from '../../../store/studies';

const AddSchema = v.strictObject({ document: v.unknown() });

export const GET: APIRoute = () =>
  json(
    listStudies(store()).map(({ id, document, revision, changedAt }) => ({
      id,
      title: document.title,
      revision,
      changedAt,
    })),
  );

export const POST: APIRoute = async ({ request }) => {
  const read = await readBody(request, AddSchema);
  if (!read.ok) return read.response;
  const result = readDocument(read.body.document);
  if (!result.ok) {
    const problems = result.problems.map(problemText);
    return refuse(422, `This is not a questionnaire that can be used. ${problems[0] ?? ''}`, { problems });
  }
  const { id, revision, changedAt } = addStudy(store(), result.document, Date.now());
  return json({ id, revision, changedAt }, 201);
};
